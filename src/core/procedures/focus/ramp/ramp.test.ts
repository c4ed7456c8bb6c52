/** Ramps burned on practice machines and read there, and the geometry of a propped plate. */
import { describe, expect, it } from "vitest";
import { gantryFromSeed, withoutNoise } from "../../../../practice/gantry-truth";
import { shownFocus } from "../../../../practice/head-height";
import { heightsOf, type PracticeTruth, practiceFromSeed } from "../../../../practice/practice-truth";
import { seeded } from "../../../../practice/random";
import { rehearseRound } from "../../../../testing/rehearsal/rehearse-round";
import { SAMPLE_GALVO, SAMPLE_MACHINE } from "../../../../testing/sample-machine";
import { usualLadder } from "../../../../testing/usual-ladder";
import type { MachineSpec } from "../../../machine/machine-spec";
import { type Gauge, gaugeAsUsual } from "../../../metrology/gauge";
import { expandedUncertainty } from "../../../metrology/measured";
import { draftOf, readDraft } from "../../../trial/draft";
import type { History, Purpose, RoundRecord } from "../../../trial/history";
import type { PlanContext } from "../../../trial/plan-form";
import { FOCUS_HEIGHT, type FocusPlan, type RampPlan } from "../plan";
import { focusPlan } from "../plan-faults";
import { focus } from "../procedure";
import { LIFT_SITE } from "./coupon";
import { heightAlongPlate, heightAt, jobAt, liftMm, lineLength, slopeOf, ticksOf } from "./slope";

const GAUGE: Gauge = gaugeAsUsual("rule");

function usualRamp(context: PlanContext, changes: Partial<RampPlan> = {}): RampPlan {
  const form = focusPlan(context);
  const read = readDraft(form, { ...draftOf(form, form.defaults), way: "ramp" });
  if (!read.ok || read.plan.way !== "ramp") throw new Error(JSON.stringify(read));
  return { ...read.plan, ...changes };
}

const contextOn = (machine: MachineSpec, held = 10): PlanContext => ({
  machine,
  couponCode: "T-1",
  inForce: { [FOCUS_HEIGHT]: { shape: "scalar", value: held } },
});

function burned(
  plan: RampPlan,
  truth: PracticeTruth,
  machine = SAMPLE_MACHINE,
  purpose: Purpose = "measure",
  held = 10,
) {
  const { round } = rehearseRound({
    procedure: focus,
    context: contextOn(machine, held),
    purpose,
    gauge: GAUGE,
    truth,
    plan,
    n: purpose === "measure" ? 1 : 2,
    controller: { table: [], switchedOn: true },
    random: seeded(7),
    hand: { placingMm: 0.003, commonMm: 0, resolutionMm: 0.001 },
  });
  return round as RoundRecord<FocusPlan>;
}

const historyOf = (machine: MachineSpec, ...rounds: RoundRecord<FocusPlan>[]): History<FocusPlan> => ({
  rounds,
  gauges: [GAUGE],
  available: [GAUGE],
  machine,
  decisions: {},
  tolerance: focus.tolerance.default,
});

function solved(machine: MachineSpec, ...rounds: RoundRecord<FocusPlan>[]) {
  const outcome = focus.solve(historyOf(machine, ...rounds));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}

