/** Live sweeps noted on practice machines, and what their passes are worth. */
import { describe, expect, it } from "vitest";
import { shownFocus } from "../../../../practice/head-height";
import { heightsOf, type PracticeTruth, practiceFromSeed } from "../../../../practice/practice-truth";
import { seeded } from "../../../../practice/random";
import { rehearseRound } from "../../../../testing/rehearsal/rehearse-round";
import { SAMPLE_GALVO } from "../../../../testing/sample-machine";
import { type Gauge, gaugeAsUsual } from "../../../metrology/gauge";
import { expandedUncertainty } from "../../../metrology/measured";
import { type Answer, PLAIN_SHARES } from "../../../trial/answer";
import { draftOf, readDraft } from "../../../trial/draft";
import type { History, RoundRecord } from "../../../trial/history";
import type { PlanContext } from "../../../trial/plan-form";
import type { FocusPlan } from "../plan";
import { focusPlan } from "../plan-faults";
import { focus } from "../procedure";
import { FALLING_SITE, RISING_SITE } from "./coupon";

const GAUGE: Gauge = gaugeAsUsual("rule");
const context: PlanContext = { machine: SAMPLE_GALVO, couponCode: "T-1", inForce: {} };

function usualSweep(changes: Record<string, string> = {}): FocusPlan {
  const form = focusPlan(context);
  const read = readDraft(form, { ...draftOf(form, form.defaults), way: "sweep", settableMm: "0.1", ...changes });
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.plan;
}

const historyOf = (...rounds: RoundRecord<FocusPlan>[]): History<FocusPlan> => ({
  rounds,
  gauges: [GAUGE],
  available: [GAUGE],
  machine: SAMPLE_GALVO,
  decisions: {},
  tolerance: focus.tolerance.default,
});

function noted(rising: number[], falling: number[]): RoundRecord<FocusPlan> {
  const plan = usualSweep();
  const answer = (site: string, value: number): Answer => ({
    site,
    u: null,
    gauge: "rule",
    session: "1",
    shares: PLAIN_SHARES,
    from: "typed",
    content: { status: "read", value: { kind: "quantity", value } },
  });
  return {
    n: 1,
    purpose: "measure",
    plan,
    inForce: {},
    spec: focus.round(plan, context, "measure"),
    answers: [...rising.map((v) => answer(RISING_SITE, v)), ...falling.map((v) => answer(FALLING_SITE, v))],
  };
}

function solved(...rounds: RoundRecord<FocusPlan>[]) {
  const outcome = focus.solve(historyOf(...rounds));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}

