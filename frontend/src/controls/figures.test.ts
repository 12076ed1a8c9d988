import { describe, expect, it } from "vitest";
import { drawn, IN, words } from "../test/making";
import Fig from "./Fig.vue";
import Len from "./Len.vue";

describe("figures in a text", () => {
  it("sets a mixed number as a whole and a real fraction", async () => {
    const html = await drawn(Fig, { text: "cut at 46 1/2 in first" });
    expect(html).toMatch(/<sup[^>]*>1<\/sup>/);
    expect(html).toMatch(/<sub[^>]*>2<\/sub>/);
    expect(words(html)).toBe("cut at 46 1/2 in first");
  });

  it("sets a fraction by itself, and several in one line", async () => {
    const html = await drawn(Fig, { text: "13/16 to 3/4" });
    expect(html.match(/<sup/g)).toHaveLength(2);
  });

  it.each(["7/7/2026", "4/5 of it", "a 1.5/8", "no figure"])("leaves %s as it is", async (text) => {
    expect(await drawn(Fig, { text })).not.toContain("<sup");
  });

  it("never takes a text for markup", async () => {
    expect(await drawn(Fig, { text: "<b>1/2</b>" })).not.toContain("<b>");
  });
});

describe("a length", () => {
  it.each([
    ["in", "2 1/2 in"],
    ["mm", "63.5 mm"],
    ["cm", "6.35 cm"],
    ["ft-in", "2 1/2"],
  ])("shows in %s with its unit once", async (system, text) => {
    expect(words(await drawn(Len, { ticks: 2.5 * IN, system }))).toBe(text);
  });

  it("goes to the 64th below where it is what a board still gives", async () => {
    const ticks = IN - 1;
    expect(words(await drawn(Len, { ticks, system: "in", about: true, bare: true }))).toBe("63/64");
    expect(words(await drawn(Len, { ticks, system: "in", nearest: true, bare: true }))).toBe("1");
  });

  it("goes to the tenth of a millimetre in a metric project", async () => {
    expect(words(await drawn(Len, { ticks: 6399, system: "mm", about: true, bare: true }))).toBe("19.9");
    expect(words(await drawn(Len, { ticks: 6399, system: "mm", nearest: true, bare: true }))).toBe("20");
  });
});
