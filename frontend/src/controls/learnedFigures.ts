/** How learned figures are told. */
import type { Schemas } from "../api/client";
import { onRule, showUnit, type System } from "../measure";
import { t } from "../i18n/i18n";

export type Learned = Schemas["LearnedBody"];

const times = (value: number) => value.toFixed(2);
/** A fault in so many board feet, to two figures. */
const every = (rate: number) => Number((1 / rate).toPrecision(2)).toString();

export const GROUPS = [
  {
    kind: "minutes",
    of: t("At"),
    title: t("Minutes at the machine"),
    says: t("Times what feeds and passes foretell; the days and every step's minutes follow it"),
  },
  {
    kind: "passes",
    of: t("At"),
    title: t("Passes"),
    says: t("Times those foretold; told at the machine beside them"),
  },
  {
    kind: "wood",
    of: t("Wood"),
    title: t("Wood to buy"),
    says: t("Rough board feet for one of finished parts, beside the rule of thumb in Buy"),
  },
  {
    kind: "faults",
    of: t("Wood"),
    title: t("Faults no survey knew of"),
    says: t("One in so many board feet; the chances in Buy are worked out with it"),
  },
  {
    kind: "movement",
    of: t("Wood"),
    title: t("Movement in rest"),
    says: t("Enough for nine faces of ten after a rest, of those whose passes or warp were noted"),
  },
  {
    kind: "allowance",
    of: t("Over"),
    title: t("Allowances"),
    says: t(
      "Enough for nine pieces of ten, of those that were read or counted; taken in a project under The shop",
    ),
  },
] as const;

/** The figure, and between what it lies with the stated chance. */
export function told(one: Learned, system: System): { usual: string; value: string; between: string } {
  if (one.kind === "faults")
    return {
      usual: t("one in {usual} bd ft", { usual: every(one.usual) }),
      value: t("one in {one} bd ft", { one: every(one.value) }),
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

const SIZES: Record<string, string> = {
  length: t("in length"),
  width: t("in width"),
  face: t("in thickness"),
};
/** What it is learned of: a machine, a wood, or the size an allowance is for. */
export const nameOf = (one: Learned): string => (one.kind === "allowance" ? SIZES[one.of]! : one.of);

/** What it rests on, in words. */
export function restsOn(one: Learned): string {
  const projects = t("{n} project | {n} projects", one.projects);
  if (one.kind === "wood") return projects;
  const events = {
    minutes: t("{n} step | {n} steps", one.events),
    passes: t("{n} step | {n} steps", one.events),
    faults: t("{n} fault | {n} faults", one.events),
    movement: t("{n} piece | {n} pieces", one.events),
    allowance: t("{n} piece | {n} pieces", one.events),
  }[one.kind];
  return t("{events} in {projects}", { events, projects });
}
