/** The board's own geometry for drawing: edges, faces, shares. All in ticks, as in core/board. */
import type { Board, Schemas, Station } from "../api/client";
import { TICKS_PER_INCH } from "../measure";

export type Plan = Schemas["PlanBody"];
export type Segment = Schemas["Segment"];
export type Blank = Schemas["Blank"];
export type Item = Schemas["Item"];

/** How a piece is called on the board: part, number, stave. */
export function itemName(item: Item): string {
  return item.part + item.n + (item.stave ? "·" + item.stave : "");
}

/** Room left round the drawing of a board, in pixels. */
export const MARGIN = 6;

/** The place on a board, in ticks, under a pointer over its drawing. */
export function placeAt(
  box: { left: number; top: number },
  board: Board,
  scale: number,
  face: "A" | "B",
  at: { clientX: number; clientY: number },
): { x: number; y: number } {
  const { low, high } = extent(board);
  const up = ((at.clientY - box.top - MARGIN) / scale) * TICKS_PER_INCH;
  return {
    x: Math.round(((at.clientX - box.left - MARGIN) / scale) * TICKS_PER_INCH),
    y: Math.round(face === "A" ? high - up : low + up),
  };
}

export const SOUND = ["tight-knot", "pin-knot", "stain", "sapwood", "mineral"];
export const UNSOUND = [
  "loose-knot",
  "check",
  "split",
  "shake",
  "rot",
  "wane",
  "bark",
  "hole",
  "metal",
  "pith",
];

function between(stations: Station[], x: number): [Station, Station, number] {
  let at = 1;
  while (at < stations.length - 1 && stations[at]!.x < x) at++;
  const left = stations[at - 1]!;
  const right = stations[at]!;
  return [left, right, right.x === left.x ? 0 : (x - left.x) / (right.x - left.x)];
}

export function edges(board: Board, x: number): [number, number] {
  const [l, r, s] = between(board.stations, x);
  return [l.y0 + s * (r.y0 - l.y0), l.y1 + s * (r.y1 - l.y1)];
}

type Surface = NonNullable<Board["surface"]>;

/** Heights of faces B and A of a scanned board, bilinear between the places it was read at. */
function scanned(s: Surface, x: number, y: number): [number, number] {
  const cell = (places: number[], at: number): [number, number] => {
    let k = 1;
    while (k < places.length - 1 && places[k]! <= at) k++;
    return [k - 1, (at - places[k - 1]!) / (places[k]! - places[k - 1]!)];
  };
  const [i, a] = cell(s.xs, x);
  const [j, b] = cell(s.ys, y);
  const at = (face: number[][]) => {
    const low = face[i]![j]! + a * (face[i + 1]![j]! - face[i]![j]!);
    const high = face[i]![j + 1]! + a * (face[i + 1]![j + 1]! - face[i]![j + 1]!);
    return low + b * (high - low);
  };
  return [at(s.lower), at(s.upper)];
}

function acrossAt(board: Board, x: number, v: number): number {
  const [low, high] = edges(board, x);
  return low + v * (high - low);
}

/** Thickness at x and the share v across. */
export function thickness(board: Board, x: number, v: number): number {
  if (board.surface) {
    const [low, high] = scanned(board.surface, x, acrossAt(board, x, v));
    return high - low;
  }
  const [l, r, s] = between(board.stations, x);
  const at = (of: Station) => {
    const readings = [of.t0, ...of.between, of.t1];
    const place = v * (readings.length - 1);
    const k = Math.min(Math.max(Math.floor(place), 0), readings.length - 2);
    return readings[k]! + (place - k) * (readings[k + 1]! - readings[k]!);
  };
  return at(l) + s * (at(r) - at(l));
}

/** Height of face B above the bench at x and the share v across. */
export function underside(board: Board, x: number, v: number): number {
  if (board.surface) return scanned(board.surface, x, acrossAt(board, x, v))[0];
  const u = x / board.length;
  const w = board.warp;
  return (w?.bow ?? 0) * 4 * u * (1 - u) + (w?.cup ?? 0) * 4 * v * (1 - v) + (w?.twist ?? 0) * u * v;
}

type Point = { x: number; y: number };

/** Whether a closed line crosses itself anywhere but at its own corners. */
export function crossesItself(points: Point[]): boolean {
  const side = (a: Point, b: Point, c: Point) =>
    Math.sign((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
  const n = points.length;
  const edge = (k: number): [Point, Point] => [points[k]!, points[(k + 1) % n]!];
  for (let i = 0; i < n; i++)
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue; // they share a corner
      const [[a, b], [c, d]] = [edge(i), edge(j)];
      if (side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) <= 0) return true;
    }
  return false;
}

export function extent(board: Board): { low: number; high: number } {
  return {
    low: Math.min(...board.stations.map((s) => s.y0)),
    high: Math.max(...board.stations.map((s) => s.y1)),
  };
}

/** Wood colours: light and dark of a species, oak where we know no better. */
export function woodColours(species: string): [string, string] {
  const name = species.toLowerCase();
  const known: [string, [string, string]][] = [
    ["ash", ["#efdfbe", "#cdb583"]],
    ["red oak", ["#e0b48f", "#b5835c"]],
    ["oak", ["#e3c290", "#b98f55"]],
    ["walnut", ["#8d6547", "#5d3f2a"]],
    ["cherry", ["#d69b72", "#a96c45"]],
    ["maple", ["#f0e0c4", "#d3bb90"]],
    ["beech", ["#e6c6a1", "#bd9468"]],
    ["poplar", ["#dcd8a8", "#aeb07c"]],
    ["birch", ["#eed9b3", "#cdb283"]],
  ];
  return known.find(([word]) => name.includes(word))?.[1] ?? ["#e3c290", "#b98f55"];
}

/** A number from 0 to 1 that belongs to a text: the same board always has the same grain. */
export function grainSeed(text: string): () => number {
  let state = 2166136261;
  for (const c of text) state = Math.imul(state ^ c.charCodeAt(0), 16777619);
  return () => {
    state = Math.imul(state ^ (state >>> 15), 2246822507);
    state = Math.imul(state ^ (state >>> 13), 3266489909);
    state ^= state >>> 16;
    return (state >>> 0) / 4294967296;
  };
}

/** A wood tone in less light: 1 is full light, 0 is dark. */
export function shaded(colour: string, light: number): string {
  const parts = [1, 3, 5].map((at) =>
    Math.round(parseInt(colour.slice(at, at + 2), 16) * (0.45 + 0.55 * light)),
  );
  return `#${parts.map((p) => Math.min(255, p).toString(16).padStart(2, "0")).join("")}`;
}
