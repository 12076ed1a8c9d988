/** The trade's words, explained where they stand. */
import { t } from "../i18n/i18n";
export const TERMS = {
  blank: t("A rough piece that one or more parts are cut from, with what milling takes from it."),
  "board foot": t("A board an inch thick, a foot wide and a foot long: 144 cubic inches of rough wood."),
  chalk: t("The marks drawn on a rough board before it is cut."),
  datum: t("The end and the edge that everything is measured from."),
  faces: t("Which sides must be clear of knots and checks: sound, one clear, or two clear."),
  kerf: t("What the saw turns to dust with each cut."),
  offcut: t("What is left of a board and worth keeping."),
  panel: t("A part that is glued up from staves."),
  piece: t("One piece of wood as it is now: whole, sawn, flat on one face or finished."),
  quarter: t("Rough thickness in fourths of an inch: 4/4 is an inch, 8/4 two."),
  "rough size": t("The finished size with what the shop's allowances add to it."),
  run: t("Parts of one run come end to end out of one blank, so that the grain flows on."),
  "S-marks": t("Which sides are dressed: S2S two faces, S4S all four sides."),
  segment: t("A length of board between two crosscuts."),
  stave: t("One of the strips that a panel is glued up from."),
  strip: t("What a segment is ripped into."),
  yield: t("The share of a board that becomes parts."),
} as const;

export type Term = keyof typeof TERMS;
