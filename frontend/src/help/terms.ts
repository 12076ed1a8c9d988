/** The trade's words, explained where they stand. */
export const TERMS = {
  blank: "A rough piece that one or more parts are cut from, with what milling takes from it.",
  "board foot": "A board an inch thick, a foot wide and a foot long: 144 cubic inches of rough wood.",
  chalk: "The marks drawn on a rough board before it is cut.",
  datum: "The end and the edge that everything is measured from.",
  faces: "Which sides must be clear of knots and checks: sound, one clear, or two clear.",
  kerf: "What the saw turns to dust with each cut.",
  offcut: "What is left of a board and worth keeping.",
  panel: "A part that is glued up from staves.",
  piece: "One piece of wood as it is now: whole, sawn, flat on one face or finished.",
  quarter: "Rough thickness in fourths of an inch: 4/4 is an inch, 8/4 two.",
  "rough size": "The finished size with what the shop's allowances add to it.",
  run: "Parts of one run come end to end out of one blank, so that the grain flows on.",
  "S-marks": "Which sides are dressed: S2S two faces, S4S all four sides.",
  segment: "A length of board between two crosscuts.",
  stave: "One of the strips that a panel is glued up from.",
  strip: "What a segment is ripped into.",
  yield: "The share of a board that becomes parts.",
} as const;

export type Term = keyof typeof TERMS;
