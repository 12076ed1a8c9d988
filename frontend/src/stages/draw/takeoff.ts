/** Taking sizes off a sheet by eye: scales, snapping, and what a rectangle on it measures. */
import type { Schemas, View } from "../../api/client";

/** Kinds of decisions about what was taken for a part; the others are about what was not. */
export const DOUBTS: ReadonlySet<string> = new Set(["doubt", "fused", "across", "name"]);

export type Scale = Schemas["ScaleBody"];
export type Mark = Schemas["MarkBody"];
export type Place = [number, number];

/** Ticks for one unit of the view. */
export function perUnit(scale: Scale): number {
  const d = Math.hypot(scale.b[0]! - scale.a[0]!, scale.b[1]! - scale.a[1]!);
  return d > 0 ? scale.distance / d : 0;
}

/**
 * Both sides of a mark by its scale in ticks, the longer first, to the `step` a picture can be
 * measured to.
 */
export function sides(mark: Pick<Mark, "a" | "b">, scale: Scale, step = 1): [number, number] {
  const k = perUnit(scale) / step;
  const w = Math.round(Math.abs(mark.b[0]! - mark.a[0]!) * k) * step;
  const h = Math.round(Math.abs(mark.b[1]! - mark.a[1]!) * k) * step;
  return w >= h ? [w, h] : [h, w];
}

/** Whether a written figure and the scale differ by more than 1 %. */
export function mismatch(written: number, measured: number): boolean {
  return written > 0 && measured > 0 && Math.abs(written - measured) > 0.01 * measured;
}

/** Corners of the sheet's lines and of the marks made so far, to snap to. */
export function corners(view: View, marks: Pick<Mark, "a" | "b">[]): Place[] {
  const found: Place[] = [];
  for (const line of view.lines) for (const p of line) found.push([p[0]!, p[1]!]);
  for (const m of marks) {
    for (const x of [m.a[0]!, m.b[0]!]) for (const y of [m.a[1]!, m.b[1]!]) found.push([x, y]);
  }
  return found;
}

/** The place itself, or the corner or line nearest to it within reach. */
export function snapped(at: Place, view: View, points: Place[], reach: number): Place {
  let best: [number, Place] | null = null;
  for (const p of points) {
    const d = Math.hypot(p[0] - at[0], p[1] - at[1]);
    if (d <= reach && (!best || d < best[0])) best = [d, p];
  }
  if (best) return best[1];
  for (const line of view.lines) {
    for (let k = 1; k < line.length; k++) {
      const [ax, ay] = line[k - 1] as Place;
      const [bx, by] = line[k] as Place;
      const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
      if (!l2) continue;
      const t = Math.min(1, Math.max(0, ((at[0] - ax) * (bx - ax) + (at[1] - ay) * (by - ay)) / l2));
      const p: Place = [ax + t * (bx - ax), ay + t * (by - ay)];
      const d = Math.hypot(p[0] - at[0], p[1] - at[1]);
      if (d <= reach && (!best || d < best[0])) best = [d, p];
    }
  }
  return best ? best[1] : at;
}
