import { describe, expect, it } from "vitest";
import {
  CALIPERS,
  contextOn,
  historyWith,
  machineWith,
  roundWith,
  solvedWith,
} from "../../../testing/axis-scale-round";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { neededMm } from "../../measuring/baseline";
import { draftOf, readDraft } from "../../trial/draft";
import { observeAxes } from "./observe";
import type { AxisScalePlan } from "./plan";
import { axisScalePlan, planWarnings } from "./plan-faults";
import { axisScale } from "./procedure";
import { AXIS_SCALE } from "./setting";

const X_ALONE = { way: "by hand", axes: "X", spanXMm: 800, caliperReachMm: 2000 } as const;

/** Readouts 6.6 and 1170, the rule reads 1163: 1170 - 6.6 = 1163.4 against 1163. (common practice, no source) */
const BY_READOUT = roundWith({
  plan: X_ALONE,
  read: ({ site }) => ({ "x from": [6.6], "x to": [1170], "x distance": [1163] })[site] ?? null,
});

const first = (outcome: ReturnType<typeof solvedWith>) => {
  const row = outcome.corrections[0]?.rows[0];
  if (!row) throw new Error("nothing to enter");
  return row;
};

describe("the new number of an axis", () => {
  it("goes by the readout: 1163.4 against 1163", () => {
    const outcome = solvedWith([BY_READOUT]);
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(1163 / 1163.4 - 1, 9);
    expect(first(outcome).change.value + 0.00625).toBeCloseTo((0.00625 * 1163) / 1163.4, 12);
    expect(first(outcome).enter).toBe(0.006248);
    expect(first(outcome).arithmetic.join(" ")).toMatch(
      /1163 ÷ 1163.4.*6.2500 × 0.99966 = 6.2479 µm.*6.248.*rounding leaves/,
    );
    expect(outcome.estimates[0]?.budget.map((b) => b.id)).toContain("readout x");
  });

  it("is asked about where a readout 10 mm wrong makes it 3 % off, which no machine is", () => {
    const read = ({ site }: { site: string }) =>
      ({ "x from": [6.6], "x to": [306.6], "x distance": [310] })[site] ?? null;
    const outcome = solvedWith([roundWith({ plan: { ...X_ALONE, spanXMm: 300 }, read })]);
    const asked = outcome.findings.find((f) => f.id === "beyond scale x");
    expect(asked?.headline).toMatch(/3\.333 % is unlikely/);
    expect(solvedWith([BY_READOUT]).findings.map((f) => f.id)).not.toContain("beyond scale x");
  });

  it("divides pulses per mm, and the size of a field where a larger one makes marks longer", () => {
    const read = BY_READOUT.answers;
    const per = machineWith({ unit: "perMm", step: 0.001, sense: -1 });
    const pulses = { ...roundWith({ plan: X_ALONE, machine: per, held: 160, read: () => null }), answers: read };
    // The unit alone says it, whatever was chosen of the machine
    expect(first(solvedWith([pulses], { machine: per })).enter).toBeCloseTo(160.055, 9);
    const field = machineWith({ unit: "mm", step: 0.01, sense: 1 });
    const size = { ...roundWith({ plan: X_ALONE, machine: field, held: 300, read: () => null }), answers: read };
    expect(first(solvedWith([size], { machine: field })).enter).toBeCloseTo(300.1, 9);
    expect(axisScale.sets(size.plan, SAMPLE_MACHINE)).toEqual([AXIS_SCALE.x]);
  });

  it("is worked out with the number that was in force alone, and refused beyond what the controller takes", () => {
    const unknown = solvedWith([{ ...BY_READOUT, inForce: {} }]);
    expect(unknown.corrections).toEqual([]);
    expect(unknown.findings.map((f) => f.headline)).toContain("The setting of X is not read back.");
    expect(axisScale.next(historyWith([{ ...BY_READOUT, inForce: {} }]), unknown)).toMatchObject({
      do: "read",
      why: /Confirm/,
    });
    const machine = machineWith({ range: { low: 0.00625, high: 0.01 } });
    expect(first(solvedWith([BY_READOUT], { machine })).heldBack?.why).toMatch(/the range of this controller/);
  });

  it("of more than a tenth is asked about, inches and a turned piece are named", () => {
    const round = roundWith({ read: ({ nominalMm }) => [nominalMm * 25.4, nominalMm * 25.4] });
    const outcome = solvedWith([round]);
    expect(outcome.findings[0]?.headline).toMatch(/25\.4 times too large/);
    expect(first(outcome).heldBack).toMatchObject({ why: expect.stringMatching(/2440 %/), accept: "accept:x" });
    const meant = { "accept:x": "yes", "accept all 0.03937007874015748": "steps were changed" };
    expect(first(solvedWith([round], { decisions: meant })).heldBack).toBeNull();
    const turned = roundWith({
      plan: { way: "pair", spanXMm: 150, spanYMm: 120, repeats: 1 },
      read: ({ axis }) => [axis === "x" ? 120.05 : 149.93],
    });
    expect(solvedWith([turned]).findings[0]).toMatchObject({ headline: "X and Y look swapped." });
  });
});