describe("a live sweep", () => {
  it("is the mean of its passes: 180.9, 181.1, 181.0 rising, 180.6, 180.4, 180.5 falling (made up)", () => {
    const outcome = solved(noted([180.9, 181.1, 181], [180.6, 180.4, 180.5]));
    const by = (id: string) => outcome.estimates.find((e) => e.id === id)?.quantity;
    expect(by("focus")?.value).toBeCloseTo(181, 9);
    expect(by("falling")?.value).toBeCloseTo(180.5, 9);
    expect(by("either")?.value).toBeCloseTo(180.75, 9);
    // Half of what they differ by is not known where it does not matter from which side it is set.
    expect(by("either")?.standardUncertainty).toBeGreaterThan(by("falling")?.standardUncertainty ?? 9);
    expect(by("backlash")?.value).toBeCloseTo(0.5, 9);
    // s^2 = (2 * (0.3^2 + 0.1^2/12) + 4 * 0.1^2) / 6 [JCGM 100:2008 4.2.4, pooled, with the step of 0.1 mm], of a difference of two means
    // of three: sqrt(2/3) s. The factor is found in steps that end at 1 in 10 000.
    const expected = Math.sqrt(((2 * (0.09 + 0.01 / 12) + 0.04) / 6) * (2 / 3));
    expect((by("backlash")?.standardUncertainty ?? 0) / expected).toBeCloseTo(1, 3);
    expect(by("backlash")?.degreesOfFreedom).toBeCloseTo(6, 6);
    // Rising: a third of the scatter, as a variance, and the setting of the height.
    const height = Math.hypot(expected / Math.sqrt(2), 0.1 / Math.sqrt(12));
    expect(by("focus")?.standardUncertainty ?? 0).toBeCloseTo(height, 2);
  });

  it("says when the play shows, and whether another pass helps", () => {
    const ids = (o: ReturnType<typeof solved>) => o.findings.map((f) => f.id);
    const clear = solved(noted([181, 181.02, 180.98, 181], [180.2, 180.22, 180.18, 180.2]));
    expect(ids(clear)).toContain("backlash");
    expect(clear.findings.find((f) => f.id === "another pass")?.headline).toMatch(/hardly/);
    const few = solved(noted([181, 182.4], [180.2, 181.3]));
    expect(ids(few)).not.toContain("backlash");
    expect(few.findings.find((f) => f.id === "another pass")?.headline).toMatch(/would help/);
  });

  it("names a pass that was noted 5 mm wrong, and holds the height back until it is settled", () => {
    const round = noted([181, 186.1, 180.9, 181.1], [180.5, 180.6, 180.4, 180.5]);
    const outcome = solved(round);
    expect(outcome.findings[0]).toMatchObject({
      tone: "needs you",
      headline: "Reading 2 of the rising passes contradicts the others.",
    });
    expect(outcome.corrections.flatMap((c) => c.rows).some((row) => row.heldBack)).toBe(true);
    const leaveOut = outcome.findings[0]?.suspect?.leaveOut ?? [];
    const without = focus.solve({
      ...historyOf(round),
      decisions: Object.fromEntries(leaveOut.map((key) => [key, "yes"])),
    });
    if (without.status !== "solved") throw new Error(without.status);
    expect(without.findings.some((f) => f.suspect)).toBe(false);
    // Four falling passes are more than three rising ones.
    expect(without.estimates.find((e) => e.id === "focus")?.quantity.value).toBeCloseTo(180.5, 6);
    expect(without.estimates.find((e) => e.id === "rising")?.quantity.value).toBeCloseTo(181, 6);
  });

  it("expects the next pass where the others of its way were, and the first falling one within the play of a screw", () => {
    const next = focus.expected(historyOf(noted([181, 181.1], [180.5])), RISING_SITE);
    // A little toward the falling pass: screws play by little.
    expect(next?.value).toBeLessThan(181.05);
    expect(next?.value).toBeGreaterThan(180.9);
    const first = focus.expected(historyOf(noted([181, 181.1], [])), FALLING_SITE);
    expect(first?.value).toBeCloseTo(181.05, 1);
    expect(first?.standardUncertainty ?? 0).toBeGreaterThan(0.4);
  });

  it("asks for what is missing and refuses what cannot be", () => {
    expect(focus.solve(historyOf(noted([], [])))).toMatchObject({ status: "open" });
    const form = focusPlan(context);
    const read = readDraft(form, { ...draftOf(form, form.defaults), way: "sweep", passes: "1", squareMm: "300" });
    expect(read.ok ? [] : read.issues.map((i) => i.field)).toContain("passes");
    const large = readDraft(form, { ...draftOf(form, form.defaults), way: "sweep", squareMm: "300" });
    expect(large.ok ? [] : large.issues.map((i) => i.field)).toEqual(["squareMm"]);
  });

  it("begins with eyewear for the wavelength", () => {
    expect(focus.round(usualSweep(), context, "measure").checklist[0]).toMatch(/Put on eyewear for 1064 nm before/);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8])("on a practice galvo finds the focus within its uncertainty, seed %i", (seed) => {
    const truth: PracticeTruth = practiceFromSeed(seed, SAMPLE_GALVO);
    const z0 = shownFocus(heightsOf(truth));
    const plan = { ...usualSweep(), lowestMm: Math.round(z0) - 8, highestMm: Math.round(z0) + 8 };
    const { round } = rehearseRound({
      procedure: focus,
      context,
      purpose: "measure",
      gauge: GAUGE,
      truth,
      plan,
      n: 1,
      controller: { table: [], switchedOn: true },
      random: seeded(seed),
      hand: { placingMm: 0.05, commonMm: 0, resolutionMm: 0.1 },
    });
    const rising = solved(round as RoundRecord<FocusPlan>).estimates.find((e) => /rising|focus/.test(e.id));
    if (!rising) throw new Error("no estimate");
    expect(Math.abs(rising.quantity.value - z0)).toBeLessThan(1.6 * expandedUncertainty(rising.quantity));
  });
});
