/** Parts as the list holds them. */
import type { Found, Part, Project } from "./client";
import { markFor } from "../stages/list/marks";

/** A part with nothing special about it. */
export function plainPart(
  values: Pick<Part, "id" | "name" | "quantity" | "species" | "length" | "width" | "thickness"> &
    Partial<Part>,
): Part {
  return {
    faces: "clear-one",
    panel: null,
    run: "",
    note: "",
    stock: "board",
    grain: "length",
    fitted: false,
    resawn: false,
    layers: 1,
    match: "",
    same_board: "",
    from_board: "",
    figure: "",
    edging: null,
    joint: "",
    joint_length: 0,
    formulas: {},
    source: null,
    outline: [],
    glued_up: null,
    ...values,
  };
}

/** The part on the list that came from this found thing. */
export function partFrom(project: Project, drawing: number, key: string): Part | undefined {
  return project.parts.find((p) => p.source?.drawing === drawing && p.source.key === key);
}

/**
 * Found things as new parts, each with a mark of its own; wood and thickness where the drawing does
 * not say.
 */
export function partsFrom(
  project: Project,
  drawing: number,
  found: Found[],
  species: string,
  thickness: number,
): Part[] {
  const taken = new Set(project.parts.map((p) => p.id));
  return found.map((f) => {
    const id = markFor(f.name, taken);
    taken.add(id);
    return plainPart({
      id,
      name: f.name,
      quantity: f.quantity,
      species: f.species || species,
      length: f.length,
      width: f.width,
      thickness: f.thickness || thickness,
      outline: f.outline,
      note: f.note,
      source: { drawing, key: f.key },
    });
  });
}

/** Whether there are parts and none of them is cut from boards. */
export function nothingFromBoards(parts: Part[]): boolean {
  return parts.length > 0 && parts.every((p) => p.stock !== "board");
}
