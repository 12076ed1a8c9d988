/** Money as the workshop counts it: with its currency, where it has named one. */
import { useLocalStorage } from "@vueuse/core";
import { t, tag } from "./i18n/i18n";

/** ISO 4217, or nothing; that of the workshop looked at last. */
export const currency = useLocalStorage("currency", "");

/** Two decimals without a currency, none of a `whole` amount; with one as the reader's language writes it. */
export function money(value: number, whole = false): string {
  if (!currency.value) return value.toFixed(whole ? 0 : 2);
  const digits = whole ? { maximumFractionDigits: 0 } : {};
  const style = { style: "currency", currency: currency.value, ...digits } as const;
  return new Intl.NumberFormat(tag(), style).format(value);
}

/** All currencies by their code, with their names in the reader's language; first none. */
export function currencies(): (readonly [string, string])[] {
  const names = new Intl.DisplayNames(tag(), { type: "currency" });
  const known = Intl.supportedValuesOf("currency").map(
    (code) => [code, `${code} ${names.of(code)}`] as const,
  );
  return [["", t("figures alone")], ...known];
}
