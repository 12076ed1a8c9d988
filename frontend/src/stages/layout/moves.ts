/** Moves by hand: what is moved, from where, to where. */
import type { Schemas } from "../../api/client";
import { itemName, type Item, type Plan } from "../../board/geometry";
import { TICKS_PER_INCH } from "../../measure";

export type Move = Schemas["MoveBody"];
export interface Target {
  board: string;
  x: number;
  y: number;
}

/** A move of this kind; what it does not need is left empty. */
export function moveOf(kind: Move["kind"], item: Item, more: Partial<Move> = {}): Move {
  return { kind, item, other: null, board: "", x: 0, y: 0, x0: 0, x1: 0, ...more };
}

/** The middle of the blank that holds an item, and its board. */
export function whereIs(
  plan: Plan | undefined,
  item: Item,
): (Target & { x0: number; x1: number; y0: number; y1: number }) | undefined {
  for (const board of plan?.boards ?? [])
    for (const s of board.segments)
      for (const t of s.strips)
        for (const k of t.blanks)
          if (k.layers.flat().some((i) => itemName(i) === itemName(item))) {
            const x = Math.round((k.x0 + k.x1) / 2);
            const line = (at: number) => s.y0 + s.slope * (at - s.x0);
            const low = Math.min(line(k.x0), line(k.x1)) + t.y0;
            const high = Math.max(line(k.x0), line(k.x1)) + t.y1;
            return {
              board: board.board,
              x,
              y: Math.round(line(x) + (t.y0 + t.y1) / 2),
              x0: k.x0,
              x1: k.x1,
              y0: Math.round(low),
              y1: Math.round(high),
            };
          }
  return undefined;
}

/** A target moved by the arrow keys: an inch, or an eighth with shift; Page keys go from board to board. */
export function nudged(
  at: Target,
  key: string,
  fine: boolean,
  boards: { id: string; length: number }[],
): Target | undefined {
  const step = fine ? TICKS_PER_INCH / 8 : TICKS_PER_INCH;
  const along = { ArrowLeft: -step, ArrowRight: step }[key];
  const across = { ArrowUp: step, ArrowDown: -step }[key];
  if (along) return { ...at, x: Math.max(0, at.x + along) };
  if (across) return { ...at, y: at.y + across };
  const to = { PageUp: -1, PageDown: 1 }[key];
  if (!to || !boards.length) return undefined;
  const now = boards.findIndex((b) => b.id === at.board);
  const next = boards[(now + to + boards.length) % boards.length]!;
  return { ...at, board: next.id, x: Math.min(at.x, next.length) };
}
