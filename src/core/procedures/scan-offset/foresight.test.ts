/** What a site should read by the others, and what more reading would do: held against readings that were then taken. */
import { describe, expect, it } from "vitest";
import { historyOf, readAs, TEST_GAUGE, table } from "../../../testing/scan-offset-history";
import { predictedReading } from "../../measuring/examined";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import type { RoundRecord } from "../../trial/history";
import { analyse, staggerUsed } from "./analysis";
import { REFERENCE_SITES } from "./coupon";
import { foresee, type MoreReading } from "./more-reading";
import { observeStagger } from "./observe-line";
import type { ScanOffsetPlan } from "./plan";

const LATE = { 100: 0.08, 200: 0.18, 300: 0.28, 400: 0.38, 500: 0.48 };
const SPEEDS = Object.keys(LATE).map(Number);
const round = (repeats: number) => readAs({ staggers: LATE, repeats, reference: 0.3 });
const without = (r: RoundRecord<ScanOffsetPlan>, ...sites: string[]) => ({
  ...r,
  answers: r.answers.filter((a) => !sites.includes(a.site)),
});

describe("what a site should read", () => {
  const expected = (r: RoundRecord<ScanOffsetPlan>, site: string) =>
    predictedReading(observeStagger, historyOf([r]), site);

  it("is what its other end reads", () => {
    expect(expected(without(round(1), "v300-left"), "v300-left")?.value).toBeCloseTo(0.28, 3);
  });

  it("is by the line of the other speeds where neither end is read, and less well known by two of them", () => {
    const unread = without(round(1), "v300-left", "v300-right");
    expect(expected(unread, "v300-left")?.value).toBeCloseTo(0.28, 2);
    expect(expected(unread, "v300-left")?.standardUncertainty).toBeLessThan(0.03);
    const two = without(unread, "v100-left", "v100-right", "v200-left", "v200-right");
    expect(expected(two, "v300-left")?.standardUncertainty).toBeGreaterThan(
      expected(unread, "v300-left")?.standardUncertainty ?? Number.NaN,
    );
  });

  it("is what the table in force has left of that line", () => {
    const inForce = table(SPEEDS.map((v) => [v, v === 300 ? 0.14 : 0]));
    const left = { ...LATE, 300: 0 };
    const unread = without(readAs({ staggers: left, inForce, repeats: 1 }), "v300-left", "v300-right");
    expect(expected(unread, "v300-left")?.value).toBeCloseTo(0, 3);
  });

  it("is its drawn size at the reference step, within the limit of the gauge", () => {
    const m = expected(readAs({ staggers: LATE, repeats: 1 }), REFERENCE_SITES.left);
    expect(m?.value).toBeCloseTo(0.3, 3);
    expect(m?.standardUncertainty).toBeGreaterThanOrEqual(TEST_GAUGE.limitMm / Math.sqrt(3));
  });

  it("is nothing at a place that is not on the coupon", () => {
    expect(expected(round(1), "v999-left")).toBeNull();
    expect(predictedReading(observeStagger, historyOf([]), "v100-left")).toBeNull();
  });
});

describe("what more reading would do", () => {
  const half = (r: RoundRecord<ScanOffsetPlan>, more: MoreReading | null, v: number) => {
    const history = historyOf([r]);
    const analysis = analyse(history, r);
    if (!analysis) throw new Error("nothing read");
    const results = more ? foresee(history, r, more) : analysis;
    const speed = results?.speeds.find((s) => s.speedMmPerS === v);
    if (!speed) throw new Error("no such speed");
    return expandedUncertainty(staggerUsed(analysis, speed).quantity);
  };
  const base: MoreReading = { ends: 0, speeds: SPEEDS, references: 0, gauge: null };

  it("is nothing for no more reading", () => {
    for (const v of SPEEDS) expect(half(round(3), base, v)).toBeCloseTo(half(round(3), null, v), 12);
  });

  it("comes true when the readings are taken: three more of each, as foreseen from three", () => {
    for (const v of SPEEDS) {
      const foreseen = half(round(3), { ...base, ends: 3, references: 3 }, v);
      expect(foreseen / half(round(6), null, v)).toBeGreaterThan(0.9);
      expect(foreseen / half(round(6), null, v)).toBeLessThan(1.15);
      expect(foreseen).toBeLessThan(half(round(3), null, v));
    }
  });

  it("helps most where it is taken", () => {
    const there = { ...base, ends: 4, speeds: [500] };
    const gain = (v: number) => half(round(3), null, v) / half(round(3), there, v);
    expect(gain(500)).toBeGreaterThan(gain(100));
  });

  it("with a finer gauge brings its own limit and scatter, and no zero where it has no jaws", () => {
    const finer: Gauge = gaugeAsUsual("microscope", { id: "m" });
    const r = readAs({ staggers: LATE, repeats: 1 });
    const then = foresee(historyOf([r]), r, { ...base, ends: 1, gauge: finer });
    const labels = then?.speeds.find((s) => s.speedMmPerS === 300)?.byLine?.parts.map((p) => p.label) ?? [];
    expect(labels).toContain("Limit of error, microscope picture");
    expect(labels).toContain("Repeatability, microscope picture");
    expect(labels).not.toContain("Zero of the jaws, microscope picture");
    expect(half(r, { ...base, ends: 1, gauge: finer }, 300)).toBeLessThan(half(r, null, 300) / 2);
  });

  it("of a reference step that was not read yet takes the common error out", () => {
    const r = readAs({ staggers: LATE, repeats: 3 });
    expect(half(r, { ...base, references: 6 }, 300)).toBeLessThan(0.7 * half(r, null, 300));
  });
});
