/**
 * Lengths at the edge: reading and printing, as vividplank/core/measure.py does it.
 * Both are held to the same cases (tests/measure_cases.json). 1 tick = 1/8128 in = 1/320 mm.
 */
import { t } from "./i18n/i18n";
export type System = "in" | "in-decimal" | "ft-in" | "mm" | "cm" | "m";

/** The ways lengths are shown, with their words. */
export const SYSTEMS: readonly (readonly [System, string])[] = [
  ["in", t("inches, fractions")],
  ["in-decimal", t("inches, decimal")],
  ["ft-in", t("feet and inches")],
  ["mm", "millimetres"],
  ["cm", "centimetres"],
  ["m", "metres"],
];

export const TICKS_PER_INCH = 8128;
export const TICKS_PER_MM = 320;
/** The finest mark of an inch rule. */
export const TICKS_PER_64TH = 127;
const LONGEST = 100_000 * TICKS_PER_MM;

export const EXPECTED = t('a length such as 2 3/16, 2-3/16", 1\' 4 1/2", 16.5, 419 mm, 41.9 cm, 1.2 m');

const TICKS_PER: Record<string, number> = {
  in: TICKS_PER_INCH,
  ft: 12 * TICKS_PER_INCH,
  mm: TICKS_PER_MM,
  cm: 10 * TICKS_PER_MM,
  m: 1000 * TICKS_PER_MM,
};
const UNIT_OF: Record<System, string> = {
  in: "in",
  "in-decimal": "in",
  "ft-in": "in",
  mm: "mm",
  cm: "cm",
  m: "m",
};
const VULGAR: Record<string, string> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
  "⅓": "1/3",
  "⅔": "2/3",
  "⅕": "1/5",
  "⅙": "1/6",
};
const SIGNS: [string, string][] = [
  ["′", "'"],
  ["’", "'"],
  ["‘", "'"],
  ["″", '"'],
  ["”", '"'],
  ["“", '"'],
  ["''", '"'],
  ["⁄", "/"],
  ["\u00a0", " "],
  ["\u2009", " "],
  ["\u202f", " "],
  ["−", "-"],
  ["‐", "-"],
  ["‑", "-"],
  ["‒", "-"],
  ["–", "-"],
];
const AMOUNT = (k: string) =>
  `(?:(?:(?<${k}w>\\d+)(?:\\s+|\\s*-\\s*))?(?<${k}n>\\d+)/(?<${k}d>\\d+)|(?<${k}x>\\d+(?:[.,]\\d+)?|[.,]\\d+))`;
const ONE = new RegExp(`^${AMOUNT("a")}\\s*(?:(?<unit>mm|cm|m|inches|inch|in|"|'|feet|foot|ft)\\.?)?$`);
const FEET_AND_INCHES = new RegExp(
  `^${AMOUNT("f")}\\s*(?:'|(?:feet|foot|ft)\\.?)\\s*-?\\s*${AMOUNT("a")}\\s*(?:(?:"|inches|inch|in)\\.?)?$`,
);
const UNIT_WORD: Record<string, string> = {
  '"': "in",
  inch: "in",
  inches: "in",
  "'": "ft",
  foot: "ft",
  feet: "ft",
};

/** A text that is no length: what it was, and what is expected. */
export class MeasureError extends Error {
  constructor(
    readonly text: string,
    readonly why = t("cannot be read as a length"),
  ) {
    super(t("'{text}' {why}; expected {expected}", { text, why, expected: EXPECTED }));
  }
}

/** An exact amount as a fraction of whole numbers. */
type Amount = [number, number];

/** Ticks for a length in any notation of the shop; a bare number is in the unit of `system`. */
export function parse(text: string, system: System = "in", signed = false): number {
  let cleaned = clean(text);
  let sign = 1;
  if (/^[-+]/.test(cleaned)) {
    if (!signed) throw new MeasureError(text, t("has a sign, and a length here cannot be negative"));
    sign = cleaned[0] === "-" ? -1 : 1;
    cleaned = cleaned.slice(1).trim();
  }
  let exact: Amount;
  const both = FEET_AND_INCHES.exec(cleaned)?.groups;
  const one = both ? undefined : ONE.exec(cleaned)?.groups;
  if (both) {
    const inches = amount(both, "a", text);
    if (inches[0] >= 12 * inches[1])
      throw new MeasureError(text, t("gives twelve inches or more beside the feet"));
    const feet = amount(both, "f", text);
    exact = [feet[0] * 12 * inches[1] + inches[0] * feet[1], feet[1] * inches[1]];
    exact[0] *= TICKS_PER_INCH;
  } else if (one) {
    const word = one.unit ?? UNIT_OF[system];
    const unit = UNIT_WORD[word] ?? word;
    if (one.ad && unit !== "in" && unit !== "ft")
      throw new MeasureError(text, t("is a fraction of a metric unit"));
    const found = amount(one, "a", text);
    exact = [found[0] * TICKS_PER[unit]!, found[1]];
  } else {
    throw new MeasureError(text);
  }
  const ticks = roundHalfEven(exact);
  if (ticks > LONGEST) throw new MeasureError(text, t("is longer than 100 m"));
  return ticks === 0 ? 0 : sign * ticks;
}

