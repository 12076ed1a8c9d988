/** The marks on a picture: scales and rectangles, kept as they are made, with an undo of their own. */
import { computed, ref, watch } from "vue";
import { api } from "../../api/client";
import { Refused } from "../../api/refused";
import { withErrorToast } from "../../controls/withErrorToast";
import type { Mark, Scale } from "./takeoff";

export interface Marks {
  scales: Scale[];
  marks: Mark[];
}
const MOST = 50;

/** Those of a drawing; `changed` is called when another one is shown. */
export function useMarks(drawing: () => number, changed: () => void) {
  const marks = ref<Marks>({ scales: [], marks: [] });
  const past = ref<Marks[]>([]);
  /** Not before those that are kept have come: they would take the place of what is drawn meanwhile. */
  const ready = ref(false);
  const versions = new Map<number, number>();
  let saving = Promise.resolve();

  async function load(): Promise<void> {
    const of = drawing();
    const path = { drawing: of };
    const kept = (await api.GET("/api/drawings/{drawing}/marks", { params: { path } })).data!;
    versions.set(of, kept.version);
    if (of !== drawing()) return;
    marks.value = { scales: kept.scales, marks: kept.marks };
    past.value = [];
  }
  watch(
    drawing,
    () => {
      changed();
      ready.value = false;
      const of = drawing();
      void withErrorToast(load).then(() => {
        if (of === drawing()) ready.value = true;
      });
    },
    { immediate: true },
  );
  async function save(of: number, made: Marks): Promise<void> {
    try {
      const params = { path: { drawing: of } };
      const body = { version: versions.get(of) ?? 0, ...made };
      const kept = (await api.PUT("/api/drawings/{drawing}/marks", { params, body })).data!;
      versions.set(of, kept.version);
    } catch (problem) {
      // What somebody else has marked meanwhile is shown; else what was drawn stays, and goes out with the next.
      if (problem instanceof Refused && problem.status === 409) await load();
      throw problem;
    }
  }
  /** The marks from now on; each set goes out in its turn, to the drawing it was made on. */
  function set(next: Marks, undoable = true): void {
    if (undoable) past.value = [...past.value.slice(-MOST), marks.value];
    marks.value = next;
    const of = drawing();
    saving = saving.then(() => withErrorToast(() => save(of, next)));
  }
  function undo(): void {
    const before = past.value.at(-1);
    if (!before) return;
    past.value = past.value.slice(0, -1);
    set(before, false);
  }
  return { marks, ready, set, undo, canUndo: computed(() => past.value.length > 0) };
}

/** The first of stem1, stem2, ... that none of these has. */
export function fresh(stem: string, used: { id: string }[]): string {
  for (let n = 1; ; n++) if (!used.some((u) => u.id === `${stem}${n}`)) return `${stem}${n}`;
}
