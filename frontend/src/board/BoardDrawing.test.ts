import { describe, expect, it } from "vitest";
import { aBoard, aPart, drawn, IN, words } from "../test/making";
import BoardDrawing from "./BoardDrawing.vue";
import BoardRuler from "./BoardRuler.vue";
import { plainFault } from "./make";
import WarpViews from "./WarpViews.vue";

const segment = (layers: { part: string; n: number; stave: number }[][]) => ({
  x0: IN,
  x1: 31 * IN,
  y0: 0,
  slope: 0,
  strips: [{ y0: 0, y1: 3 * IN, blanks: [{ x0: IN, x1: 31 * IN, layers }] }],
});
const A = (n: number) => ({ part: "A", n, stave: 0 });

function board(values = {}, more = {}) {
  return drawn(BoardDrawing, {
    board: aBoard(values),
    scale: 10,
    system: "in",
    parts: [aPart({ length: 14 * IN })],
    ...more,
  });
}

describe("a board drawn", () => {
  it("is to scale, with its outline", async () => {
    const html = await board();
    expect(html).toContain('width="612"'); // 60 in at 10, and a margin
    expect(html).toContain('height="72"');
    expect(html).toContain('points="6,66 606,66 606,16 6,6"'); // datum edge below, the far end an inch narrower
  });

  it("is turned over for face B: the datum edge comes up", async () => {
    expect(await board({}, { face: "B" })).toContain('points="6,6 606,6 606,56 6,66"');
  });

  it("names what is chalked on it and says its size", async () => {
    const html = await board({}, { segments: [segment([[A(1)]])] });
    expect(words(html)).toContain("A1");
    expect(html).toContain("A1: Shelf, blank 30 × 3");
  });

  it("parts what lies end to end in one blank, each with its own name", async () => {
    const html = await board({}, { segments: [segment([[A(1), A(2)]])] });
    expect(html).toContain('class="split"');
    expect(words(html)).toMatch(/A1.*A2/);
  });

  it("shows layers as one blank of several", async () => {
    const html = await board({}, { segments: [segment([[A(1)], [A(2)]])] });
    expect(html).toContain("resawn in 2");
    expect(words(html)).toContain("A1 ∕ A2");
  });

  it("numbers the staves of a panel", async () => {
    const html = await board({}, { segments: [segment([[{ part: "A", n: 1, stave: 2 }]])] });
    expect(words(html)).toContain("A1·2");
  });

  it("marks every crosscut, both ends of each segment", async () => {
    const html = await board({}, { segments: [segment([[A(1)]])] });
    expect(html.match(/class="cut"/g)).toHaveLength(2);
  });

  it("shows the chosen part and dims the rest", async () => {
    const html = await board({}, { segments: [segment([[A(1)]])], chosen: "A" });
    expect(html).toMatch(/class="chosen chalked"/);
    expect(await board({}, { segments: [segment([[A(1)]])], chosen: "Z" })).toMatch(/class="dim chalked"/);
  });

  it("can be gone through by key where parts can be chosen", async () => {
    expect(await board({}, { segments: [segment([[A(1)]])], choosable: true })).toContain('tabindex="0"');
    expect(await board({}, { segments: [segment([[A(1)]])] })).not.toContain("tabindex");
  });

  it.each([
    ["tight-knot", "ellipse", false],
    ["loose-knot", "ellipse", true],
    ["check", "path", false],
    ["wane", "rect", true],
    ["sapwood", "rect", false],
  ])("draws a %s", async (kind, shape, crossed) => {
    const defects = [plainFault(kind, "A", { x0: 10 * IN, x1: 12 * IN, y0: IN, y1: 2 * IN })];
    const html = await board({ defects });
    const fault = /<g class="[^"]*fault[^]*?<\/g>/.exec(html)![0];
    expect(fault).toContain(`<${shape}`);
    expect(fault).toContain(`${kind}, face A, 10 to 12`);
    expect(/l-20 10/.test(fault)).toBe(crossed); // an unsound one is crossed out
  });

  it("shows a fault of the other face only faintly", async () => {
    const defects = [plainFault("tight-knot", "B", { x0: 10 * IN, x1: 12 * IN, y0: IN, y1: 2 * IN })];
    expect(await board({ defects })).toMatch(/class="(other fault|fault other)"/);
    expect(await board({ defects }, { face: "B" })).not.toMatch(/class="[^"]*other/);
  });

  it("draws a fault in its own shape, and marks the bounds of a knot that was only measured", async () => {
    const bounds = { x0: 10 * IN, x1: 12 * IN, y0: IN, y1: 2 * IN };
    const outline = plainFault("wane", "A", bounds, {
      shape: "outline",
      points: [
        [10 * IN, IN],
        [12 * IN, IN],
        [11 * IN, 2 * IN],
      ],
      severity: "grave",
    });
    expect(await board({ defects: [outline] })).toMatch(
      /<polygon points="106,56 126,56 116,46" fill="#5b3a1e"/,
    );
    expect(words(await board({ defects: [outline] }))).toContain("grave wane");
    const knot = plainFault("tight-knot", "A", bounds);
    expect(await board({ defects: [knot] })).not.toContain("bounds");
    expect(await board({ defects: [{ ...knot, shape: "rectangle" }] })).toContain('class="bounds"');
  });

  it("lays the photograph of the face under it, unless it is hidden", async () => {
    const photos = [{ face: "A", picture: 7 }];
    expect(await board({ photos })).toContain("/api/pictures/7/straight");
    expect(await board({ photos }, { face: "B" })).not.toContain("<image");
    expect(await board({ photos }, { photographed: false })).not.toContain("<image");
  });

  it("shows zones of figure with their names", async () => {
    const grain = {
      ...aBoard().grain,
      zones: [{ figure: "quarter", x0: 0, x1: 30 * IN, y0: IN, y1: 4 * IN }],
    };
    expect(words(await board({ grain }))).toContain("quarter");
  });
});

describe("the ruler", () => {
  const ruler = (system: string, scale = 10) =>
    drawn(BoardRuler, { length: 60 * IN, scale, system }).then(words);

  it("counts inches, every six of them named", async () => {
    expect(await ruler("in")).toContain("0 6 12 18 24 30");
  });

  it("counts feet's worth where there is little room", async () => {
    expect(await ruler("in", 3)).toBe("0 12 24 36 48");
  });

  it("counts millimetres in a metric project", async () => {
    expect(await ruler("mm")).toContain("0 100 200 300");
  });
});

describe("the views of its warp", () => {
  const piece = { x0: 0, x1: 60 * IN, flat: 7620, takes_below: 508, takes_above: 508, a: 0, b: 0, c: 254 };
  const views = (bow: number) =>
    drawn(WarpViews, {
      board: aBoard({ warp: { bow, cup: 0, twist: 0 } }),
      system: "in",
      pieces: [piece],
      width: 600,
    });

  it("say how much they exaggerate, the more the flatter the board", async () => {
    const factor = async (bow: number) => Number(/heights ×(\d+)/.exec(words(await views(bow)))![1]);
    expect(await factor(IN / 4)).toBeLessThanOrEqual(await factor(IN / 16));
    expect(await factor(4 * IN)).toBe(1);
  });

  it("show the flat board inside with its thickness", async () => {
    const html = await views(IN / 4);
    expect(html.match(/class="slab"/g)!.length).toBeGreaterThan(3); // side, both ends, three-quarter
    expect(words(html)).toContain("15/16");
    expect(words(html)).toContain("Datum end");
  });
});
