import { expect, it } from "vitest";
import { found, type Findable } from "./find";

const nothing = () => undefined;
const ALL: Findable[] = [
  { kind: "go to", name: "Boards", take: nothing },
  { kind: "part", name: "BP Back post", more: "white oak", take: nothing },
  { kind: "part", name: "SL Back slat", more: "white oak", take: nothing },
  { kind: "board", name: "O1", more: "white oak", take: nothing },
];
const names = (asked: string) => found(ALL, asked).map((f) => f.name);

it("finds what every word begins a word of", () => {
  expect(names("back")).toEqual(["BP Back post", "SL Back slat"]);
  expect(names("oak slat")).toEqual(["SL Back slat"]);
  expect(names("part white")).toEqual(["BP Back post", "SL Back slat"]);
  expect(names("ack")).toEqual([]);
});

it("puts what begins so first, and everything where nothing is asked", () => {
  expect(names("b")).toEqual(["Boards", "BP Back post", "SL Back slat", "O1"]);
  expect(names("o1")).toEqual(["O1"]);
  expect(names("  ")).toHaveLength(4);
  expect(found(ALL, "", 2)).toHaveLength(2);
});
