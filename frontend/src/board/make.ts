/** Boards, stations and faults with everything a maker rarely says left as usual. */
import type { Board, Defect, Station } from "../api/client";

export function plainStation(x: number, y0: number, y1: number, t0: number, t1 = t0): Station {
  return { x, y0, y1, t0, t1, between: [] };
}

type Bounds = Pick<Defect, "x0" | "x1" | "y0" | "y1">;

export function plainFault(
  kind: string,
  face: Defect["face"],
  bounds: Bounds,
  values: Partial<Defect> = {},
): Defect {
  return {
    kind,
    face,
    ...bounds,
    shape: isRound(kind) ? "ellipse" : "rectangle",
    points: [],
    severity: "plain",
    ...values,
  };
}

export function isRound(kind: string): boolean {
  return kind.includes("knot") || kind === "hole" || kind === "metal";
}

export function plainBoard(
  values: Pick<Board, "id" | "species" | "length" | "stations"> & Partial<Board>,
): Board {
  return {
    price: 0,
    quarter: "",
    note: "",
    warp: { bow: 0, cup: 0, twist: 0 },
    defects: [],
    moisture: [],
    surface: null,
    grain: { datum_edge: null, far_edge: null, across: 0, rings: null, heart: "", zones: [] },
    dressed: [],
    grade: "",
    searched: false,
    supplier: "",
    photos: [],
    came_from: "",
    ...values,
  };
}
