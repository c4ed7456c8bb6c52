import { describe, expect, it } from "vitest";
import { gantryFromSeed, withoutNoise } from "../../../practice/gantry-truth";
import { seeded } from "../../../practice/random";
import { rehearseRound } from "../../../testing/rehearsal/rehearse-round";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import type { Gauge } from "../../metrology/gauge";
import type { History, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { type SampleBarPlan, sampleBarPlan } from "./plan";
import { sampleBar } from "./procedure";

const GAUGE: Gauge = {
  id: "calipers",
  name: "Calipers",
  kind: "calipers",
  unit: "mm",
  resolutionMm: 1e-6,
  limitMm: 0.02,
  placing: { sdMm: 0.02, relativeDoubt: 0.5 },
};
const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };

/** A round burned on a practice machine without noise, whose lengths are off by its scale, and read without error. */
function rehearsed(purpose: "measure" | "proof"): RoundRecord<SampleBarPlan> {
  const quiet = withoutNoise(gantryFromSeed(3));
  const { round } = rehearseRound({
    procedure: sampleBar,
    plan: sampleBarPlan().defaults,
    context,
    purpose,
    n: 1,
    gauge: GAUGE,
    // On and off equally late: what lags shifts the bar.
    truth: { ...quiet, scaleX: 1.004, lagOffS: quiet.lagOnS },
    controller: { table: [], switchedOn: true },
    hand: { placingMm: 0, commonMm: 0, resolutionMm: 1e-6 },
    random: seeded(1),
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

describe("the bar", () => {
  it("is solved to what the machine does, and its correction is that with the sum beside it", () => {
    const outcome = sampleBar.solve(historyOf(rehearsed("measure")));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    // Drawn 40 mm long by a machine that makes everything 0.4 % longer
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(40.16, 2);
    const [row] = outcome.corrections[0]?.rows ?? [];
    expect(row?.enter).toBeCloseTo(-0.16, 2);
    expect(row?.arithmetic).toEqual([expect.stringMatching(/^0 \+ 40 − 40\.1\d\d = -0\.1\d\d$/)]);
    expect(row?.worth).toBe("yes");
  });

  it("asks for its readings, then for a proof, then stops; a proof as long as before is not one", () => {
    const burned = rehearsed("measure");
    const open = historyOf({ ...burned, answers: [] });
    expect(sampleBar.solve(open)).toMatchObject({ status: "open" });
    expect(sampleBar.next(open, sampleBar.solve(open))).toMatchObject({ do: "read" });
    const measured = historyOf(burned);
    expect(sampleBar.next(measured, sampleBar.solve(measured))).toMatchObject({ do: "round", purpose: "proof" });
    expect(sampleBar.judge(measured)).toBeNull();
    const proved = historyOf(burned, { ...rehearsed("proof"), n: 2 });
    expect(sampleBar.next(proved, sampleBar.solve(proved))).toMatchObject({ do: "stop" });
    expect(sampleBar.judge(proved)?.result).toBe("not proved");
  });

  it("is drawn no longer than its stock", () => {
    expect(sampleBarPlan().read({ lengthMm: 60 })).toEqual({ ok: true, plan: { lengthMm: 60 } });
    expect(sampleBarPlan().read({ lengthMm: 61 })).toMatchObject({ ok: false, issues: [{ field: "lengthMm" }] });
  });
});
