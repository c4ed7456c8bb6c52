import { describe, expect, it } from "vitest";
import { analyse } from "./analysis";
import { staggerRow } from "./observe";
import { historyOf, readAs } from "./test-history";

const SPEEDS = [100, 200, 300, 400, 500];

describe("the line over the speeds", () => {
  it("bows halfway, and not at its ends", () => {
    const bow = (v: number) => staggerRow(v, SPEEDS)["bow"];
    expect(SPEEDS.map(bow)).toEqual([0, 0.75, 1, 0.75, 0]);
    expect(staggerRow(200, SPEEDS)).toMatchObject({ start: 1, lag: 200, "at 200": 1 });
  });

  it("has no part in a speed that is not on it", () => {
    expect(staggerRow(200, [300, 400, 500])).toEqual({ "at 200": 1 });
  });

  it("follows a drive that bends gently, and keeps lag and constant part of the line through both ends", () => {
    const straight = (v: number) => 0.001 * v - 0.02;
    const bent = (v: number) => straight(v) + 0.04 * Math.sin((Math.PI * (v - 100)) / 400);
    const staggers = Object.fromEntries(SPEEDS.map((v) => [v, bent(v)]));
    const history = historyOf([readAs({ staggers })]);
    const round = history.rounds[0];
    const analysis = round && analyse(history, round);
    for (const speed of analysis?.speeds ?? [])
      expect(Math.abs((speed.byLine?.quantity.value ?? 1) - bent(speed.speedMmPerS))).toBeLessThan(0.006);
    expect(analysis?.lag?.quantity.value).toBeCloseTo(0.001, 4);
    expect(Math.abs((analysis?.constant?.quantity.value ?? 1) + 0.02)).toBeLessThan(0.008);
    expect(analysis?.lineAt?.(350).quantity.value).toBeCloseTo(bent(350), 1);
    expect(Math.abs((analysis?.lineAt?.(350).quantity.value ?? 1) - bent(350))).toBeLessThan(0.008);
  });
});
