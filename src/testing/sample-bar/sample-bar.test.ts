import { beforeAll, describe, expect, it } from "vitest";
import { admitHidden } from "../../core/course/registry";
import { type Gauge, gaugeAsUsual } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { gantryFromSeed } from "../../practice/gantry-truth";
import { seeded } from "../../practice/random";
import { rehearseRound } from "../rehearsal/rehearse-round";
import { SAMPLE_MACHINE } from "../sample-machine";
import { type SampleBarPlan, sampleBarPlan } from "./plan";
import { sampleBar } from "./procedure";
import { SAMPLE_BAR_SCALE } from "./solve";

const GAUGE: Gauge = gaugeAsUsual("calipers", { id: "c" });
const HAND = { placingMm: 0.02, commonMm: 0.01, resolutionMm: 0.01 };
const { key } = SAMPLE_BAR_SCALE;
/** What its controller holds before anything is corrected. */
const FOUND = 1;

beforeAll(() => admitHidden(sampleBar));

/** Burned on a practice machine that makes everything 0.4 % too long, while its controller holds this value. */
function rehearsed(n: number, value: number): RoundRecord<SampleBarPlan> {
  const context: PlanContext = {
    machine: SAMPLE_MACHINE,
    couponCode: "T-1",
    inForce: { [key]: { shape: "scalar", value } },
  };
  const { round } = rehearseRound({
    procedure: sampleBar,
    plan: sampleBarPlan(context).defaults,
    context,
    purpose: n === 1 ? "measure" : "proof",
    n,
    gauge: GAUGE,
    truth: { ...gantryFromSeed(3), scaleX: 1.004 },
    controller: { table: [], switchedOn: true, numbers: { [key]: { found: FOUND, now: value } } },
    hand: HAND,
    random: seeded(n),
  });
  return round as RoundRecord<SampleBarPlan>;
}

const historyOf = (...rounds: RoundRecord<SampleBarPlan>[]): History<SampleBarPlan> => ({
  rounds,
  gauges: [GAUGE],
  available: [GAUGE],
  machine: SAMPLE_MACHINE,
  decisions: {},
  tolerance: sampleBar.tolerance.default,
});

function solved(history: History<SampleBarPlan>) {
  const outcome = sampleBar.solve(history);
  if (outcome.status !== "solved") throw new Error(outcome.status);
  return outcome;
}

describe("the bar", () => {
  it("is solved to what the machine does, and its correction is that with the sum beside it", () => {
    const outcome = solved(historyOf(rehearsed(1, FOUND)));
    const error = outcome.estimates[0]?.quantity;
    if (!error) throw new Error("no estimate");
    expect(Math.abs(error.value - 0.004)).toBeLessThan(expandedUncertainty(error));
    const [row] = outcome.corrections[0]?.rows ?? [];
    expect(row?.enter).toBeCloseTo(1 / (1 + error.value), 4);
    expect(row?.arithmetic[0]).toMatch(/^1 ÷ 1\.00\d+ = 0\.99\d+$/);
    expect(row?.worth).toBe("yes");
  });

  it("is proved on the practice machine once its correction is entered, and not without", () => {
    const first = rehearsed(1, FOUND);
    const measured = historyOf(first);
    const enter = solved(measured).corrections[0]?.rows[0]?.enter ?? 0;
    expect(sampleBar.next(measured, sampleBar.solve(measured))).toMatchObject({
      do: "round",
      purpose: "proof",
      set: [key],
    });
    const proved = historyOf(first, rehearsed(2, enter));
    expect(sampleBar.judge(proved)?.result).toBe("proved");
    expect(sampleBar.next(proved, sampleBar.solve(proved))).toMatchObject({ do: "stop" });
    const forgotten = historyOf(first, rehearsed(2, FOUND));
    expect(sampleBar.judge(forgotten)).toMatchObject({ result: "not proved", findings: [{ id: "unchanged" }] });
  });

  it("asks for its readings first", () => {
    const open = historyOf({ ...rehearsed(1, FOUND), answers: [] });
    expect(sampleBar.next(open, sampleBar.solve(open))).toMatchObject({ do: "read", why: "Measure the bar." });
  });
});
