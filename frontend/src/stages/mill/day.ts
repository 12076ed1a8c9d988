/** The shop's days as they are shown: what is set up when, and how far each setting is. */
import type { Schemas, Step } from "../../api/client";
import { t, tag } from "../../i18n/i18n";

export type Setup = Schemas["SetupBody"];
export type State = "done" | "ready" | "waits" | "rests";

/** `14:05` of minutes after midnight. */
export function clock(minutes: number): string {
  return `${Math.floor(minutes / 60)}:${String(Math.round(minutes) % 60).padStart(2, "0")}`;
}

/** `2 h 05` or `12 min`. */
export function lasting(minutes: number): string {
  const whole = Math.round(minutes);
  return whole < 60
    ? t("{whole} min", { whole })
    : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, "0")}`;
}

/** A day by the clock of the shop, as `2026-05-04`. */
export function dateOf(day: Date): string {
  return new Date(day.getTime() - day.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);
}

/** A day of the plan by the calendar. */
function calendar(begins: string, day: number): Date {
  const [y, m, d] = begins.split("-").map(Number);
  return new Date(y!, m! - 1, d! + day);
}

/** The rest of a board that is not over today. */
export function restsNow(
  days: Pick<Schemas["DaysBody"], "begins" | "resting"> | undefined,
  board: string,
  today: Date,
): Schemas["Resting"] | undefined {
  return days?.resting.find(
    (r) => r.board === board && dateOf(calendar(days.begins, r.until)) > dateOf(today),
  );
}

/** The date of a day of the plan, as it is said. */
export function dayName(begins: string, day: number): string {
  return calendar(begins, day).toLocaleDateString(tag(), {
    weekday: "long",
    day: "numeric",
    month: "long",
  });
}

export function stateOf(step: Step | undefined): State {
  if (!step || step.done) return "done";
  return step.ready ? "ready" : step.rests_until ? "rests" : "waits";
}

/** A setting is done with its last step; ready as soon as one of its steps can be begun. */
export function setupState(setup: Setup, steps: Map<string, Step>): State {
  const states = setup.steps.map((k) => stateOf(steps.get(k)));
  if (states.every((s) => s === "done")) return "done";
  return states.includes("ready") ? "ready" : states.includes("rests") ? "rests" : "waits";
}

/** What a setting waits for: the steps before it that are not done, each once, of other settings. */
export function waitsFor(setup: Setup, steps: Map<string, Step>): Step[] {
  const mine = new Set(setup.steps);
  const found = new Map<string, Step>();
  for (const key of setup.steps) {
    const step = steps.get(key);
    for (const before of step && !step.done ? step.after : []) {
      const other = steps.get(before);
      if (other && !other.done && !mine.has(before)) found.set(before, other);
    }
  }
  return [...found.values()];
}

export interface DayOf {
  day: number;
  setups: Setup[];
  machines: { machine: string; bars: { setup: Setup; from: number; to: number }[] }[];
}

/**
 * Settings by day, and for each machine its bars as shares of the day; what runs over night is on
 * both days.
 */
export function byDay(setups: Setup[], minutes: number): DayOf[] {
  const found = new Map<number, DayOf>();
  const at = (day: number): DayOf => {
    if (!found.has(day)) found.set(day, { day, setups: [], machines: [] });
    return found.get(day)!;
  };
  for (const setup of setups) {
    at(setup.day).setups.push(setup);
    for (let day = setup.day; day * minutes < setup.ends; day++) {
      const from = Math.max(0, setup.begins - day * minutes) / minutes;
      const to = Math.min(minutes, setup.ends - day * minutes) / minutes;
      const lanes = at(day).machines;
      let lane = lanes.find((m) => m.machine === setup.machine);
      if (!lane) lanes.push((lane = { machine: setup.machine, bars: [] }));
      lane.bars.push({ setup, from, to });
    }
  }
  return [...found.values()].sort((a, b) => a.day - b.day);
}
