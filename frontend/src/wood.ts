/** Amounts of wood, their prices and weights by the reader's units. */
import { isMetric, type System, TICKS_PER_INCH as IN, TICKS_PER_MM as MM } from "./measure";
import { money } from "./money";
import { t } from "./i18n/i18n";

/** Cubic metres in a board foot: 144 cubic inches. */
export const CUBIC_METRES = (144 * (IN / MM) ** 3) / 1e9;
/** Kilograms in a pound. */
const POUND = 0.45359237;

export const woodUnit = (system: System) => (isMetric(system) ? "m³" : t("bd ft"));
/** The unit in words. */
export const woodUnitName = (system: System) => (isMetric(system) ? "cubic metre" : "board foot");
/** Board feet as the reader counts wood, without the unit: cubic metres to a litre, or to a tenth. */
export const woodFigure = (feet: number, system: System, digits = 1) =>
  isMetric(system) ? (feet * CUBIC_METRES).toFixed(digits + 2) : feet.toFixed(digits);
export const wood = (feet: number, system: System, digits = 1) =>
  `${woodFigure(feet, system, digits)} ${woodUnit(system)}`;

/** Money for a board foot as money for the reader's unit. */
export const perUnit = (perFoot: number, system: System) =>
  isMetric(system) ? money(perFoot / CUBIC_METRES, true) : money(perFoot);
/** A price by the reader's measure of wood. */
export const woodPrice = (perFoot: number, system: System) =>
  `${perUnit(perFoot, system)} a ${woodUnit(system)}`;

/** Kilograms as the reader weighs. */
export const weight = (kg: number, system: System, digits = 0) =>
  isMetric(system) ? `${kg.toFixed(digits)} kg` : `${(kg / POUND).toFixed(digits)} lb`;
