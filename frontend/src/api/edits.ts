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

/** What both have changed since the edit was made, and not to the same. */
export function clashes(before: Touched[], change: Edit, theirs: Project): Clash[] {
  const wanted = touched(applied(theirs, change), change);
  const now = touched(theirs, change);
  return before.flatMap((t) => {
    const same = (other: Touched) => other.what === t.what && other.id === t.id;
    const here = now.find(same)?.was ?? null;
    const mine = wanted.find(same)?.was ?? null;
    return equal(here, t.was) || equal(here, mine) ? [] : [{ ...t, theirs: here, mine }];
  });
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