describe("ticks", () => {
  const straight = ({ nominalMm }: { nominalMm: number }) => [1.001 * nominalMm + 0.005, 1.001 * nominalMm - 0.005];

  it("may be missing, and are refused out of order", () => {
    const holey = roundWith({ read: (p) => (p.kind === "tick" && p.index === 3 ? null : straight(p)) });
    expect(solvedWith([holey]).estimates[0]?.quantity.value).toBeCloseTo(0.001, 4);
    const mixed = roundWith({
      read: (p) =>
        straight({
          nominalMm: p.kind === "tick" && p.index === 2 ? 90 : p.kind === "tick" && p.index === 3 ? 60 : p.nominalMm,
        }),
    });
    expect(axisScale.solve(historyWith([mixed]))).toMatchObject({
      status: "unsolvable",
      reason: expect.stringMatching(/X, tick 3 reads 60.06 mm, less than tick 2 \(90.09 mm\)/),
    });
  });

  it("show a pulley that runs out, a belt that jumped, a bend, and nothing where there is nothing", () => {
    const plan = { axes: "X", intervals: 20, spanXMm: 300, caliperReachMm: 300 } as const;
    const found = (off: (n: number) => number) =>
      solvedWith([
        roundWith({ plan, read: ({ nominalMm: n }) => [n + off(n) + 0.003, n + off(n) - 0.003] }),
      ]).findings.find((f) => f.id === "strays x")?.text;
    // Residuals to the hundredth, as they would be read
    expect(found((n) => 0.12 * Math.sin((2 * Math.PI * n) / 60))).toMatch(
      /0.1[0-3] mm either way and repeats about every (5[89]|6[0-2]) mm/,
    );
    expect(found((n) => (n >= 165 ? 0.2 : 0))).toMatch(/^All ticks from 165 mm on are 0.(19|20|21) mm too far\./);
    expect(found((n) => 0.4 * (n / 300) ** 2)).toMatch(/middle deviates by 0.(09|10|11) mm/);
    expect(found((n) => 0.002 * n)).toBeUndefined();
  });

  it("approached from both sides show the backlash, which does not change the scale", () => {
    const round = roundWith({
      plan: { axes: "X", approach: "both sides", rows: 2 },
      read: (p) => [p.nominalMm * 1.002 + (p.kind === "tick" && p.side === "down" ? 0.08 : 0)],
    });
    const outcome = solvedWith([round]);
    expect(outcome.estimates.find((e) => e.id === "backlash x")?.quantity.value).toBeCloseTo(0.08, 2);
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(0.002, 4);
    expect(outcome.findings.map((f) => f.id)).toContain("backlash x");
    expect(outcome.estimates.find((e) => e.id === "repeatability x")?.quantity.value).toBeCloseTo(0.08, 6);
  });
});

