/**
 * Settings that were changed while the server was out of reach: kept in the browser's own store, over a reload too,
 * until it answers. What somebody else has set meanwhile stays, where it is something else.
 */
import { computed, ref } from "vue";

interface Held {
  /** As it was before the first change that waits, and as it is now. */
  base: unknown;
  mine: unknown;
  /** Why the server does not take it: it is kept, and sent again when it has been put right. */
  why?: string;
}

const PLACE = "settings to send";
const all = ref<Record<string, Held>>(read());

function read(): Record<string, Held> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(PLACE) ?? "{}");
    return kept && typeof kept === "object" ? (kept as Record<string, Held>) : {};
  } catch {
    return {};
  }
}
function keep(now: Record<string, Held>): void {
  all.value = now;
  localStorage.setItem(PLACE, JSON.stringify(now));
}

/** The names of what waits, each with what it is of. */
export const heldNames = computed(() =>
  Object.keys(all.value).map((key) => {
    const at = key.lastIndexOf(" ");
    return { key, name: key.slice(0, at), of: Number(key.slice(at + 1)) };
  }),
);
/** Why the server does not take one of them; empty where it does, or was not asked. */
export const settingsTrouble = computed(() => Object.values(all.value).find((h) => h.why)?.why ?? "");
/** How many kinds of settings wait. */
export const settingsHeld = computed(() => heldNames.value.length);

/** What waits under a name, and of what. */
export function held(name: string, of: number): Held | undefined {
  return all.value[`${name} ${of}`];
}
/** The server does not take it; said of what was sent, not of what it has become since. */
export function settingsRefused(name: string, of: number, sent: Held, why: string): void {
  const now = held(name, of);
  if (now && same(now.mine, sent.mine)) keep({ ...all.value, [`${name} ${of}`]: { ...now, why } });
}
export function holdSettings(name: string, of: number, base: unknown, mine: unknown): void {
  const before = held(name, of);
  keep({ ...all.value, [`${name} ${of}`]: { base: before ? before.base : base, mine } });
}
/** It was sent; if it has changed since it stays. */
export function settingsSent(name: string, of: number, sent: Held): void {
  const now = held(name, of);
  if (!now || !same(now.mine, sent.mine)) return;
  const rest = { ...all.value };
  delete rest[`${name} ${of}`];
  keep(rest);
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const isRecord = (a: unknown): a is Record<string, unknown> =>
  typeof a === "object" && a !== null && !Array.isArray(a);

/**
 * What was changed from `base` to `mine`, made to `theirs`: field by field, and in a list line by line where no line
 * came, went or moved; otherwise lines that are new here are added, and lines that were taken off are taken off. Where
 * both have changed one field, it is as here.
 */
export function merged(base: unknown, mine: unknown, theirs: unknown): unknown {
  if (same(base, mine)) return theirs;
  if (same(base, theirs)) return mine;
  if (isRecord(base) && isRecord(mine) && isRecord(theirs)) {
    const names = new Set([...Object.keys(theirs), ...Object.keys(mine)]);
    return Object.fromEntries(
      [...names]
        .filter((name) => name in mine || !(name in base))
        .map((name) => [name, merged(base[name], mine[name], theirs[name])]),
    );
  }
  if (Array.isArray(base) && Array.isArray(mine) && Array.isArray(theirs)) {
    const has = (list: unknown[], line: unknown) => list.some((other) => same(other, line));
    const inPlace = (list: unknown[]) =>
      list.length === base.length && base.every((line, k) => same(line, list[k]) || !has(list, line));
    if (inPlace(mine) && inPlace(theirs)) return base.map((_, k) => merged(base[k], mine[k], theirs[k]));
    return [
      ...theirs.filter((line) => has(mine, line) || !has(base, line)),
      ...mine.filter((line) => !has(base, line) && !has(theirs, line)),
    ];
  }
  return mine;
}
