/** What an edit does to a project, and whether it and somebody else's go together. Pure. */
import type { Board, Edit, Part, Project } from "./client";

/** A thing an edit touches, as it was when the edit was made; nothing where it was not there. */
export interface Touched {
  what: "part" | "board" | "shop" | "name" | "units" | "measures";
  id: string;
  was: unknown;
}

/** A thing that both have changed: as it stands now, and as this edit wants it. */
export interface Clash extends Touched {
  theirs: unknown;
  mine: unknown;
}

export function applied(project: Project, change: Edit): Project {
  return {
    ...project,
    name: change.name ?? project.name,
    system: change.system ?? project.system,
    shop: change.shop ?? project.shop,
    parts: put(project.parts, change.put_parts ?? [], change.remove_parts ?? []),
    boards: put(project.boards, change.put_boards ?? [], change.remove_boards ?? []),
    measures:
      change.measures?.map(
        (m) =>
          project.measures.find((n) => n.name === m.name && n.text === m.text && n.kind === m.kind) ?? {
            ...m,
            ticks: null,
            number: null,
          },
      ) ?? project.measures,
    undo: change.label,
    redo: "",
  };
}

function put<T extends Part | Board>(things: T[], puts: (T & { was?: string })[], remove: string[]): T[] {
  const found = things.filter((thing) => !remove.includes(thing.id));
  for (const { was, ...rest } of puts) {
    const thing = rest as unknown as T;
    const at = found.findIndex((other) => other.id === (was || thing.id));
    if (at >= 0) found[at] = thing;
    else found.push(thing);
  }
  return found;
}

/** Everything the edit touches, as the project has it before. */
export function touched(project: Project, change: Edit): Touched[] {
  const found: Touched[] = [];
  const things = (what: "part" | "board", all: (Part | Board)[], ids: string[]): void => {
    for (const id of new Set(ids))
      found.push({ what, id, was: all.find((thing) => thing.id === id) ?? null });
  };
  const ids = (puts: { id: string; was?: string }[] = []): string[] =>
    puts.flatMap((p) => (p.was && p.was !== p.id ? [p.was, p.id] : [p.id]));
  things("part", project.parts, [...ids(change.put_parts), ...(change.remove_parts ?? [])]);
  things("board", project.boards, [...ids(change.put_boards), ...(change.remove_boards ?? [])]);
  if (change.shop) found.push({ what: "shop", id: "", was: project.shop });
  if (change.name !== undefined) found.push({ what: "name", id: "", was: project.name });
  if (change.system) found.push({ what: "units", id: "", was: project.system });
  if (change.measures) found.push({ what: "measures", id: "", was: project.measures });
  return found;
}

type Thing = Record<string, unknown>;
const isThing = (value: unknown): value is Thing =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** The fields of a thing that both have changed since it was as it was, and not to the same. */
function contested(was: Thing, theirs: Thing, mine: Thing): string[] {
  return Object.keys(mine).filter(
    (f) => !equal(mine[f], was[f]) && !equal(theirs[f], was[f]) && !equal(mine[f], theirs[f]),
  );
}

/** What both have changed since the edit was made, and not to the same. */
export function clashes(before: Touched[], change: Edit, theirs: Project): Clash[] {
  const wanted = touched(applied(theirs, change), change);
  const now = touched(theirs, change);
  return before.flatMap((t) => {
    const same = (other: Touched) => other.what === t.what && other.id === t.id;
    const here = now.find(same)?.was ?? null;
    const mine = wanted.find(same)?.was ?? null;
    if (equal(here, t.was) || equal(here, mine)) return [];
    const parts = isThing(t.was) && isThing(here) && isThing(mine);
    return parts && !contested(t.was as Thing, here, mine).length ? [] : [{ ...t, theirs: here, mine }];
  });
}

/** The edit on top of what somebody else has made of the same things: of each what it changed. */
export function merged(before: Touched[], change: Edit, theirs: Project): Edit {
  const now = touched(theirs, change);
  function over<T extends { id: string; was?: string }>(what: Touched["what"], mine: T): T {
    const id = mine.was || mine.id;
    const same = (t: Touched) => t.what === what && t.id === id;
    const [was, here] = [before.find(same)?.was, now.find(same)?.was];
    return isThing(was) && isThing(here) ? { ...mine, ...kept(was, here, mine) } : mine;
  }
  const kept = (was: Thing, here: Thing, mine: object): Thing =>
    Object.fromEntries(Object.entries(here).filter(([f]) => equal((mine as Thing)[f], was[f])));
  const shop = before.find((t) => t.what === "shop")?.was;
  return {
    ...change,
    ...(change.put_parts && { put_parts: change.put_parts.map((p) => over("part", p)) }),
    ...(change.put_boards && { put_boards: change.put_boards.map((b) => over("board", b)) }),
    ...(change.shop &&
      isThing(shop) && { shop: { ...change.shop, ...kept(shop, theirs.shop as never, change.shop) } }),
  };
}

/** The project as it was before an edit that nobody has but this page. */
export function reverted(project: Project, before: Touched[]): Project {
  const things = (what: string) => before.filter((t) => t.what === what);
  const gone = (what: string) =>
    things(what)
      .filter((t) => t.was === null)
      .map((t) => t.id);
  const back = (what: string) => things(what).flatMap((t) => (t.was === null ? [] : [t.was as never]));
  const one = <T>(what: string, now: T): T => (things(what).length ? (things(what)[0]!.was as T) : now);
  return {
    ...project,
    parts: put(project.parts, back("part"), gone("part")),
    boards: put(project.boards, back("board"), gone("board")),
    shop: one("shop", project.shop),
    name: one("name", project.name),
    system: one("units", project.system),
    measures: one("measures", project.measures),
  };
}

/** Whether the project has all of this edit already: its answer was lost on the way. */
export function contains(theirs: Project, change: Edit): boolean {
  const wanted = touched(applied(theirs, change), change);
  return touched(theirs, change).every((t, i) => equal(t.was, wanted[i]!.was));
}

export function equal(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== "object" || typeof b !== "object" || !a || !b) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [one, two] = [a as Record<string, unknown>, b as Record<string, unknown>];
  return [...new Set([...Object.keys(one), ...Object.keys(two)])].every((key) => equal(one[key], two[key]));
}
