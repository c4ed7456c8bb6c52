import { describe, expect, it } from "vitest";
import { nextAt, withEnd } from "./cell-choice";

describe("the ends of a range", () => {
  it("are the two that were chosen, in either order, and a third begins anew", () => {
    const one = withEnd({ first: null, last: null }, 7, "anew");
    expect(one).toEqual({ first: 7, last: null });
    expect(withEnd(one, 3, "other")).toEqual({ first: 3, last: 7 });
    expect(withEnd(one, 9, "other")).toEqual({ first: 7, last: 9 });
    expect(withEnd(one, 7, "other")).toEqual({ first: 7, last: 7 });
    expect(withEnd({ first: 3, last: 7 }, 5, "anew")).toEqual({ first: 5, last: null });
  });

  it("never cross: the one that would lie on the wrong side is chosen again", () => {
    expect(withEnd({ first: 3, last: 7 }, 9, "first")).toEqual({ first: 9, last: null });
    expect(withEnd({ first: 3, last: 7 }, 1, "last")).toEqual({ first: null, last: 1 });
    expect(withEnd({ first: 3, last: 7 }, 5, "first")).toEqual({ first: 5, last: 7 });
    expect(withEnd({ first: 3, last: 7 }, 5, "last")).toEqual({ first: 3, last: 5 });
  });
});

describe("keys", () => {
  it("go along the cells and stop at their ends", () => {
    expect(["ArrowRight", "ArrowLeft", "ArrowDown", "ArrowUp", "Home", "End"].map((k) => nextAt(k, 2, 5))).toEqual([
      3, 1, 3, 1, 0, 4,
    ]);
    expect([nextAt("ArrowLeft", 0, 5), nextAt("ArrowRight", 4, 5)]).toEqual([0, 4]);
    expect(nextAt("x", 2, 5)).toBeNull();
    expect([nextAt("ArrowDown", 2, 17, 8), nextAt("ArrowUp", 10, 17, 8), nextAt("ArrowDown", 12, 17, 8)]).toEqual([
      10, 2, 16,
    ]);
  });
});
