/** What the help sheet shows. */
import { reactive } from "vue";
import type { StageName } from "../stages/stages";

export type HelpTab = "stages" | "words" | "keys";
export const help = reactive({ open: false, tab: "stages" as HelpTab, stage: "" as StageName | "" });

export function showHelp(tab: HelpTab, stage: StageName | "" = help.stage): void {
  Object.assign(help, { open: true, tab, stage });
}
