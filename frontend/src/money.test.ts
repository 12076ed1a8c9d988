// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from "vitest";
import { currencies, currency, money } from "./money";

describe("money", () => {
  beforeEach(() => {
    currency.value = "";
  });

  it("is a figure alone where the workshop has named no currency", () => {
    expect(money(397.5)).toBe("397.50");
  });

  it("has its currency, and its decimals, where it has named one", () => {
    currency.value = "JPY";
    expect(money(397.5)).toMatch(/398/);
    expect(money(397.5)).not.toMatch(/397\.50/);
    currency.value = "EUR";
    expect(money(12)).toMatch(/€/);
  });

  it("offers every currency there is, and none", () => {
    const all = currencies();
    expect(all[0]).toEqual(["", "figures alone"]);
    expect(all.map(([code]) => code)).toEqual(expect.arrayContaining(["EUR", "USD", "GBP"]));
  });
});
