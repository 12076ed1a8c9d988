/** How the stage says things: verdicts and their reasons, chances, money. */
import type { Verdict } from "../../api/buying";
import { money } from "../../money";
import { t, tag } from "../../i18n/i18n";

export const VERDICTS: Record<Verdict["word"], string> = {
  take: t("Take it"),
  even: t("Take it or leave it"),
  leave: t("Leave it"),
  "not-wanted": t("Nothing here for it"),
};

const PER_CENT = new Intl.NumberFormat(tag(), { style: "percent", maximumFractionDigits: 0 });
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
      return t("The cart gives all the parts of this wood already.");
    case "faults":
      return t("Its faults cost {lost} of its worth; {clear} of it is clear.", {
        lost: amount(verdict.lost),
        clear: say(verdict.clear),
      });
    case "warp":
      return t("Its warp costs {lost} of its worth: flattened it is too thin for more.", {
        lost: amount(verdict.lost),
      });
    case "size":
      return t("No part that is still wanted lies in it: too short, too narrow or too thin.");
    case "dear":
      return t("It gives parts, but boards that cost less for what they give turn up.");
    default:
      return "";
  }
}
