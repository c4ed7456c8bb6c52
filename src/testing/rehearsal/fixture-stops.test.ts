/** Stops of a fixture on practice gantries: found by a cross, proved by another that is placed by them. */

import { describe, expect, it } from "vitest";
import { type FixturePlan, fixturePlan, planWarnings } from "../../core/procedures/fixture-stops/plan";
import { fixtureStops } from "../../core/procedures/fixture-stops/procedure";
import { draftOf, readDraft } from "../../core/trial/draft";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { planWith } from "../plan-with";
import { SAMPLE_MACHINE } from "../sample-machine";
import { LENGTH_GAUGES } from "./axis-scale-accuracy";
import { rehearseRound } from "./rehearse-round";

const GAUGE = LENGTH_GAUGES.calipers;
const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };

function gantry(seed: number) {
  const truth = practiceFromSeed(seed, SAMPLE_MACHINE);
  if ("kind" in truth || !truth.axes) throw new Error("a gantry with axes is wanted");
  return { ...truth, axes: truth.axes };
}

function rehearsed(seed: number, n: number, changes: Partial<FixturePlan>) {
  const form = fixturePlan(context);
  return rehearseRound({
    procedure: fixtureStops,
    plan: planWith(form, changes),
    context,
    n,
    purpose: n === 1 ? "measure" : "proof",
    truth: gantry(seed),
    gauge: GAUGE,
    random: seeded(seedOf(seed, n)),
    controller: { table: [], switchedOn: true },
    hand: { placingMm: GAUGE.placing?.sdMm ?? 0, commonMm: 0, resolutionMm: GAUGE.resolutionMm },
  }).round as RoundRecord<FixturePlan>;
}

const historyOf = (...rounds: RoundRecord<FixturePlan>[]): History<FixturePlan> => ({
  rounds,
  gauges: [GAUGE],
  available: [],
  machine: SAMPLE_MACHINE,
  decisions: {},
  tolerance: fixtureStops.tolerance.default,
});

describe("the stops of a fixture", () => {
  it.each([
    ["burned", { sideX: "left", sideY: "front" }],
    ["traced", { sideX: "left", sideY: "front" }],
    ["burned", { sideX: "right", sideY: "back" }],
    ["burned", { sideX: "left", sideY: "back", measuredTo: "near", lineWidthMm: 0.2 }],
  ] as const)("are found by a cross %s, %o, and the next cross is placed by them", (way, sides) => {
    for (let seed = 21; seed < 27; seed++) {
      const first = rehearsed(seed, 1, { way, ...sides });
      const outcome = fixtureStops.solve(historyOf(first));
      if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
      const { axes, scaleX } = gantry(seed);
      if (way === "burned" && sides.sideX === "left" && sides.sideY === "front") {
        // Seen from the machine the stop stands where a head that is sent there truly is.
        const truly = (axes.stops.xMm - axes.x.homeMm) / scaleX;
        const said = outcome.estimates[0]?.quantity;
        expect(Math.abs((said?.value ?? 0) - truly), `seed ${seed}`).toBeLessThan(0.3);
      }
      const next = fixtureStops.next(historyOf(first), outcome);
      if (next.do !== "round") throw new Error(next.why);
      expect(next.plan.aboutXMm).toBeCloseTo(outcome.estimates[0]?.quantity.value ?? Number.NaN, 1);
      const proof = rehearsed(seed, 2, { ...next.plan, repeats: 6 });
      expect(fixtureStops.judge(historyOf(first, proof))?.result, `seed ${seed}`).toBe("proved");
    }
  });

  it("say each sum, and from which side", () => {
    const outcome = fixtureStops.solve(historyOf(rehearsed(22, 1, {})));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const row = outcome.corrections[0]?.rows[0];
    expect(row?.old).toBe(30);
    expect(row?.arithmetic.join("; ")).toMatch(
      /from the left stop; taken to stand at 30 mm [+−] .* from the left side of the working area; rounded to 0.01 mm/,
    );
  });
});

describe("a cross that cannot be measured", () => {
  it.each([
    ["distanceXMm", { distanceXMm: "10" }, /reach over the stop/],
    ["aboutXMm", { aboutXMm: "880" }, /outside the working area of 900 mm/],
    ["armMm", { armMm: "2" }, /does not show a turn/],
  ])("is refused at %s", (field, changes, message) => {
    const form = fixturePlan(context);
    const read = readDraft(form, { ...draftOf(form, form.defaults), ...(changes as Record<string, string>) });
    expect(read.ok ? [] : read.issues).toContainEqual({ field, message: expect.stringMatching(message) });
  });

  it("warns of equal distances", () => {
    const { defaults } = fixturePlan(context);
    expect(planWarnings({ ...defaults, distanceYMm: defaults.distanceXMm })[0]?.message).toMatch(/mix-up/);
    expect(planWarnings(defaults)).toEqual([]);
  });
});
