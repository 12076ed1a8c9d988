/** How learned figures are told. */
import type { Schemas } from "../api/client";
import { onRule, showUnit, type System } from "../measure";

export type Learned = Schemas["LearnedBody"];

const times = (value: number) => value.toFixed(2);
/** A fault in so many board feet, to two figures. */
const every = (rate: number) => Number((1 / rate).toPrecision(2)).toString();

export const GROUPS = [
  {
    kind: "minutes",
    of: "At",
    title: "Minutes at the machine",
    says: "Times what feeds and passes foretell; the days and every step's minutes follow it",
  },
  {
    kind: "passes",
    of: "At",
    title: "Passes",
    says: "Times those foretold; told at the machine beside them",
  },
  {
    kind: "wood",
    of: "Wood",
    title: "Wood to buy",
    says: "Rough board feet for one of finished parts, beside the rule of thumb in Buy",
  },
  {
    kind: "faults",
    of: "Wood",
    title: "Faults no survey knew of",
    says: "One in so many board feet; the chances in Buy are worked out with it",
  },
  {
    kind: "movement",
    of: "Wood",
    title: "Movement in rest",
    says: "Enough for nine faces of ten after a rest, of those whose passes or warp were noted",
  },
  {
    kind: "allowance",
    of: "Over",
    title: "Allowances",
    says: "Enough for nine pieces of ten, of those that were read or counted; taken in a project under The shop",
  },
] as const;

/** The figure, and between what it lies with the stated chance. */
export function told(one: Learned, system: System): { usual: string; value: string; between: string } {
  if (one.kind === "faults")
    return {
      usual: `one in ${every(one.usual)} bd ft`,
      value: `one in ${every(one.value)} bd ft`,
      between: `${every(one.high)} to ${every(one.low)}`,
    };
  if (one.kind === "movement" || one.kind === "allowance") {
    const long = (ticks: number) => showUnit(onRule(ticks, system), system);
    return {
      usual: long(one.usual),
      value: long(one.value),
      between: `${long(one.low)} to ${long(one.high)}`,
    };
  }
  return {
    usual: times(one.usual),
    value: times(one.value),
    between: `${times(one.low)} to ${times(one.high)}`,
  };
}

const SIZES: Record<string, string> = { length: "in length", width: "in width", face: "in thickness" };
/** What it is learned of: a machine, a wood, or the size an allowance is for. */
export const nameOf = (one: Learned): string => (one.kind === "allowance" ? SIZES[one.of]! : one.of);

/** What it rests on, in words. */
export function restsOn(one: Learned): string {
  const projects = `${one.projects} project${one.projects === 1 ? "" : "s"}`;
  const what = {
    minutes: "step",
    passes: "step",
    wood: "project",
    faults: "fault",
    movement: "piece",
    allowance: "piece",
  }[one.kind];
  const events = `${one.events} ${what}${one.events === 1 ? "" : "s"}`;
  return one.kind === "wood" ? projects : `${events} in ${projects}`;
}
