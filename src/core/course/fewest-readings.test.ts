/** How often a proof is read, from what the last burn showed. */
import { describe, expect, it } from "vitest";
import { historyOf, readAs, TEST_GAUGE } from "../../testing/scan-offset-history";
import { type Gauge, gaugeAsUsual } from "../metrology/gauge";
import type { ScanOffsetPlan } from "../procedures/scan-offset/plan";
import { scanOffset } from "../procedures/scan-offset/procedure";
import { withFewestReadings } from "./forecast";

const STAGGERS = { 100: 0.08, 200: 0.18, 300: 0.28, 400: 0.38 };

function fewest(tolerance: number, gauge: Gauge = TEST_GAUGE, repeats = 3): unknown {
  const history = historyOf([readAs({ staggers: STAGGERS, reference: 0.3, repeats })]);
  const context = { machine: history.machine, couponCode: "T-1.2", inForce: {}, gauges: [gauge] };
  const plan = history.rounds[0]?.plan;
  const laid = { procedure: scanOffset, plan, context, tolerance };
  return withFewestReadings(laid, gauge, { ...history, gauges: [gauge], tolerance });
}

function repeatsOf(plan: unknown): number {
  return (plan as ScanOffsetPlan).repeats;
}

describe("the fewest readings of a proof", () => {
  it("are one at each point where the tolerance is wide, and as many as before where it is narrow", () => {
    expect(repeatsOf(fewest(0.2))).toBe(1);
    expect(repeatsOf(fewest(0.01))).toBe(3);
  });

  it("grow as the tolerance shrinks, and never beyond those of the last burn", () => {
    const counts = [0.2, 0.06, 0.04, 0.03, 0.02, 0.01].map((tolerance) => repeatsOf(fewest(tolerance)));
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    expect(new Set(counts).size).toBeGreaterThan(1);
    expect(Math.max(...counts)).toBe(3);
  });

  it("are more with a coarser gauge", () => {
    const rule = gaugeAsUsual("rule", { id: TEST_GAUGE.id });
    expect(repeatsOf(fewest(0.06, rule))).toBeGreaterThan(repeatsOf(fewest(0.06)));
  });

  it("stay as they are where the effect of the setting is only assumed: the next correction needs them", () => {
    const history = historyOf([readAs({ staggers: STAGGERS, reference: 0.3 })]);
    const held = { ...history.machine.held };
    for (const [key, value] of Object.entries(held)) held[key] = { ...value, senseAssumed: true };
    const machine = { ...history.machine, held };
    const context = { machine, couponCode: "T-1.2", inForce: {}, gauges: [TEST_GAUGE] };
    const plan = history.rounds[0]?.plan;
    const laid = { procedure: scanOffset, plan, context, tolerance: 0.2 };
    expect(repeatsOf(withFewestReadings(laid, TEST_GAUGE, history))).toBe(3);
  });

  it("change nothing but the number of readings, and nothing at all before anything is read", () => {
    const history = historyOf([readAs({ staggers: STAGGERS, reference: 0.3 })]);
    const plan = history.rounds[0]?.plan;
    expect(fewest(0.2)).toEqual({ ...plan, repeats: 1 });
    const context = { machine: history.machine, couponCode: "T-1.2", inForce: {}, gauges: [TEST_GAUGE] };
    const laid = { procedure: scanOffset, plan, context, tolerance: 0.2 };
    expect(withFewestReadings(laid, TEST_GAUGE, { ...history, rounds: [] })).toBe(plan);
    expect(withFewestReadings({ ...laid, plan: null }, TEST_GAUGE, history)).toBeNull();
  });
});
