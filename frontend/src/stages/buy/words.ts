/** How the stage says things: verdicts and their reasons, chances, money. */
import type { Verdict } from "../../api/buying";
import { money } from "../../money";

export const VERDICTS: Record<Verdict["word"], string> = {
  take: "Take it",
  even: "Take it or leave it",
  leave: "Leave it",
  "not-wanted": "Nothing here for it",
};

const PER_CENT = new Intl.NumberFormat(undefined, { style: "percent", maximumFractionDigits: 0 });
export const perCent = (share: number) => PER_CENT.format(share);
/** Money of the shop. */
export const amount = (value: number) => money(value);

/** "2 × Rail, 1 × Shelf". */
export function counted(counts: Record<string, number>, name: (id: string) => string): string {
  return Object.entries(counts)
    .map(([id, n]) => `${n} × ${name(id)}`)
    .join(", ");
}

/** Why it is not worth more, in a sentence; empty where nothing is to be said. */
export function because(verdict: Verdict, say: (ticks: number) => string): string {
  switch (verdict.reason) {
    case "covered":
      return "The cart gives all the parts of this wood already.";
    case "faults":
      return `Its faults cost ${amount(verdict.lost)} of its worth; ${say(verdict.clear)} of it is clear.`;
    case "warp":
      return `Its warp costs ${amount(verdict.lost)} of its worth: flattened it is too thin for more.`;
    case "size":
      return "No part that is still wanted lies in it: too short, too narrow or too thin.";
    case "dear":
      return "It gives parts, but boards that cost less for what they give turn up.";
    default:
      return "";
  }
}
