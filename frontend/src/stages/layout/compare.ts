/** What differs between two plans. */
import { itemName, type Item, type Plan } from "../../board/geometry";
import { whereIs } from "./moves";

export interface Difference {
  item: string;
  from: string; // board, or nothing where it lies nowhere
  to: string;
}
function items(plan: Plan): Item[] {
  return plan.boards.flatMap((b) =>
    b.segments.flatMap((s) => s.strips.flatMap((t) => t.blanks.flatMap((k) => k.layers.flat()))),
  );
}

/**
 * Pieces that lie on another board (or nowhere in one of the two), and the boards on which anything
 * differs at all.
 */
export function differences(one: Plan, other: Plan): { moved: Difference[]; boards: string[] } {
  const all = new Map([...items(one), ...items(other)].map((i) => [itemName(i), i]));
  const moved: Difference[] = [];
  const boards = new Set<string>();
  for (const [name, item] of all) {
    const [a, b] = [whereIs(one, item), whereIs(other, item)];
    if (a?.board === b?.board && a?.x === b?.x && a?.y === b?.y) continue;
    for (const at of [a, b]) if (at) boards.add(at.board);
    if (a?.board !== b?.board) moved.push({ item: name, from: a?.board ?? "", to: b?.board ?? "" });
  }
  return { moved, boards: [...boards].sort() };
}
