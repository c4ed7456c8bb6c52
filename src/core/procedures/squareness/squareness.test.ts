import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import { draftOf, readDraft } from "../../trial/draft";
import type { History, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { observeLean } from "./lean";
import { type SquarenessPlan, squarenessPlan } from "./plan";
import { squareness } from "./procedure";

const RULE: Gauge = gaugeAsUsual("rule");
const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {}, gauges: [RULE] };

function roundWith(read: Record<string, number[]>, changes: Partial<SquarenessPlan> = {}, n = 1) {
  const plan = {
    ...squarenessPlan(context).defaults,
    widthMm: 600,
    heightMm: 450,
    stockAtXMm: 0,
    stockAtYMm: 0,
    ...changes,
  };
  const purpose = n === 1 ? "measure" : "proof";
  const answers = Object.entries(read).flatMap(([site, values]) =>
    values.map(
      (value): Answer => ({
        site,
        u: null,
        gauge: "rule",
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed",
        content: { status: "read", value: { kind: "quantity", value } },
      }),
    ),
  );
  const spec = squareness.round(plan, context, purpose);
  return { n, purpose, plan, spec, inForce: {}, answers } as RoundRecord<SquarenessPlan>;
}

const historyWith = (...rounds: RoundRecord<SquarenessPlan>[]): History<SquarenessPlan> => ({
  rounds,
  gauges: [RULE],
  available: [RULE],
  machine: SAMPLE_MACHINE,
  decisions: {},
  tolerance: squareness.tolerance.default,
});

function solved(...rounds: RoundRecord<SquarenessPlan>[]) {
  const outcome = squareness.solve(historyWith(...rounds));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}

/** A parallelogram whose Y leans by g toward X: its diagonals by adding up its sides as arrows. */
function lengthsFor(g: number, w = 600, h = 450) {
  const up = { x: h * Math.sin(g), y: h * Math.cos(g) };
  return {
    width: [w],
    height: [h],
    first: [Math.hypot(up.x - w, up.y)],
    second: [Math.hypot(up.x + w, up.y)],
  };
}

describe("the lean of Y", () => {
  it("is told by the diagonals, and the right end of the beam comes toward the operator", () => {
    const outcome = solved(roundWith(lengthsFor(0.002), { railsMm: 700 }));
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(Math.sin(0.002), 12);
    expect(outcome.estimates[1]).toMatchObject({ unit: "deg" });
    expect(outcome.adjustments[0]).toMatchObject({
      label: "right end of the beam",
      text: "1.40 mm toward you",
      turns: { byRad: expect.closeTo(-Math.sin(0.002), 12) },
    });
    const left = solved(roundWith(lengthsFor(0.002), { railsMm: 700, end: "left" }));
    expect(left.adjustments[0]?.text).toBe("1.40 mm away from you");
    expect(solved(roundWith(lengthsFor(-0.002))).adjustments[0]?.text).toMatch(/away from you/);
    // Common errors all but cancel between diagonals
    expect(outcome.estimates[0]?.budget.find((b) => b.id === "limit rule")?.standardUncertainty).toBeLessThan(2e-6);
  });

  it("is told by two sides and one diagonal, where a common error stays", () => {
    const { second: _, ...three } = lengthsFor(0.002);
    const outcome = solved(roundWith(three, { way: "triangle" }));
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(Math.sin(0.002), 12);
    expect(outcome.estimates[0]?.budget.find((b) => b.id === "limit rule")?.standardUncertainty).toBeGreaterThan(8e-5);
    // 3, 4, 5 is a right angle (Euclid, Elements I.47)
    const right = solved(
      roundWith({ width: [400], height: [300], first: [500] }, { way: "triangle", widthMm: 400, heightMm: 300 }),
    );
    expect(right.estimates[0]?.quantity.value).toBeCloseTo(0, 12);
    expect(right.adjustments[0]?.text).toBe("leave it");
  });

  it("is not worked out from diagonals that contradict the sides, and much of it is named", () => {
    const wrong = squareness.solve(historyWith(roundWith({ ...lengthsFor(0.002), second: [790] })));
    expect(wrong).toMatchObject({
      status: "unsolvable",
      reason: "The readings contradict each other. Read all points again.",
    });
    expect(solved(roundWith(lengthsFor(0.05))).findings[0]?.id).toBe("far off square");
    const often = Object.fromEntries(Object.entries(lengthsFor(0)).map(([id, v]) => [id, [...v, ...v, ...v, ...v]]));
    expect(solved(roundWith(often)).findings[0]?.id).toBe("square");
    expect(squareness.solve(historyWith(roundWith({ first: [750] })))).toMatchObject({
      status: "open",
      missing: /both diagonals/,
    });
  });

  it("is proved once it is gone, and told where the beam went the wrong way or sprang back", () => {
    const four = (g: number) =>
      Object.fromEntries(Object.entries(lengthsFor(g)).map(([id, v]) => [id, [...v, ...v, ...v, ...v]]));
    const judged = (after: number) =>
      squareness.judge(historyWith(roundWith(four(0.003)), roundWith(four(after), {}, 2)));
    expect(judged(0.0001)).toMatchObject({ result: "proved", unit: "mmPerM", findings: [] });
    expect(judged(0.006)).toMatchObject({ result: "not proved", findings: [{ id: "doubled" }] });
    expect(judged(0.003)).toMatchObject({ result: "not proved", findings: [{ id: "unchanged" }] });
    expect(judged(0.001)?.result).toBe("cannot tell");
  });
});

