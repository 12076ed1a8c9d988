/** How learned figures are told. */
import type { Schemas } from "../../api/client";

export type Learned = Schemas["LearnedBody"];

const times = (value: number) => value.toFixed(2);
/** A fault in so many board feet, to two figures. */
const every = (rate: number) => Number((1 / rate).toPrecision(2)).toString();

export const GROUPS = [
  {
    kind: "minutes",
    title: "Minutes at the machine",
    says: "Times what feeds and passes foretell; the days and every step's minutes follow it",
  },
  {
    kind: "passes",
    title: "Passes",
    says: "Times those foretold; told at the machine beside them",
  },
  {
    kind: "wood",
    title: "Wood to buy",
    says: "Rough board feet for one of finished parts, beside the rule of thumb in Buy",
  },
  {
    kind: "faults",
    title: "Faults no survey knew of",
    says: "One in so many board feet; the chances in Buy are worked out with it",
  },
] as const;

/** The figure, and between what it lies with the stated chance. */
export function told(one: Learned): { usual: string; value: string; between: string } {
  if (one.kind === "faults")
    return {
      usual: `one in ${every(one.usual)} bd ft`,
      value: `one in ${every(one.value)} bd ft`,
      between: `${every(one.high)} to ${every(one.low)}`,
    };
  return {
    usual: times(one.usual),
    value: times(one.value),
    between: `${times(one.low)} to ${times(one.high)}`,
  };
}

/** What it rests on, in words. */
export function restsOn(one: Learned): string {
  const projects = `${one.projects} project${one.projects === 1 ? "" : "s"}`;
  const what = { minutes: "step", passes: "step", wood: "project", faults: "fault" }[one.kind];
  const events = `${one.events} ${what}${one.events === 1 ? "" : "s"}`;
  return one.kind === "wood" ? projects : `${events} in ${projects}`;
}
