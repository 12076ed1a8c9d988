/** A board recorded in the yard: what was measured, what was not, and how that is taken. */
import type { Board, Defect } from "../../api/client";
import { plainBoard, plainFault, plainStation } from "../../board/make";
import {
  isMetric,
  show,
  TICKS_PER_INCH as IN,
  TICKS_PER_MM as MM,
  type System,
  TICKS_PER_64TH,
} from "../../measure";
import { t } from "../../i18n/i18n";

export interface Quick {
  species: string;
  quarter: string;
  length: number | null;
  near: number | null;
  middle: number | null;
  far: number | null;
  thickest: number | null;
  thinnest: number | null;
  bow: number | null;
  twist: number | null;
  cup: number | null;
  price: number;
  defects: Defect[];
}

export const QUARTERS = ["4/4", "5/4", "6/4", "8/4", "10/4", "12/4", "16/4"];
/** What a careful buyer takes for granted where nobody has measured, for eight feet of length. */
const USUAL = { bow: IN / 4, twist: IN / 8, cup: IN / 16, uneven: IN / 16 };

export function nothingYet(species: string): Quick {
  return {
    species,
    quarter: "4/4",
    length: null,
    near: null,
    middle: null,
    far: null,
    thickest: null,
    thinnest: null,
    bow: null,
    twist: null,
    cup: null,
    price: 0,
    defects: [],
  };
}

/** The board, and a sentence for everything that was not measured and how it was taken. */
export function toBoard(q: Quick, id: string, system: System): { board: Board; cautions: string[] } {
  const say = (ticks: number) =>
    show(
      isMetric(system)
        ? Math.round(ticks / (MM / 2)) * (MM / 2)
        : Math.round(ticks / TICKS_PER_64TH) * TICKS_PER_64TH,
      system,
      true,
    );
  const length = q.length!;
  const near = q.near!;
  const far = q.far ?? near;
  const middle = q.middle ?? (near + far) / 2;
  const rough = (Number(q.quarter.split("/")[0]) * IN) / 4;
  const thickest = q.thickest ?? q.thinnest ?? rough;
  const thinnest = Math.min(q.thinnest ?? thickest - USUAL.uneven, thickest);
  // Bow falls with the square of the length, twist with the length.
  const share = length / (96 * IN);
  const warp = {
    bow: Math.round(q.bow ?? USUAL.bow * Math.max(share, 0.25) ** 2),
    twist: Math.round(q.twist ?? USUAL.twist * Math.max(share, 0.25)),
    cup: Math.round(q.cup ?? USUAL.cup),
  };
  const cautions: string[] = [];
  if (q.thickest === null && q.thinnest === null)
    cautions.push(
      t("thickness not measured: taken as {thinnest} to {thickest}", {
        thinnest: say(thinnest),
        thickest: say(thickest),
      }),
    );
  else if (q.thinnest === null)
    cautions.push(t("thinnest place not measured: taken as {thinnest}", { thinnest: say(thinnest) }));
  for (const kind of ["bow", "twist", "cup"] as const)
    if (q[kind] === null)
      cautions.push(t("{kind} not measured: taken as {warp}", { kind, warp: say(warp[kind]) }));
  const half = Math.round(length / 2);
  const board = plainBoard({
    id,
    species: q.species,
    length,
    price: q.price,
    quarter: q.quarter,
    note: cautions.join("; "),
    // Where it is thin nobody has said: thin at both ends over a hollow is the worst a flat board can meet.
    stations: [
      plainStation(0, 0, near, thinnest),
      plainStation(half, 0, Math.round(middle), thickest),
      plainStation(length, 0, far, thinnest),
    ],
    warp,
    defects: q.defects,
  });
  return { board, cautions };
}

/** The number pad's own state: figures typed, and fractions that add up. */
export interface Pad {
  digits: string;
  sixteenths: number;
}
export const EMPTY: Pad = { digits: "", sixteenths: 0 };

/** A key pressed: a figure, a point, "back", or so many sixteenths, which add up (½ and ⅛ make ⅝). */
export function pressed(pad: Pad, key: string): Pad {
  if (key === "back")
    return pad.sixteenths ? { ...pad, sixteenths: 0 } : { ...pad, digits: pad.digits.slice(0, -1) };
  if (key.startsWith("/")) return { ...pad, sixteenths: (pad.sixteenths + Number(key.slice(1))) % 16 };
  if (key === "." && pad.digits.includes(".")) return pad;
  return pad.digits.length < 6 ? { ...pad, digits: pad.digits + key } : pad;
}

/** What the pad says, in ticks; null while it says nothing. */
export function padTicks(pad: Pad, system: System): number | null {
  if (!pad.digits && !pad.sixteenths) return null;
  const unit = isMetric(system) ? { mm: MM, cm: 10 * MM, m: 1000 * MM }[system as "mm" | "cm" | "m"] : IN;
  return Math.round(Number(pad.digits || "0") * unit) + (isMetric(system) ? 0 : pad.sixteenths * (IN / 16));
}

/** A fault of this kind where the board was tapped, of a usual size, kept inside the board's length. */
export function faultAt(
  kind: string,
  place: { x: number; y: number },
  length: number,
  face: "A" | "both",
): Defect {
  const long = ["check", "split", "shake", "wane", "bark", "sapwood"].includes(kind);
  const [w, h] = long ? [6 * IN, IN / 2] : [1.25 * IN, 1.25 * IN];
  const x0 = Math.round(Math.min(Math.max(0, place.x - w / 2), length - w));
  const y0 = Math.round(place.y - h / 2);
  return plainFault(kind, face, { x0, x1: Math.round(x0 + w), y0, y1: Math.round(y0 + h) });
}

/** The fault moved or made larger by a button. */
export function nudged(d: Defect, how: "left" | "right" | "up" | "down" | "larger" | "smaller"): Defect {
  const step = IN / 4;
  const move = { left: [-step, 0], right: [step, 0], up: [0, step], down: [0, -step] }[how as "left"];
  if (move)
    return { ...d, x0: d.x0 + move[0]!, x1: d.x1 + move[0]!, y0: d.y0 + move[1]!, y1: d.y1 + move[1]! };
  const by = how === "larger" ? step / 2 : -step / 2;
  if (d.x1 - d.x0 + 2 * by < step || d.y1 - d.y0 + 2 * by < step) return d;
  return { ...d, x0: d.x0 - by, x1: d.x1 + by, y0: d.y0 - by, y1: d.y1 + by };
}