describe("a cut rectangle", () => {
  it("with its hole tells scale and cut apart: o = sN - k, h = sN + k", () => {
    const round = roundWith({
      plan: { way: "part and hole", axes: "X", spanXMm: 100 },
      read: (p) => (p.kind === "side" ? [p.of === "part" ? 100.2 - 0.24 : 100.2 + 0.24] : null),
    });
    const outcome = solvedWith([round]);
    expect(outcome.estimates.find((e) => e.id === "scale x")?.quantity.value).toBeCloseTo(0.002, 7);
    expect(outcome.estimates.find((e) => e.id === "kerf x")?.quantity.value).toBeCloseTo(0.24, 5);
  });

  it("alone says how far the cut would move the scale, and sides that differ are its form", () => {
    const round = roundWith({
      plan: { way: "part", axes: "X", spanXMm: 100 },
      read: (p) => (p.kind === "side" && p.near === "low" ? [99.9, 99.91] : [99.5, 99.51]),
    });
    // A side that was misread looks the same: the form is named once the readings are accepted.
    const suspect = solvedWith([round]).findings.find((f) => f.suspect);
    expect(solvedWith([round]).findings.some((f) => f.id === "form part x")).toBe(false);
    const accept = suspect?.suspect?.accept ?? "";
    const { findings, estimates } = solvedWith([round], { decisions: { [accept]: "bent stock" } });
    expect(findings.find((f) => f.id === "cut x")?.text).toMatch(/0.1 mm wider or narrower changes it by 0.1 %/);
    expect(findings.find((f) => f.id === "form part x")?.headline).toMatch(/0.40 mm longer near the front/);
    expect(estimates[0]?.helps).toMatch(/stock that cannot move/);
    // Form is not averaged away: the scale is no better than a share of what the sides differ by
    expect(estimates[0]?.budget.find((b) => b.id === "form x")?.standardUncertainty).toBeCloseTo(
      0.4 / Math.sqrt(12) / 100,
      5,
    );
  });
});

it("a part whose two ends are equal has no form of its own", () => {
  const round = roundWith({
    plan: { way: "part", axes: "X", spanXMm: 100 },
    read: (p) => (p.kind === "side" && p.near === "low" ? [99.8, 99.81] : [99.81, 99.8]),
  });
  expect(solvedWith([round]).findings.some((f) => f.id.startsWith("form"))).toBe(false);
});

describe("a proof", () => {
  const read = (ratio: number) => (p: { nominalMm: number }) => [p.nominalMm * ratio, p.nominalMm * ratio];
  const readAfter = (after: number) => [
    roundWith({ plan: { axes: "X" }, read: read(1.004) }),
    roundWith({ plan: { axes: "X" }, read: read(after), purpose: "proof", n: 2 }),
  ];
  const judged = (after: number) => axisScale.judge(historyWith(readAfter(after)));

  it("says whether lengths come out as drawn, and what became of a number that did not work", () => {
    expect(judged(1.0002)).toMatchObject({
      result: "proved",
      unit: "percent",
      lines: [{ label: "Error of length, X" }],
    });
    expect(judged(1.004)).toMatchObject({ result: "not proved", findings: [{ id: "unchanged x" }] });
    expect(judged(1.008)).toMatchObject({ result: "not proved", findings: [{ id: "doubled x" }] });
    expect(judged(1.00095)?.result).toBe("cannot tell");
    expect(judged(1.00095)?.ways[0]?.more).toBe(2);
  });

  it("is read further where it is undecided, and burned again once its values are entered", () => {
    const next = (corrected: boolean) => {
      const [first, proof] = readAfter(1.00095);
      if (!first || !proof) throw new Error("two burns");
      const history = historyWith([first, { ...proof, corrected }]);
      return axisScale.next(history, axisScale.solve(history));
    };
    expect(next(false)).toMatchObject({ do: "read", why: expect.stringMatching(/^Undecided/) });
    expect(next(true)).toMatchObject({ do: "round", purpose: "proof" });
  });
});

describe("a value with an assumed sense", () => {
  const machine = machineWith({ unit: "mm", step: 0.01, sense: -1, senseAssumed: true });
  const read = (ratio: number) => (p: { nominalMm: number }) => [p.nominalMm * ratio, p.nominalMm * ratio];
  const burn = (ratio: number, held: number, n: number) =>
    roundWith({ plan: { axes: "X" }, machine, read: read(ratio), held, n, purpose: n === 1 ? "measure" : "proof" });

  it("uses the assumed sense first, then the sense from two burns", () => {
    const once = solvedWith([burn(1.004, 300, 1)], { machine });
    expect(first(once).enter).toBeCloseTo(301.2, 9);
    expect(first(once).arithmetic.join(" ")).toMatch(/Assumed: a larger value makes marks shorter/);
    // The marks became longer with 301.2 in force, so a larger value makes marks longer.
    const rounds = [burn(1.004, 300, 1), burn(1.008016, 301.2, 2)];
    const twice = solvedWith(rounds, { machine });
    expect(first(twice).enter).toBeCloseTo(301.2 / 1.008016, 1);
    expect(first(twice).arithmetic.join(" ")).toMatch(/Two burns show that a larger value makes marks longer/);
    expect(axisScale.judge(historyWith(rounds, { machine }))?.findings[0]?.text).toMatch(
      /Enter the value from Correct/,
    );
  });
});

