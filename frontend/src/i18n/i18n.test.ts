// @vitest-environment happy-dom
import { mount } from "@vue/test-utils";
import { afterEach, describe, expect, it } from "vitest";
import CarriedNote from "../stages/layout/CarriedNote.vue";
import PlanTray from "../stages/layout/PlanTray.vue";
import { i18n, t, tag } from "./i18n";

afterEach(() => {
  i18n.global.locale.value = "en";
});

/** Sentences as a file of a language would bring them. */
function inGerman(words: Record<string, string>): void {
  i18n.global.setLocaleMessage("de", words);
  i18n.global.locale.value = "de";
}

describe("the words of the screens", () => {
  it("are English sentences where no language is taken, with what is filled in", () => {
    expect(t("Tab. Then {n} e.g. this: {what}", { n: 3, what: "a|b @c {d}" })).toBe(
      "Tab. Then 3 e.g. this: a|b @c {d}",
    );
    expect([1, 2, 0].map((n) => t("{n} board | {n} boards", n))).toEqual(["1 board", "2 boards", "0 boards"]);
  });

  it("come from the language's file, and in English where that has none", () => {
    inGerman({ "{n} board | {n} boards": "{n} Brett | {n} Bretter", "It needs a name.": "Der Name fehlt." });
    expect(t("It needs a name.")).toBe("Der Name fehlt.");
    expect([1, 2].map((n) => t("{n} board | {n} boards", n))).toEqual(["1 Brett", "2 Bretter"]);
    expect(t("Take it")).toBe("Take it");
  });

  it("are those of the language on a screen", () => {
    inGerman({
      "In the tray": "In der Schale",
      "{n} lies nowhere | {n} lie nowhere": "{n} liegt | {n} liegen",
    });
    const unplaced = [1, 2].map((n) => ({ part: "SL", n, why: "" }));
    const tray = mount(PlanTray, {
      props: { unplaced, parts: [], system: "in", first: [], picked: "", movable: false },
    } as never);
    expect(tray.get("h3").text()).toBe("In der Schale 2 liegen");
  });

  it("stand in the order of the language round what is bold", () => {
    inGerman({ "{piece} does not hold here: {why}.": "Hier liegt {piece} nicht fest: {why}." });
    const tried = { holds: false, why: "kein Platz", board: "W3", cost: 0, cost_before: 0, yields: 0 };
    const note = mount(CarriedNote, {
      props: { name: "SL2", tried, pointer: { x: 0, y: 0 }, keys: false },
    } as never);
    expect(note.text()).toBe("Hier liegt SL2 nicht fest: kein Platz.");
    expect(note.get("b").text()).toBe("SL2");
  });

  it("write dates and numbers as the reader does, where the words are of that language", () => {
    expect(tag()).toBe("en-GB");
    inGerman({});
    expect(tag()).toBe("de");
    i18n.global.locale.value = "en";
    Object.defineProperty(navigator, "languages", { value: ["de-AT"], configurable: true });
    expect(tag()).toBe("en-GB");
    Object.defineProperty(navigator, "languages", { value: ["en-GB"], configurable: true });
  });
});