describe("a propped plate", () => {
  const plan = usualRamp(contextOn(SAMPLE_MACHINE), { lowMm: 20, riseMm: 30, runMm: 40, thicknessMm: 0 });

  it("is a triangle: 30 over 40 is 3/4, and 30 over 50 of its own length as well", () => {
    // The sides of a right triangle, Euclid I.47: 3, 4 and 5.
    expect(slopeOf(plan)).toEqual({ tangent: 0.75, cosine: 0.8, sine: 0.75 * 0.8 });
    const along = slopeOf({ ...plan, runMm: 50, runAlong: "plate" });
    expect(along?.tangent).toBeCloseTo(0.75, 12);
    expect(slopeOf({ ...plan, runMm: 30, runAlong: "plate" })).toBeNull();
  });

  it("comes nearer by X tan of the job, and by s sin of the plate, with the sheet's thickness over cos", () => {
    const slope = slopeOf(plan);
    if (!slope) throw new Error("no slope");
    expect(heightAt(plan, slope, 8)).toBeCloseTo(14, 12);
    // 8 mm of the job are 10 mm of the plate
    expect(heightAlongPlate(plan, slope, 10)).toBeCloseTo(14, 12);
    expect(heightAt({ ...plan, thicknessMm: 2 }, slope, 8)).toBeCloseTo(14 - 2.5, 12);
    expect(jobAt({ ...plan, thicknessMm: 2 }, slope, 11.5)).toBeCloseTo(8, 12);
    // A readout that falls when the head goes up counts the other way
    expect(heightAt({ ...plan, readAt: "scale, closer" }, slope, 8)).toBeCloseTo(26, 12);
  });

  it("has its scale where these heights are", () => {
    const usual = usualRamp(contextOn(SAMPLE_MACHINE));
    const slope = slopeOf(usual);
    if (!slope) throw new Error("no slope");
    const { ticks } = ticksOf(usual);
    expect(ticks.length).toBeGreaterThan(9);
    for (const { heightMm, jobMm } of ticks) expect(heightAt(usual, slope, jobMm)).toBeCloseTo(heightMm, 9);
  });
});

describe("a ramp on a practice machine", () => {
  it.each([3, 17, 29, 58])(
    "without noise shows where the beam is narrowest, by its ends and by widths, seed %i",
    (seed) => {
      const truth = withoutNoise(gantryFromSeed(seed));
      const z0 = shownFocus(heightsOf(truth));
      const context = contextOn(SAMPLE_MACHINE, Math.round(z0));
      const outcome = solved(SAMPLE_MACHINE, burned(usualRamp(context, { judged: "by widths" }), truth));
      for (const { id, quantity } of outcome.estimates.filter((e) =>
        ["focus", "marked", "widths", "sharpest"].includes(e.id),
      ))
        expect(Math.abs(quantity.value - z0), id).toBeLessThan(expandedUncertainty(quantity));
      expect(outcome.corrections[0]?.rows[0]?.enter).toBeCloseTo(z0, 0);
    },
  );

  it.each([1, 2, 3, 4, 5, 6])("with its errors finds it within its uncertainty, and proves it, seed %i", (seed) => {
    const truth = practiceFromSeed(seed, SAMPLE_MACHINE);
    const z0 = shownFocus(heightsOf(truth));
    const context = contextOn(SAMPLE_MACHINE, Math.round(z0) + 1);
    const measured = burned(usualRamp(context), truth);
    const outcome = solved(SAMPLE_MACHINE, measured);
    const [focusHeight] = outcome.estimates;
    if (!focusHeight) throw new Error("no estimate");
    expect(Math.abs(focusHeight.quantity.value - z0)).toBeLessThan(1.5 * expandedUncertainty(focusHeight.quantity));
    const next = focus.next(historyOf(SAMPLE_MACHINE, measured), outcome);
    if (next.do !== "round" || next.plan.way !== "ramp") throw new Error(JSON.stringify(next));
    expect(focusPlan(context).read(next.plan)).toMatchObject({ ok: true });
    const enter = outcome.corrections[0]?.rows[0]?.enter ?? 0;
    const proof = burned(next.plan, truth, SAMPLE_MACHINE, "proof", enter);
    const verdict = focus.judge(historyOf(SAMPLE_MACHINE, measured, proof));
    expect(verdict?.result).not.toBe("not proved");
    const wrong = burned(next.plan, truth, SAMPLE_MACHINE, "proof", enter + 4);
    expect(focus.judge(historyOf(SAMPLE_MACHINE, measured, wrong))?.result).toBe("not proved");
  });

  it("is read with a rule along the plate too, and on a galvo", () => {
    const truth = practiceFromSeed(5, SAMPLE_GALVO);
    const z0 = shownFocus(heightsOf(truth));
    const context = contextOn(SAMPLE_GALVO, Math.round(z0));
    const outcome = solved(SAMPLE_GALVO, burned(usualRamp(context, { rampRead: "rule" }), truth, SAMPLE_GALVO));
    const [focusHeight] = outcome.estimates;
    expect(Math.abs((focusHeight?.quantity.value ?? 0) - z0)).toBeLessThan(0.6);
  });

  it("so steep that few of its ticks mark says why its widths are not gone by", () => {
    const truth = withoutNoise(gantryFromSeed(29));
    const z0 = shownFocus(heightsOf(truth));
    const steep = { judged: "by widths", riseMm: 50, lowMm: z0 + 25, lowestMm: -80, highestMm: 120 } as const;
    const outcome = solved(SAMPLE_MACHINE, burned(usualRamp(contextOn(SAMPLE_MACHINE), steep), truth));
    expect(outcome.findings).toContainEqual(
      expect.objectContaining({
        id: "widths do not tell",
        headline: expect.stringMatching(/^Only [1-5] ticks/),
      }),
    );
    expect(outcome.estimates.map((e) => e.label)).not.toContain("By the widths");
  });

  it("that ended too early tells nothing by its ends, and says what to change", () => {
    const truth = withoutNoise(gantryFromSeed(29));
    const z0 = shownFocus(heightsOf(truth));
    const plan = usualRamp(contextOn(SAMPLE_MACHINE), { lowMm: z0 + 0.5, lowestMm: -40, highestMm: 60, looks: 1 });
    const round = burned(plan, truth);
    const only = { ...round, answers: round.answers.filter((a) => a.site !== "thinnest") };
    const outcome = focus.solve(historyOf(SAMPLE_MACHINE, only));
    expect(outcome).toMatchObject({ status: "unsolvable" });
    expect(outcome.findings.map((f) => f.id)).toContain("ramp too short");
  });
});

