/**
 * Edits that the server refused: taken off the screen, and kept in this browser with the reason
 * until the person tries them again or lets them go.
 */
import { useLocalStorage } from "@vueuse/core";
import type { Edit } from "./client";
import type { Touched } from "./edits";
import type { HeldEdit } from "./heldEdits";

export interface RefusedEdit {
  id: string;
  pk: number;
  change: Edit;
  before: Touched[];
  why: string;
}
/** More than these are of no use to anybody: the oldest go. */
const MOST = 50;
export const refusedEdits = useLocalStorage<RefusedEdit[]>("refused edits", []);

export function keepRefused({ id, pk, change, before }: HeldEdit, why: string): void {
  refusedEdits.value = [...refusedEdits.value, { id, pk, change, before, why }].slice(-MOST);
}
export function letGo(id: string): void {
  refusedEdits.value = refusedEdits.value.filter((e) => e.id !== id);
}
