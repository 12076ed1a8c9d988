/**
 * Taps at a machine that is out of reach of the server: kept here, in order, and sent when it
 * answers again.
 */
import { ref } from "vue";
import { Refused } from "./refused";

export interface Tap {
  layout: number;
  key: string;
  done: boolean;
  reading: number | null;
  minutes: number | null;
  passes: number | null;
  who: string;
}

const PLACE = "taps to send";
const SENT = "taps sent";
/** More taps than these are older than any answer that could lack them. */
const MOST = 200;
export const unsent = ref<Tap[]>(read(PLACE));

function read(place: string): Tap[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? "[]");
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
export function enqueue(tap: Tap): void {
  keep([...unsent.value.filter((t) => t.layout !== tap.layout || t.key !== tap.key), tap]);
}

/** Taps that the server has, but perhaps none of its answers that were kept. */
export function sent(): Tap[] {
  return read(SENT);
}
export function remember(tap: Tap): void {
  localStorage.setItem(SENT, JSON.stringify([...sent(), tap].slice(-MOST)));
}
/** An answer asked for after these has come: it knows them. */
export function known(taps: number): void {
  localStorage.setItem(SENT, JSON.stringify(sent().slice(taps)));
}

/** Whether a failure means that nobody was reached, not that the tap was refused. */
export function outOfReach(problem: unknown): boolean {
  return (
    problem instanceof TypeError ||
    (problem instanceof Refused && problem.status === 0) ||
    (typeof navigator !== "undefined" && !navigator.onLine)
  );
}

let sending = false;
/**
 * Send what is held, the oldest first; what is refused for good is dropped and told, what cannot be
 * sent now stays.
 */
export async function send(
  put: (tap: Tap) => Promise<void>,
  refused: (tap: Tap, why: string) => void,
): Promise<number> {
  if (sending) return 0;
  sending = true;
  let many = 0;
  try {
    while (unsent.value.length) {
      const tap = unsent.value[0]!;
      try {
        await put(tap);
        many++;
        remember(tap);
      } catch (problem) {
        if (outOfReach(problem)) break;
        refused(tap, problem instanceof Error ? problem.message : String(problem));
      }
      keep(unsent.value.filter((t) => t !== tap));
    }
  } finally {
    sending = false;
  }
  return many;
}