/** The length as the shop writes it; reading it again in the same system gives the same ticks. */
export function show(ticks: number, system: System = "in", unit = false): string {
  if (ticks < 0) return "-" + show(-ticks, system, unit);
  if (system === "ft-in") {
    const feet = Math.floor(ticks / TICKS_PER.ft!);
    const inches = fraction(ticks - feet * TICKS_PER.ft!);
    return (feet ? `${feet}' ${inches}` : inches) + (unit ? '"' : "");
  }
  if (system === "in") return fraction(ticks) + (unit ? " in" : "");
  const word = UNIT_OF[system];
  const digits = { in: 4, mm: 3, cm: 4, m: 6 }[word]!;
  return decimal(ticks, TICKS_PER[word]!, digits) + (unit ? ` ${word}` : "");
}

/** The finest mark of the shop's rule: a 64th of an inch, or a tenth of a millimetre. */
export function ruleStep(system: System): number {
  return isMetric(system) ? TICKS_PER_MM / 10 : TICKS_PER_64TH;
}

/** The nearest mark of the shop's rule, in ticks. */
export function onRule(ticks: number, system: System): number {
  return Math.round(ticks / ruleStep(system)) * ruleStep(system);
}

/** The next mark of the rule at or above. */
export function upOnRule(ticks: number, system: System): number {
  return Math.ceil(ticks / ruleStep(system) - 1e-9) * ruleStep(system);
}

/** Inches as a plain number: what drawings are scaled by. */
export function inInches(ticks: number): number {
  return ticks / TICKS_PER_INCH;
}

/** The length with its unit behind a space; feet and inches carry their own signs. */
export function showUnit(ticks: number, system: System): string {
  return show(ticks, system) + (system === "ft-in" ? "" : ` ${unitWord(system)}`);
}

/**
 * A figure that somebody may have typed: as it is where it lies on any rule, else to the nearest
 * mark of the shop's.
 */
export function written(ticks: number, system: System): string {
  const onAnyRule = ticks % TICKS_PER_64TH === 0 || ticks % (TICKS_PER_MM / 10) === 0;
  return system === "in-decimal" || onAnyRule ? show(ticks, system) : showAbout(ticks, system, true);
}

/**
 * A surveyed or computed figure on the shop's rule: the mark below (what wood still gives) or the
 * nearest.
 */
export function showAbout(ticks: number, system: System, nearest = false): string {
  const step = ruleStep(system);
  return show(Math.floor(ticks / step + (nearest ? 0.5 : 1e-3)) * step, system);
}

export function isMetric(system: System): boolean {
  return system === "mm" || system === "cm" || system === "m";
}

/** The unit a bare figure of this system is in, as it is written after it. */
export function unitWord(system: System): string {
  return UNIT_OF[system];
}

function clean(text: string): string {
  let cleaned = text.trim().toLowerCase();
  for (const [odd, plain] of SIGNS) cleaned = cleaned.replaceAll(odd, plain);
  for (const [glyph, plain] of Object.entries(VULGAR)) cleaned = cleaned.replaceAll(glyph, ` ${plain}`);
  return cleaned.replace(/\s+/g, " ").trim();
}

function amount(groups: Record<string, string | undefined>, key: string, text: string): Amount {
  const dec = groups[`${key}x`];
  if (dec) {
    if (/^[1-9]\d*,\d{3}$/.test(dec)) {
      throw new MeasureError(text, t("could mean thousands or a decimal comma; write a point"));
    }
    const [whole = "", part = ""] = dec.replace(",", ".").split(".");
    return [Number(whole + part), 10 ** part.length];
  }
  const n = Number(groups[`${key}n`]);
  const d = Number(groups[`${key}d`]);
  if (![1, 2, 4, 8, 16, 32, 64].includes(d)) {
    throw new MeasureError(text, t("has a fraction that is not in halves, 4ths, 8ths … 64ths"));
  }
  const whole = groups[`${key}w`];
  if (whole !== undefined && n >= d) {
    throw new MeasureError(text, t("has a fraction of one or more beside whole inches"));
  }
  return [Number(whole ?? 0) * d + n, d];
}

function roundHalfEven([n, d]: Amount): number {
  const whole = Math.floor(n / d);
  const rest = 2 * (n - whole * d) - d;
  if (rest > 0 || (rest === 0 && whole % 2 === 1)) return whole + 1;
  return whole;
}

function fraction(ticks: number): string {
  if (ticks % TICKS_PER_64TH) return decimal(ticks, TICKS_PER_INCH, 4);
  const sixtyFourths = ticks / TICKS_PER_64TH;
  const whole = Math.floor(sixtyFourths / 64);
  let n = sixtyFourths - whole * 64;
  let d = 64;
  while (n && n % 2 === 0) {
    n /= 2;
    d /= 2;
  }
  if (!n) return String(whole);
  return whole ? `${whole} ${n}/${d}` : `${n}/${d}`;
}

/** The shortest decimal that reads back to the same ticks. */
function decimal(ticks: number, per: number, most: number): string {
  for (let digits = 0; digits < most; digits++) {
    const text = (ticks / per).toFixed(digits);
    if (Math.round(Number(text) * per) === ticks) return text;
  }
  return (ticks / per).toFixed(most);
}
