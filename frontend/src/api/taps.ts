/** Taps at a machine that is out of reach of the server: kept here, in order, and sent when it answers again. */
import { ref } from "vue";
import { Refused } from "./refused";

export interface Tap {
  layout: number;
  key: string;
  done: boolean;
  reading: number | null;
  minutes: number | null;
}

const PLACE = "taps to send";
export const unsent = ref<Tap[]>(read());

function read(): Tap[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(PLACE) ?? "[]");
    return Array.isArray(kept) ? (kept as Tap[]) : [];
  } catch {
    return [];
  }
}

function keep(taps: Tap[]): void {
  unsent.value = taps;
  localStorage.setItem(PLACE, JSON.stringify(taps));
}

/** Keep a tap; a later one of the same step takes its place. */
export function hold(tap: Tap): void {
  keep([...unsent.value.filter((t) => t.layout !== tap.layout || t.key !== tap.key), tap]);
}

/** Whether a failure means that nobody was reached, not that the tap was refused. */
export function outOfReach(problem: unknown): boolean {
  return problem instanceof TypeError || (problem instanceof Refused && problem.status === 0) || (typeof navigator !== "undefined" && !navigator.onLine);
}

let sending = false;
/** Send what is held, the oldest first; what is refused for good is dropped and told, what cannot be sent now stays. */
export async function send(put: (tap: Tap) => Promise<void>, refused: (tap: Tap, why: string) => void): Promise<number> {
  if (sending) return 0;
  sending = true;
  let sent = 0;
  try {
    while (unsent.value.length) {
      const tap = unsent.value[0]!;
      try {
        await put(tap);
        sent++;
      } catch (problem) {
        if (outOfReach(problem)) break;
        refused(tap, problem instanceof Error ? problem.message : String(problem));
      }
      keep(unsent.value.filter((t) => t !== tap));
    }
  } finally {
    sending = false;
  }
  return sent;
}
