/** The stages of a project, in the order they are gone through. */
import { t } from "../i18n/i18n";
export const STAGES = [
  { name: "draw", word: t("Draw") },
  { name: "list", word: t("List") },
  { name: "buy", word: t("Buy") },
  { name: "boards", word: t("Boards") },
  { name: "layout", word: t("Lay out") },
  { name: "mill", word: t("Mill") },
  { name: "books", word: t("Books") },
] as const;

export type StageName = (typeof STAGES)[number]["name"];