describe("a ramp that cannot be", () => {
  const form = focusPlan(contextOn(SAMPLE_MACHINE));
  const typed = (changes: Record<string, string>) =>
    readDraft(form, { ...draftOf(form, usualLadder(contextOn(SAMPLE_MACHINE))), way: "ramp", ...changes });

  it.each([
    ["riseMm", { riseMm: "80" }, /too steep/],
    ["runMm", { runAlong: "plate", runMm: "14" }, /Measure both again/],
    ["lowMm", { lowMm: "60" }, /between 2 and/],
    ["headReachMm", { headReachMm: "90", lowestMm: "4", stockWidthMm: "200" }, /would touch the plate/],
    ["stockHeightMm", { stockHeightMm: "12" }, /do not fit/],
    ["doses", { judged: "by widths", doses: "beam" }, /needs marks/],
    ["slopeGoodMm", { slopeGoodMm: "0" }, /more than 0 mm/],
  ])("is refused at %s", (field, changes, message) => {
    const read = typed(changes as Record<string, string>);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.issues).toContainEqual({ field, message: expect.stringMatching(message as RegExp) });
  });
});

describe("the lift of the line", () => {
  const truth = withoutNoise(gantryFromSeed(3));
  const plan = usualRamp(contextOn(SAMPLE_MACHINE));
  const round = burned(plan, truth);
  const slope = slopeOf(plan);
  const lifted = (mm: number): RoundRecord<FocusPlan> => ({
    ...round,
    answers: round.answers.map((a) =>
      a.site === LIFT_SITE ? { ...a, content: { status: "read", value: { kind: "quantity", value: mm } } } : a,
    ),
  });

  it("is the length of the line up the slope, and asks nothing while rise and run are right", () => {
    if (!slope) throw new Error("no slope");
    // tan = rise / run over the length of the line in the job.
    expect(liftMm(plan, slope)).toBeCloseTo((lineLength(plan, slope) * plan.riseMm) / plan.runMm, 9);
    expect(solved(SAMPLE_MACHINE, round).findings.map((f) => f.id)).not.toContain("slope of the ramp");
  });

  it("names a slope that is wrong by three times the limit of rise and run, and tells no focus then", () => {
    if (!slope) throw new Error("no slope");
    const limit = Math.hypot(plan.slopeGoodMm / plan.riseMm, plan.slopeGoodMm / plan.runMm);
    for (const side of [-1, 1]) {
      const wrong = lifted(liftMm(plan, slope) * (1 + side * 3 * limit));
      const outcome = focus.solve(historyOf(SAMPLE_MACHINE, wrong));
      expect(outcome.status).toBe("unsolvable");
      expect(outcome.findings.find((f) => f.id === "slope of the ramp")?.site).toBe(LIFT_SITE);
    }
    const within = lifted(liftMm(plan, slope) * (1 + 0.8 * limit));
    expect(solved(SAMPLE_MACHINE, within).findings.map((f) => f.id)).not.toContain("slope of the ramp");
  });
});
