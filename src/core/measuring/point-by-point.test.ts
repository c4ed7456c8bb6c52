import { describe, expect, it } from "vitest";
import { historyWith, roundWith } from "../../testing/axis-scale-round";
import { examine } from "../estimate/examination";
import { observePoints } from "./point-by-point";

/** Two points of a coupon along X, the second not read. */
const round = roundWith({
  plan: { axes: "X" },
  read: (place) => (place.kind === "tick" && place.index === 1 ? [30.02, 30.01, 300.1] : null),
});
const history = historyWith([round]);
const asDrawn = () => ({ value: 30, standardUncertainty: 2 });

describe("readings point by point", () => {
  it("are differences from what is drawn, each point with a value of its own", () => {
    const model = observePoints(history, round, asDrawn);
    expect(model?.observations.map((o) => [o.y, o.row, o.isUsual ?? false])).toEqual([
      [expect.closeTo(0.02, 9), { "x 1": 1 }, false],
      [expect.closeTo(0.01, 9), { "x 1": 1 }, false],
      [expect.closeTo(270.1, 9), { "x 1": 1 }, false],
      [0, { "x 1": 1 }, true],
    ]);
    expect(model?.observations.at(-1)?.u).toBe(2);
  });

  it("name the one that was misread, with its point in words", () => {
    const model = observePoints(history, round, asDrawn);
    const suspects = model ? examine(model, new Set())?.suspects : [];
    expect(suspects?.map((s) => s.headline)).toEqual(["Reading 3 of X, tick 1 at 30 mm looks 10 times too large."]);
  });

  it("ask nothing of a layout: without readings there is no model, and what is drawn is not asked for with readings", () => {
    const unread = roundWith({ plan: { axes: "X" }, read: () => null });
    expect(observePoints(historyWith([unread]), unread, asDrawn)).toBeNull();
    observePoints(history, round, (h) => {
      expect(h.rounds.flatMap((r) => r.answers)).toEqual([]);
      return null;
    });
    expect.assertions(round.spec.sites.filter((s) => s.ask.kind === "quantity").length + 1);
  });
});
