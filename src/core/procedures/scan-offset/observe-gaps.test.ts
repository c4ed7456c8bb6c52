import { describe, expect, it } from "vitest";
import { gapRow, knownOfGaps, shiftPlaces, shiftRow, wantedOfGaps } from "./observe-gaps";

describe("what a gap shows besides the stagger", () => {
  it("is the shift, toward the right end and away from the left, half of the longer rows, and what is hidden", () => {
    expect(gapRow({ speedMmPerS: 400, end: "right", going: "left" }, "calipers")).toEqual({
      "shift at 400": -1,
      "lag difference": -200,
      "length 400": -0.5,
      "hidden calipers": -1,
    });
    expect(gapRow({ speedMmPerS: 400, end: "left", going: "left" }, "calipers")).toMatchObject({ "shift at 400": 1 });
    expect(gapRow({ speedMmPerS: 400, end: "left", going: null }, "calipers")).toEqual({});
  });

  it("is known beforehand where it is no result, and only usual where it is one", () => {
    const all = knownOfGaps([100, 400], ["calipers", "microscope"]);
    expect(all.map((o) => [Object.keys(o.row)[0], o.isUsual ?? false])).toEqual([
      ["shift at 100", true],
      ["shift at 400", true],
      ["lag difference", true],
      ["length 100", false],
      ["length 400", false],
      ["hidden calipers", false],
      ["hidden microscope", false],
    ]);
    expect(all.every((o) => o.y === 0 && Object.values(o.row)[0] === 1)).toBe(true);
  });

  it("is wanted for each speed, or as the mean of all where one value is stored", () => {
    expect(shiftRow({ speeds: [100, 200, 400, 600] })).toEqual({
      "shift at 100": 0.25,
      "shift at 200": 0.25,
      "shift at 400": 0.25,
      "shift at 600": 0.25,
    });
    expect(shiftPlaces([100, 400], "one").map((p) => [p.id, p.at])).toEqual([["shift", null]]);
    expect(shiftPlaces([100, 400], "by speed").map((p) => [p.id, p.at])).toEqual([
      ["shift at 100", 100],
      ["shift at 400", 400],
    ]);
    expect(shiftPlaces([], "one")).toEqual([]);
    expect(wantedOfGaps([], "one")).toEqual([]);
    expect(wantedOfGaps([100], "one").map((w) => [w.id, w.proves])).toEqual([
      ["shift", 1],
      ["lag difference", undefined],
    ]);
    // Without a setting there is nothing that a proof could be of.
    expect(wantedOfGaps([100], null)[0]?.proves).toBeUndefined();
  });
});
