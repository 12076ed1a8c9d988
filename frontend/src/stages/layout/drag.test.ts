import { describe, expect, it } from "vitest";
import { pinch, scrollBy } from "./drag";

describe("a drag near an edge", () => {
  it.each([
    [400, 0],
    [130, 0],
    [64, -14],
    [780, 9],
    [800, 14],
    [900, 14],
  ])("at %i scrolls by %i", (at, by) => {
    expect(scrollBy(at, 64, 800)).toBeCloseTo(by, 0);
  });
});

describe("two fingers", () => {
  const at = (pointerId: number, x: number, pointerType = "touch") =>
    ({ pointerId, pointerType, clientX: x, clientY: 0 }) as PointerEvent;

  it("that go apart make it larger by as much", () => {
    const found: number[] = [];
    const two = pinch((factor) => found.push(factor));
    two.down(at(1, 0));
    two.move(at(1, 10));
    expect(found).toEqual([]);
    two.down(at(2, 110));
    two.move(at(2, 210));
    two.up(at(2, 210));
    two.move(at(1, 50));
    expect(found).toEqual([2]);
  });

  it("of a mouse are none", () => {
    const found: number[] = [];
    const two = pinch((factor) => found.push(factor));
    two.down(at(1, 0, "mouse"));
    two.down(at(2, 100, "mouse"));
    two.move(at(2, 200, "mouse"));
    expect(found).toEqual([]);
  });
});
