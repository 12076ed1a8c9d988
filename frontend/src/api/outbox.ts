/**
 * What is done and told at a machine that is out of reach of the server: kept here, in order, and
 * sent when it answers again.
 */
import { ref } from "vue";
import { Refused } from "./refused";
import type { components } from "./schema";

export interface Tap {
  layout: number;
  key: string;
  done: boolean;
  reading: number | null;
  minutes: number | null;
  passes: number | null;
  who: string;
}

/** Something that happened to a piece; sent twice with the same moment it is written once. */
export interface Said extends Required<components["schemas"]["HappenedBody"]> {
  layout: number;
}
export type Waiting = Tap | Said;
export const isTap = (one: Waiting): one is Tap => "key" in one;
export const tapsOf = (all: Waiting[]): Tap[] => all.filter(isTap);

const PLACE = "taps to send";
const SENT = "taps sent";
/** More taps than these are older than any answer that could lack them. */
const MOST = 200;
export const unsent = ref<Waiting[]>(read(PLACE));

function read<One extends Waiting>(place: string): One[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? "[]");
    return Array.isArray(kept) ? (kept as One[]) : [];
  } catch {
    return [];
  }
}

function keep(all: Waiting[]): void {
  unsent.value = all;
  localStorage.setItem(PLACE, JSON.stringify(all));
}

/** Keep it for later; of two taps of one step the later takes the place of the earlier. */
export function enqueue(one: Waiting): void {
  const same = (other: Waiting) =>
    isTap(one) && isTap(other) && other.layout === one.layout && other.key === one.key;
  keep([...unsent.value.filter((other) => !same(other)), one]);
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

/** Whether a failure means that nobody was reached, not that it was refused. */
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
  put: (one: Waiting) => Promise<void>,
  refused: (one: Waiting, why: string) => void,
): Promise<number> {
  if (sending) return 0;
  sending = true;
  let many = 0;
  try {
    while (unsent.value.length) {
      const one = unsent.value[0]!;
      try {
        await put(one);
        many++;
        if (isTap(one)) remember(one);
      } catch (problem) {
        if (outOfReach(problem)) break;
        refused(one, problem instanceof Error ? problem.message : String(problem));
      }
      keep(unsent.value.filter((other) => other !== one));
    }
  } finally {
    sending = false;
  }
  return many;
}
