/** A walk through the demo, a few sentences at each stage. */
import type { StageName } from "../stages/stages";
import { t } from "../i18n/i18n";

export interface Stop {
  stage: StageName;
  /** What is pointed at, as a selector; the middle of the page where it is not there. */
  at: string;
  title: string;
  text: string;
}

export const STOPS: readonly Stop[] = [
  {
    stage: "list",
    at: ".tape",
    title: t("The tape is the way"),
    text: t(
      "A project goes from the drawing to the books, from left to right. The blade reaches as far as this settle has come: all the way.",
    ),
  },
  {
    stage: "list",
    at: "tr[data-part]",
    title: t("Finished sizes"),
    text: t(
      "Every part with its size, its wood and how clear its faces must be. Type sizes as you say them; the rough size beside them follows.",
    ),
  },
  {
    stage: "buy",
    at: ".el-tabs__nav",
    title: t("Before you drive to the yard"),
    text: t(
      "What to ask for, where it costs least for your list and your machines, and how much covers it with what chance.",
    ),
  },
  {
    stage: "boards",
    at: ".board-drawing, svg",
    title: t("Boards as they are"),
    text: t(
      "Crooked, cupped, with a knot here and a check there. What lies inside a warped board is worked out before it is cut.",
    ),
  },
  {
    stage: "layout",
    at: ".act.lead",
    title: t("All parts, on real wood"),
    text: t(
      "The search lays all parts out and says how near it is to the cheapest there can be. Drag a piece and it tells you what that costs.",
    ),
  },
  {
    stage: "mill",
    at: ".el-tabs__nav",
    title: t("Steps you can follow"),
    text: t(
      "Which machine, which face down, which setting, in which order, and why. Gathered into days, so that a machine is set once.",
    ),
  },
  {
    stage: "mill",
    at: ".stage-head .act.lead",
    title: t("At the machine"),
    text: t(
      "Large enough to read from the planer. When a piece measures otherwise, or a nail turns up, the rest is planned again round it.",
    ),
  },
  {
    stage: "books",
    at: "h1",
    title: t("Nothing gets lost"),
    text: t(
      "Where every board foot went, by cause and by part. Now start a piece of your own: it begins on the shelf.",
    ),
  },
];
