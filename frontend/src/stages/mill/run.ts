/** A step at the machine, from its first pass to its reading: what the next tap does, and what is left. */
import type { Schemas, Step } from "../../api/client";

export type Verdict = Schemas["VerdictBody"];

/**
 * Where a step stands. `taken` counts passes since the last reading, `more` are passes a reading
 * has asked for.
 */
export interface Run {
  key: string;
  began: number;
  taken: number;
  more: { passes: number[]; turns: string[] } | null;
  reading: number | null;
  verdict: Verdict | null;
  /** Passes of the whole step, those before the last reading too. */
  all: number;
}

export type Phase = "pass" | "read" | "stop" | "done";

export function begin(step: Step, now: number): Run {
  return { key: step.key, began: now, taken: 0, more: null, reading: null, verdict: null, all: 0 };
}

/** Steps whose figure decides what comes next are read; a fitted piece is measured on the work. */
export function asksReading(step: Step): boolean {
  return (
    step.kind.startsWith("fit-") ||
    (step.dimension === "thickness" && ["planer", "hand plane"].includes(step.machine))
  );
}

/** The passes to be taken now, with how the machine is moved for each. */
export function passesOf(step: Step, run: Run): { passes: number[]; turns: string[] } {
  return run.more ?? { passes: step.passes, turns: step.turns };
}

export function phase(step: Step, run: Run): Phase {
  if (run.verdict?.state === "stop") return "stop";
  if (run.verdict?.state === "done") return "done";
  if (run.taken < passesOf(step, run).passes.length) return "pass";
  return asksReading(step) ? "read" : "done";
}

/** One pass is done. */
export function tapped(run: Run): Run {
  return { ...run, taken: run.taken + 1, all: run.all + 1 };
}

/** The last tap was one too many. */
export function untapped(run: Run): Run {
  return run.taken ? { ...run, taken: run.taken - 1, all: run.all - 1 } : run;
}

/**
 * Whether the eye decides when a face or an edge is clean: passes are foretold, and end where it is.
 * To a thickness it is the caliper that decides.
 */
export function endsByEye(step: Step): boolean {
  return step.dimension === "straight" && step.passes.length > 0;
}

/** Clean before the passes foretold: no more are to go. */
export function cleanAlready(step: Step, run: Run): Run {
  const { passes, turns } = passesOf(step, run);
  return { ...run, more: { passes: passes.slice(0, run.taken), turns: turns.slice(0, run.taken) } };
}

/** Not clean yet: a pass more than foretold, as deep as the last. */
export function oneMore(step: Step, run: Run): Run {
  const { passes, turns } = passesOf(step, run);
  return {
    ...run,
    more: { passes: [...passes, passes.at(-1) ?? 0], turns: [...turns, ...turns.slice(-1)] },
  };
}

/** A reading and what it means: passes still to go are counted from here. */
export function judged(run: Run, reading: number, verdict: Verdict): Run {
  const more = verdict.state === "go on" ? { passes: verdict.passes, turns: verdict.turns } : run.more;
  return { ...run, reading, verdict, more, taken: verdict.state === "go on" ? 0 : run.taken };
}

/** What the caliper should show by now: the reading the step foretells after the passes taken. */
export function foretold(step: Step, run: Run): number {
  const gone = passesOf(step, run)
    .passes.slice(0, run.taken)
    .reduce((sum, p) => sum + p, 0);
  const from = run.more && run.reading !== null ? run.reading : step.stock_in;
  return step.dimension === "thickness" ? from - gone : step.stock_out;
}

/**
 * What passes beyond those foretold leave of what was to spare when the face is flat; nothing where
 * there are none. Below nought the piece comes out too thin.
 */
export function spareLeft(step: Step, run: Run): number | null {
  const { passes } = passesOf(step, run);
  // Those before the last reading count as well: a reading begins the count anew.
  const over = run.all - run.taken + passes.length - step.passes.length;
  if (step.does !== "flatten" || over <= 0) return null;
  return step.spare - passes.slice(-over).reduce((sum, p) => sum + p, 0);
}

/**
 * Steps in the order of the shop's days where these are planned, in that of the routes else; those
 * that are not planned last.
 */
export function inOrder(steps: Step[], setups: { steps: string[] }[]): Step[] {
  const place = new Map(setups.flatMap((s) => s.steps).map((key, n) => [key, n]));
  return steps
    .map((step, n) => ({ step, n: place.get(step.key) ?? (step.done ? -1 : 1e6) + n / 1e6 }))
    .sort((a, b) => a.n - b.n)
    .map((s) => s.step);
}

/** The next step that can be done: ready and not done, from a place on, then from the beginning. */
export function nextReady(steps: Step[], from: number): number {
  const places = [...steps.keys()].sort(
    (a, b) => ((a - from + steps.length) % steps.length) - ((b - from + steps.length) % steps.length),
  );
  return places.find((n) => steps[n]!.ready) ?? -1;
}

/** Steps of the same setting that follow, the nearest first. */
export function sameSetting(steps: Step[], at: number): Step[] {
  const now = steps[at];
  return now
    ? steps.slice(at + 1).filter((s) => s.setup === now.setup && s.machine === now.machine && !s.done)
    : [];
}

/** After a step is done here: which steps of a list have become ready (their rests not counted). */
export function marked(steps: Step[], key: string, done: boolean): Step[] {
  const finished = new Set(steps.filter((s) => (s.key === key ? done : s.done)).map((s) => s.key));
  const holds = new Map(steps.map((s) => [s.key, s.hold]));
  return steps.map((s) => ({
    ...s,
    done: finished.has(s.key),
    ready:
      !finished.has(s.key) &&
      s.after.every((k) => finished.has(k)) &&
      !(s.after.includes(key) && done && (holds.get(key) ?? 0) > 0) &&
      !s.rests_until,
  }));
}
