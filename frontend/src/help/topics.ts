/** Help, stage by stage: what is there, what to do first, what comes next. It needs no server. */
import type { StageName } from "../stages/stages";
import type { Term } from "./terms";
import { t } from "../i18n/i18n";

export interface Topic {
  stage: StageName;
  title: string;
  says: readonly string[];
  terms: readonly Term[];
}

export const TOPICS: readonly Topic[] = [
  {
    stage: "draw",
    title: t("Draw: where parts come from"),
    says: [
      t(
        "Bring in a drawing (STEP, DXF, SVG, PDF and others), a table, or a photograph of a sketch; paste rows from a spreadsheet; or start from a pattern and give it your sizes.",
      ),
      t(
        "What was found stands beside the drawing. What is doubtful is asked, and nothing goes on the list before you put it there.",
      ),
      t("A newer version of a drawing can be laid beside the old one: what changed is shown part by part."),
    ],
    terms: [],
  },
  {
    stage: "list",
    title: t("List: the cut list"),
    says: [
      t(
        "Finished sizes, as they are measured. Type a size as you say it: 38 5/8, 3' 2 5/8, 420 mm; or = and a formula over the measures.",
      ),
      t("Faces say what may be seen: a part with two clear faces is laid where neither has a knot."),
      t("Parts that carry the same run are cut end to end; a panel says how wide its staves may be."),
    ],
    terms: ["faces", "run", "panel", "stave", "rough size"],
  },
  {
    stage: "buy",
    title: t("Buy: what to ask for"),
    says: [
      t("What to ask for says which lengths and widths the list needs, not only how many board feet."),
      t(
        "Where, and how much draws boards as each supplier sells them, lays the list out on them, and says what covers it with what chance.",
      ),
      t("In the aisle a board is judged on the phone against what is in the cart already."),
    ],
    terms: ["board foot", "quarter", "S-marks"],
  },
  {
    stage: "boards",
    title: t("Boards: as they really are"),
    says: [
      t(
        "Measure a board at two ends and a place or two between; say how it is warped, and where its faults lie.",
      ),
      t("In the yard the quick survey asks for no more than a thumb can answer."),
      t("Try a cut before it is made: the drawing shows how much thickness each piece keeps."),
    ],
    terms: ["datum", "offcut"],
  },
  {
    stage: "layout",
    title: t("Lay out: every part on real wood"),
    says: [
      t("Lay out searches for the cheapest way to cut all parts, and says what nothing can cost less than."),
      t("Drag a piece where you want it; pin it, turn it, or forbid a place, and solve the rest."),
      t("Chalk it lists every mark to draw, from the datum end and edge."),
    ],
    terms: ["blank", "segment", "strip", "chalk", "kerf", "yield"],
  },
  {
    stage: "mill",
    title: t("Mill: step by step"),
    says: [
      t(
        "The days gather what one setting of a machine can do for all boards; board by board tells the same steps in the order of the wood.",
      ),
      t(
        "At the machine the step, its passes and its setting stand large; measure when you like, and the rest follows what you measured.",
      ),
      t(
        "The machines, hours and people are those of the workshop, for every project made in it. What it learns of its own minutes and passes stands there, and can be switched off.",
      ),
      t(
        "When something happens (a nail, a knot, a cut gone wrong), write it in the log and plan the rest again. The machine's own manual, local rules and a competent teacher come before anything that is said here.",
      ),
    ],
    terms: ["piece", "offcut"],
  },
  {
    stage: "books",
    title: t("Books: where the wood went"),
    says: [
      t(
        "Every board foot bought is accounted for: parts, kerf, shavings, faults, offcuts. It closes exactly.",
      ),
      t(
        "Planned stands beside what really happened; each part carries its share of the boards it came from.",
      ),
      t("Workshop, Books of all projects puts together every board cut, by wood, grade, month or project."),
    ],
    terms: ["yield", "board foot"],
  },
];
