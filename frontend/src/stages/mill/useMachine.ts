/**
 * The work at the machine: which step it is, how many of its passes are taken, what a reading says,
 * and what the one large button does next. Counts are kept in the browser: another piece, a reload or
 * a lost network loses none.
 */
import { useLocalStorage } from "@vueuse/core";
import { computed, ref, watch, type Ref } from "vue";
import { api, type Step } from "../../api/client";
import { useDays, useMilling, useSettings } from "../../api/milling";
import { withErrorToast } from "../../controls/withErrorToast";
import {
  asksReading,
  begin,
  cleanAlready,
  endsByEye,
  foretold,
  inOrder,
  judged,
  marked,
  nextReady,
  oneMore,
  passesOf,
  phase,
  sameSetting,
  spareLeft,
  tapped,
  untapped,
  type Run,
} from "./run";
import { t } from "../../i18n/i18n";

export function useMachine(pk: Ref<number>) {
  const { data, error, mark } = useMilling(pk);
  const { days } = useDays(computed(() => data.value?.layout));
  const { changed } = useSettings(pk);
  const steps = computed(() =>
    inOrder(data.value?.routes.flatMap((r) => r.steps) ?? [], days.value?.setups ?? []),
  );
  const key = ref("");
  /** A reading nobody asked for, because something looks wrong. */
  const doubted = ref(false);
  const at = computed(() => steps.value.findIndex((s) => s.key === key.value));
  const step = computed<Step | undefined>(() => steps.value[at.value]);

  /** Steps that were begun here, by layout and key; what is done goes out. */
  const begun = useLocalStorage<Record<string, Run>>("steps begun", {}, { flush: "sync" });
  const place = (key: string) => `${data.value?.layout} ${key}`;
  const run = ref<Run>();
  function keep(key: string, now: Run | null): void {
    const others = { ...begun.value };
    delete others[place(key)];
    begun.value = now ? { ...others, [place(key)]: now } : others;
  }
  watch(run, (now) => now && keep(now.key, now.all || now.more || now.reading !== null ? now : null), {
    flush: "sync",
  });
  function show(next: Step): void {
    key.value = next.key;
    doubted.value = false;
    run.value = begun.value[place(next.key)] ?? begin(next, Date.now());
  }
  watch(
    steps,
    (now) => {
      if (now.length && !now.some((s) => s.key === key.value)) show(now[Math.max(0, nextReady(now, 0))]!);
    },
    { immediate: true },
  );
  const stage = computed(() => (step.value && run.value ? phase(step.value, run.value) : "done"));
  const now = computed(() =>
    step.value && run.value ? passesOf(step.value, run.value) : { passes: [], turns: [] },
  );
  const left = computed(() => Math.max(0, now.value.passes.length - (run.value?.taken ?? 0)));
  const following = computed(() => sameSetting(steps.value, at.value));
  const canDoubt = computed(
    () =>
      !!step.value &&
      !asksReading(step.value) &&
      ["straight", "width", "length"].includes(step.value.dimension) &&
      !["rough-length", "rough-rip", "square"].includes(step.value.kind),
  );
  const allDone = computed(() => steps.value.length > 0 && steps.value.every((s) => s.done));
  const next = computed(() =>
    step.value?.dimension === "thickness" && run.value
      ? foretold(step.value, { ...run.value, taken: run.value.taken + 1 })
      : 0,
  );

  /** Cautions are shown before a machine's first step of the day. */
  const day = new Date().toDateString();
  const understood = ref(
    new Set<string>(JSON.parse(localStorage.getItem(`understood ${day}`) ?? "[]") as string[]),
  );
  const cautions = computed(() =>
    step.value && !understood.value.has(step.value.machine)
      ? data.value?.cautions[step.value.machine]
      : undefined,
  );
  function understand(): void {
    understood.value = new Set([...understood.value, step.value!.machine]);
    localStorage.setItem(`understood ${day}`, JSON.stringify([...understood.value]));
  }

  /** What a reading that stopped the work says of the piece. */
  const stopped = computed(() => {
    const what = (["thickness", "width", "length"] as const).find((d) => d === step.value?.dimension);
    const read = run.value?.verdict?.state === "stop" ? run.value.reading : null;
    return what && read ? { what, value: read } : undefined;
  });
  function finish(): void {
    const was = step.value!;
    const minutes = run.value ? (Date.now() - run.value.began) / 60_000 : null;
    const reading = run.value?.reading ?? null;
    const passes = was.passes.length ? (run.value?.all ?? null) : null;
    keep(was.key, null);
    // Before the tick, which may put the list into another order.
    const list = marked(steps.value, was.key, true);
    const place = nextReady(list, at.value + 1);
    show(list[place < 0 ? Math.min(at.value + 1, list.length - 1) : place]!);
    void mark(was.key, true, {
      reading,
      passes,
      minutes: minutes !== null && minutes > 0.05 ? Math.round(minutes * 100) / 100 : null,
    });
  }
  /** The one button: understood, a pass taken, or the step done. */
  function forward(): void {
    if (!step.value || !run.value) return;
    if (cautions.value) understand();
    else if (step.value.done) go(1);
    else if (stage.value === "pass") {
      run.value = tapped(run.value);
      if (phase(step.value, run.value) === "done") finish();
    } else if (stage.value === "done") finish();
  }
  function go(by: number): void {
    const place = Math.min(Math.max(at.value + by, 0), steps.value.length - 1);
    if (steps.value[place]) show(steps.value[place]);
  }
  async function read(reading: number): Promise<void> {
    const was = step.value!;
    if (was.kind.startsWith("fit-")) {
      const measured = Object.fromEntries(was.marks.map((mark) => [mark, reading]));
      await withErrorToast(() => changed((now) => ({ ...now, fitted: { ...now.fitted, ...measured } })));
      return;
    }
    await withErrorToast(async () => {
      const { data: verdict } = await api.POST("/api/layouts/{layout}/reading", {
        params: { path: { layout: data.value!.layout } },
        body: { key: was.key, reading },
      });
      if (run.value?.key === was.key) run.value = judged(run.value, reading, verdict!);
      doubted.value = false;
    });
  }
  function again(): void {
    run.value = { ...run.value!, verdict: null };
    doubted.value = !!step.value && !asksReading(step.value);
  }

  const steers = computed(
    () => !!step.value && !step.value.done && !cautions.value && stage.value === "pass",
  );
  /** The last tap was one too many. */
  const canTakeBack = computed(() => !!run.value?.taken && !step.value?.done);
  const takeBack = () => void (run.value = untapped(run.value!));
  /** Passes end where the eye says so, before or after those foretold. */
  const byEye = computed(() => steers.value && endsByEye(step.value!));
  function clean(): void {
    run.value = cleanAlready(step.value!, run.value!);
    if (stage.value === "done") finish();
  }
  /** What is to spare after passes that were not foretold. */
  const spare = computed(() => (step.value && run.value ? spareLeft(step.value, run.value) : null));
  const more = () => void (run.value = oneMore(step.value!, run.value!));
  const button = computed(() => {
    if (cautions.value) return t("Understood");
    if (step.value?.done) return allDone.value ? t("All done") : t("Next");
    if (stage.value === "pass")
      return left.value > 1 || asksReading(step.value!) ? t("Pass taken") : t("Last pass taken");
    return stage.value === "read" ? "" : stage.value === "stop" ? "" : t("Done");
  });

  return {
    data,
    days,
    error,
    steps,
    at,
    step,
    run,
    doubted,
    stage,
    now,
    left,
    next,
    following,
    canDoubt,
    cautions,
    stopped,
    show,
    go,
    forward,
    read,
    again,
    button,
    canTakeBack,
    takeBack,
    byEye,
    clean,
    more,
    spare,
  };
}
