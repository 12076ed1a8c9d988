import { describe, expect, it } from "vitest";
import { markFor } from "./marks";

describe("marks made up from names", () => {
  it.each([
    ["Back post", "BP"],
    ["Seat rail, long one", "SRL"],
    ["Shelf", "SH"],
    ["2nd top", "2T"],
    ["x", "X"],
    ["…", "P"],
  ])("%s is %s", (name, mark) => expect(markFor(name, new Set())).toBe(mark));

  it("never takes one twice", () => {
    const taken = new Set<string>();
    for (let n = 0; n < 12; n++) {
      const mark = markFor("Back post", taken);
      expect(taken.has(mark)).toBe(false);
      taken.add(mark);
    }
    expect([...taken].slice(0, 3)).toEqual(["BP", "BP2", "BP3"]);
  });
});
