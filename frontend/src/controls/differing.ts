/** What an edit wants otherwise than it stands, field by field, in words for a table. */
import { equal, type Clash } from "../api/edits";
import { show, type System } from "../measure";
import { t } from "../i18n/i18n";

const LENGTHS = ["length", "width", "thickness", "joint_length"];
export const WORDS: Record<Clash["what"], string> = {
  part: t("Part"),
  board: t("Board"),
  shop: t("The shop"),
  name: t("The project's name"),
  units: t("How lengths are shown"),
  measures: t("The measures"),
};
/** What the list calls a field, where that is another word. */
const CALLED: Record<string, string> = { quantity: "count", species: "wood", id: "mark" };
export interface Row {
  field: string;
  theirs: string;
  mine: string;
}

function said(field: string, value: unknown, system: System): string {
  if (value === null || value === undefined) return t("not there");
  if (LENGTHS.includes(field) && typeof value === "number") return show(value, system, true);
  if (Array.isArray(value)) return t("{value} of them", { value: value.length });
  return typeof value === "object" ? "changed" : String(value);
}
export function differing(clash: Clash, system: System): Row[] {
  const { theirs, mine } = clash;
  if (typeof theirs !== "object" || typeof mine !== "object" || !theirs || !mine || Array.isArray(mine)) {
    const field = WORDS[clash.what].toLowerCase();
    return [{ field, theirs: said("", theirs, system), mine: said("", mine, system) }];
  }
  const [now, new_] = [theirs as Record<string, unknown>, mine as Record<string, unknown>];
  const was = (clash.was ?? {}) as Record<string, unknown>;
  return Object.keys(new_)
    .filter((field) => !equal(now[field], new_[field]) && !equal(new_[field], was[field]))
    .map((field) => ({
      field: CALLED[field] ?? field.replaceAll("_", " "),
      theirs: said(field, now[field], system),
      mine: said(field, new_[field], system),
    }));
}