describe("a rectangle that cannot be measured", () => {
  it.each([
    ["widthMm", { widthMm: "0" }, /more than 0 mm/],
    ["widthMm", { ruleReachMm: "300" }, /reach of Rule is 300 mm/],
    ["widthMm", { widthMm: "800", heightMm: "100" }, /too narrow/],
    ["widthMm", { widthMm: "60", heightMm: "50", repeats: "1" }, /a diagonal of at least \d+ mm/],
    ["stockAtXMm", { stockAtXMm: "800" }, /working area of 900 mm/],
  ])("is refused at %s", (field, changes, message) => {
    const form = squarenessPlan(context);
    const read = readDraft(form, { ...draftOf(form, form.defaults), ...(changes as Record<string, string>) });
    expect(read.ok ? [] : read.issues).toContainEqual({ field, message: expect.stringMatching(message) });
  });

  it("is as large as bed and gauge allow", () => {
    const { defaults } = squarenessPlan(context);
    expect(Math.hypot(defaults.widthMm, defaults.heightMm)).toBeLessThan(1000);
    expect(defaults.widthMm).toBeGreaterThan(700);
  });
});

describe("a side that is not measured", () => {
  it("is as drawn, within what the scale of an axis may be off, and a measured one is not leaned toward it", () => {
    const known = (read: Record<string, number[]>) => {
      const round = roundWith(read);
      return observeLean(historyWith(round), round)?.observations.find((o) => !o.reading && o.row.height);
    };
    const { height, ...without } = lengthsFor(0.002);
    const unmeasured = known(without);
    expect(unmeasured?.isUsual).toBeUndefined();
    expect((unmeasured?.u ?? 0) / 450).toBeCloseTo(0.005, 12);
    expect(known({ ...without, height })?.isUsual).toBe(true);
  });
});

describe("lengths that no parallelogram has", () => {
  it("name the reading that was misread, beside the reason why nothing is worked out", () => {
    const misread = roundWith({ first: [7500, 750.1, 749.9], second: [750, 750.2, 749.8] });
    const outcome = squareness.solve(historyWith(misread));
    expect(outcome.status).toBe("unsolvable");
    const [first] = outcome.status === "open" ? [] : outcome.findings;
    expect(first).toMatchObject({ headline: "Reading 1 of diagonal 1 looks 10 times too large.", site: "first" });
    expect(first?.suspect?.leaveOut).toHaveLength(1);
  });
});
