/**
 * In the aisle without a server: first words from figures worked out beforehand, ticket arithmetic,
 * records that wait.
 */
import { ref } from "vue";
import type { OfferPut, Supplier, Verdict, Words } from "../../../api/buying";
import type { Board } from "../../../api/client";
import { TICKS_PER_INCH as IN } from "../../../measure";

export type Trouble = "none" | "check" | "twist";
/** Within this share of the price a first word is about even: the figures are of plain boards. */
const EVEN = 0.15;

export interface FirstWord {
  word: Verdict["word"];
  worth: number;
}

/** Worth of a plain board of this size, between the sizes that were worked out. */
export function worthOf(words: Words, length: number, width: number, trouble: Trouble): number {
  const rows = words.worths[trouble] ?? [];
  const [i, down] = between(words.lengths, length);
  const [j, over] = between(words.widths, width);
  const at = (a: number, b: number) => rows[a]?.[b] ?? 0;
  const low = at(i, j) + over * (at(i, j + 1) - at(i, j));
  const high = at(i + 1, j) + over * (at(i + 1, j + 1) - at(i + 1, j));
  // Shorter or narrower than the least that was worked out gives nothing for certain.
  if (length < words.lengths[0]! || width < words.widths[0]!)
    return Math.min(1, (length * width) / (words.lengths[0]! * words.widths[0]!)) * at(0, 0);
  return low + down * (high - low);
}

/** The place before a value in rising figures, and how far it is on the way to the next. */
function between(figures: number[], value: number): [number, number] {
  const last = figures.length - 2;
  let k = 0;
  while (k < last && figures[k + 1]! <= value) k++;
  const share = (value - figures[k]!) / (figures[k + 1]! - figures[k]!);
  return [k, Math.min(1, Math.max(0, share))];
}

export function firstWord(
  words: Words,
  length: number,
  width: number,
  trouble: Trouble,
  price: number,
): FirstWord {
  const worth = worthOf(words, length, width, trouble);
  if (worth <= 0) return { word: "not-wanted", worth: 0 };
  if (Math.abs(worth - price) <= EVEN * price) return { word: "even", worth };
  return { word: worth > price ? "take" : "leave", worth };
}

/** Board feet as a supplier's ticket counts them: its rule over rough thickness, width and length. */
export function ticketFeet(rule: Supplier["ticket"], quarter: string, width: number, length: number): number {
  const thick = Math.max(1, Number(quarter.split("/")[0]) / 4);
  const hair = 1e-9;
  let feet = length / (12 * IN);
  if (rule.whole_feet) feet = Math.floor(feet + hair);
  let inches = width / IN;
  if (rule.half_inches_up) inches = Math.ceil(inches * 2 - hair) / 2;
  let surface = (inches * feet) / 12;
  if (rule.method === "surface") surface = Math.floor(surface + 0.5 + hair);
  return surface * thick;
}

/** Its width as the ticket takes it: the mean over its length. */
export function meanWidth(board: Board): number {
  let area = 0;
  board.stations.slice(1).forEach((b, i) => {
    const a = board.stations[i]!;
    area += ((b.x - a.x) * (a.y1 - a.y0 + b.y1 - b.y0)) / 2;
  });
  return area / board.length;
}

// ---- records that wait for the server --------------------------------------------------------------

export interface Waiting {
  project: number;
  offer: OfferPut;
  /** Why the server does not take it; it is kept until it is put right or forgotten. */
  why?: string;
}
const PLACE = "boards looked at";

function read(): Waiting[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(PLACE) ?? "[]");
    return Array.isArray(kept) ? (kept as Waiting[]) : [];
  } catch {
    return [];
  }
}
export const waiting = ref<Waiting[]>(read());

function keep(now: Waiting[]): void {
  waiting.value = now;
  try {
    localStorage.setItem(PLACE, JSON.stringify(now));
  } catch {
    // A private window keeps it as long as the page is open.
  }
}

/** Keep a record; a later one of the same board takes its place. */
export function hold(record: Waiting): void {
  keep([...waiting.value.filter((w) => !same(w, record)), record]);
}
/** Let go of a record that waits. */
export function forget(record: Waiting): void {
  keep(waiting.value.filter((w) => !same(w, record)));
}
function same(one: Waiting, other: Waiting): boolean {
  return one.project === other.project && one.offer.board.id === other.offer.board.id;
}

let sending = false;
/**
 * Send what waits, the oldest first, until one cannot be sent; what is refused stays with the
 * reason. Answers how many were sent.
 */
export async function sendWaiting(
  put: (record: Waiting) => Promise<unknown>,
  outOfReach: (problem: unknown) => boolean,
): Promise<number> {
  if (sending) return 0;
  sending = true;
  let many = 0;
  try {
    for (;;) {
      const record = waiting.value.find((w) => !w.why);
      if (!record) break;
      try {
        await put(record);
        many++;
        keep(waiting.value.filter((w) => w !== record));
      } catch (problem) {
        if (outOfReach(problem)) break;
        const why = problem instanceof Error ? problem.message : String(problem);
        keep(waiting.value.map((w) => (w === record ? { ...w, why } : w)));
      }
    }
  } finally {
    sending = false;
  }
  return many;
}
