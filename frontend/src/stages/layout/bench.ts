/** The bench: moves by hand, and what is fixed when the rest is solved. */
import { useQueryClient } from "@tanstack/vue-query";
import { computed, ref, type Ref } from "vue";
import { api, type Layout, type Schemas } from "../../api/client";
import { itemName, type Item, type Plan } from "../../board/geometry";
import { withErrorToast } from "../../controls/withErrorToast";
import { moveOf, whereIs, type Move } from "./moves";

export type Fixings = Schemas["FixingsBody"];
const NONE: Fixings = { pins: [], forbidden: [], excluded: [], priority: [], begun: [] };

export function useBench(
  pk: Ref<number>,
  standing: Ref<Layout | null>,
  plan: Ref<Plan | undefined>,
  going: Ref<boolean>,
) {
  const client = useQueryClient();
  const picked = ref<Item | null>(null);
  const swapping = ref<Item | null>(null);
  const drawing = ref(false);
  const movable = computed(() => !!plan.value && !standing.value!.stale && !going.value);
  const fixings = computed(() => standing.value?.fixings ?? NONE);
  /** How much is fixed. */
  const held = computed(() => Object.values(fixings.value).reduce((sum, list) => sum + list.length, 0));
  const pickedName = computed(() => (picked.value ? itemName(picked.value) : ""));
  const isPinned = computed(() => fixings.value.pins.some((i) => itemName(i) === pickedName.value));
  const lies = computed(() => (picked.value ? whereIs(plan.value, picked.value) : undefined));

  async function after(act: () => Promise<unknown>): Promise<void> {
    await withErrorToast(async () => {
      await act();
    });
    await client.invalidateQueries({ queryKey: ["layout", pk.value] });
    for (const key of ["milling", "account"]) void client.invalidateQueries({ queryKey: [key, pk.value] });
  }
  function make(move: Move): Promise<void> {
    const path = { layout: standing.value!.pk };
    return after(() => api.POST("/api/layouts/{layout}/move", { params: { path }, body: move }));
  }
  function act(kind: Move["kind"]): void {
    if (picked.value && movable.value) void make(moveOf(kind, picked.value));
  }
  function hold(change: Partial<Fixings>): void {
    if (!movable.value) return;
    const path = { layout: standing.value!.pk };
    const body = { ...fixings.value, ...change };
    void after(() => api.PUT("/api/layouts/{layout}/fixings", { params: { path }, body }));
  }
  function pin(): void {
    if (!picked.value || !lies.value) return;
    const rest = fixings.value.pins.filter((i) => itemName(i) !== pickedName.value);
    hold({ pins: isPinned.value ? rest : [...rest, picked.value] });
  }
  function forbid(place: Fixings["forbidden"][number]): void {
    drawing.value = false;
    hold({ forbidden: [...fixings.value.forbidden, place] });
  }
  function forbidWhereItLies(): void {
    if (!lies.value) return;
    const { board, x0, x1, y0, y1 } = lies.value;
    forbid({ board, x0, x1, y0, y1 });
  }
  function pick(item: Item | null): void {
    const first = swapping.value;
    if (first && item) {
      swapping.value = null;
      void make(moveOf("swap", first, { other: item }));
    }
    picked.value = item;
  }
  function back(which: "undo" | "redo"): void {
    void after(() =>
      api.POST(`/api/projects/{project}/layout/${which}`, { params: { path: { project: pk.value } } }),
    );
  }
  return {
    picked,
    swapping,
    drawing,
    movable,
    fixings,
    held,
    pickedName,
    isPinned,
    lies,
    make,
    act,
    hold,
    pin,
    forbid,
    forbidWhereItLies,
    pick,
    back,
    after,
  };
}

export function toggled(list: string[], name: string): string[] {
  return list.includes(name) ? list.filter((n) => n !== name) : [...list, name];
}