describe("a layout that cannot be measured", () => {
  const issues = (changes: Record<string, string>) => {
    const form = axisScalePlan(contextOn(SAMPLE_MACHINE));
    const read = readDraft(form, { ...draftOf(form, form.defaults), ...changes });
    return read.ok ? [] : read.issues;
  };

  it.each([
    ["spanXMm", { spanXMm: "0" }, /more than 0 mm/],
    ["spanXMm", { spanXMm: "200" }, /at most 150 mm/],
    ["spanXMm", { spanXMm: "20", intervals: "2" }, /between 37 and 150 mm/],
    ["spanYMm", { spanYMm: "900", caliperReachMm: "1000" }, /does not fit on Testbed/],
    ["intervals", { intervals: "40" }, /3.5 mm apart/],
    ["stockAtXMm", { stockAtXMm: "800" }, /outside the working area of 900 mm/],
    ["kerfMm", { way: "part", kerfMm: "5" }, /usually 0\.1 to 0\.4 mm/],
  ])("is refused at %s", (field, changes, message) => {
    expect(issues(changes)).toContainEqual({ field, message: expect.stringMatching(message) });
  });

  it("is as long as bed and gauge allow, and differs along X and Y", () => {
    const { defaults } = axisScalePlan(contextOn(SAMPLE_MACHINE));
    expect(defaults).toMatchObject({ spanXMm: 150, spanYMm: 140, gauge: "calipers" });
    const rule = { ...CALIPERS, id: "rule", name: "Rule", kind: "rule" as const, limitMm: 0.2, resolutionMm: 0.5 };
    const long = axisScalePlan({ ...contextOn(SAMPLE_MACHINE), gauges: [rule] }).defaults;
    expect(long.spanXMm).toBeGreaterThan(850);
    expect(long.spanYMm).toBeGreaterThan(530);
    // U = 2 hypot(0.02 / sqrt 3, 0.02 / sqrt 2, 0.01 / sqrt 12 / sqrt 2) = 0.0367 mm: a tenth of a percent of 36.7 mm
    expect(neededMm(CALIPERS, 2, 0.001)).toBeCloseTo(36.7, 1);
    const warned = (plan: Partial<AxisScalePlan>) =>
      planWarnings({ ...defaults, ...plan }, contextOn(SAMPLE_MACHINE)).map((w) => w.message);
    expect(warned({ spanXMm: 140 })[0]).toMatch(/mix-up/);
    expect(warned({ way: "by hand", spanXMm: 50 })[0]).toMatch(/large for a tolerance/);
    expect(warned({ way: "part" })[0]).toMatch(/hole too/);
  });
});

describe("the cut of part and hole before it is seen", () => {
  const cut = (way: AxisScalePlan["way"], kerfMm?: number) => {
    const round = roundWith({
      plan: { way, axes: "X", spanXMm: 100, ...(kerfMm === undefined ? {} : { kerfMm }) },
      read: ({ site }) => (site.startsWith("known") ? [10] : [100]),
    });
    const model = observeAxes(historyWith([round]), round);
    return model?.observations.find(
      (o) => o.reading === null && Object.keys(o.row).some((id) => id.startsWith("kerf")),
    );
  };

  it("is usual between 0.01 and 0.6 mm, which has no part in the result", () => {
    const kerf = cut("part and hole");
    expect(kerf?.isUsual).toBe(true);
    expect(kerf?.y).toBeCloseTo(0.305, 12);
    expect(kerf?.u).toBeCloseTo(0.1475, 12);
  });

  it("of a part alone is what was entered, known to half of it: a rectangle", () => {
    const kerf = cut("part", 0.2);
    expect(kerf?.isUsual).toBeUndefined();
    expect(kerf?.y).toBe(0.2);
    expect(kerf?.u).toBeCloseTo(0.1 / Math.sqrt(3), 12);
  });
});
