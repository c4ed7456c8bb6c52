import { describe, expect, it } from "vitest";
import { fieldMachine, fieldTrial, fieldTruth } from "../../../testing/rehearsal/field-accuracy";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import { opticOf } from "../../machine/part-spec";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import type { HeldSetting, SettingsInForce } from "../../settings/setting";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import { draftOf, readDraft } from "../../trial/draft";
import type { History, RoundRecord } from "../../trial/history";
import { composed } from "./compose";
import { type FieldMap, mapped, unmapped, worstPoint } from "./map";
import { type FieldPlan, keyOf, planWarnings, settableTerms } from "./plan";
import { atWholeField, effectMm } from "./present";
import { galvoField } from "./procedure";
import { endsOf, LENGTHS, type LengthId, lengthsOf, nominalMm } from "./square/lengths";
import { fieldIn } from "./square/observe";

const EXACT: Gauge = {
  id: "r",
  name: "Rule",
  kind: "rule",
  unit: "mm",
  resolutionMm: 0.01,
  limitMm: 0,
  placing: { sdMm: 0.02, relativeDoubt: 0.5 },
};
const CALIPERS: Gauge = gaugeAsUsual("calipers", { id: "c" });
const HALF = 55;

function planWith(change: Partial<FieldPlan>, gauge = EXACT): FieldPlan {
  const context = { machine: SAMPLE_GALVO, couponCode: "T-1", inForce: {}, gauges: [gauge] };
  const usual = galvoField.plan(context).defaults;
  return { ...usual, way: "seven", fieldMm: 110, sideXMm: 103.5, sideYMm: 100, knownMm: 0, repeats: 1, ...change };
}

function historyWith(plan: FieldPlan, read: Readonly<Record<string, number>>, gauge = EXACT, machine = SAMPLE_GALVO) {
  const context = { machine, couponCode: "T-1", inForce: {}, gauges: [gauge] };
  const answers = Object.entries(read).map(
    ([site, value]): Answer => ({
      site,
      content: { status: "read", value: { kind: "quantity", value } },
      u: null,
      gauge: gauge.id,
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
    }),
  );
  const inForce: SettingsInForce = Object.fromEntries(
    settableTerms(plan).map((t) => [keyOf(t), { shape: "scalar", value: t.startsWith("scale") ? 1 : 0 }]),
  );
  const spec = galvoField.round(plan, context, "measure");
  const round: RoundRecord<FieldPlan> = { n: 1, purpose: "measure", plan, spec, inForce, answers };
  const history: History<FieldPlan> = {
    rounds: [round],
    gauges: [gauge],
    available: [gauge],
    machine,
    tolerance: galvoField.tolerance.default,
    decisions: {},
  };
  return { round, history };
}

/** Lengths as a map makes them, worked out here by itself. */
function lengthsBy(map: FieldMap, plan: FieldPlan): Record<string, number> {
  const at = ({ x, y }: { x: number; y: number }) => {
    const [u, v] = [x / HALF, y / HALF];
    const m = (k: keyof FieldMap) => map[k] ?? 0;
    return [
      x + u * (m("scale x") + m("keystone x") * v + m("bow x") * v ** 2 + m("own cubic x") * u ** 2) + m("shear") * v,
      y + v * (m("scale y") + m("keystone y") * u + m("bow y") * u ** 2 + m("own cubic y") * v ** 2),
    ] as const;
  };
  return Object.fromEntries(
    lengthsOf(plan).map((id) => {
      const { from, to } = endsOf(id, plan);
      const [a, b] = [at(from), at(to)];
      return [id, Math.hypot(b[0] - a[0], b[1] - a[1])];
    }),
  );
}

describe("the map of a field", () => {
  it("is inverted by iteration to a millionth of a millimetre", () => {
    const map: FieldMap = {
      "bow x": 1.2,
      "bow y": -2.2,
      "keystone x": 0.3,
      "quadratic y": 0.2,
      shear: -0.4,
      "scale x": 0.9,
    };
    const at = { x: 51, y: -47 };
    const back = unmapped(map, mapped(map, at, HALF), HALF);
    expect(Math.hypot(back.x - at.x, back.y - at.y)).toBeLessThan(1e-6);
    expect(worstPoint((p) => mapped({ "bow y": -2.2 }, p, HALF), HALF).mm).toBeCloseTo(2.2, 9);
  });

  it("agrees with an independent least-squares program on the same lengths", () => {
    // SciPy 1.17.1 (optimize.least_squares), NumPy 2.4.6: the same weights, and both ties of the quadratics as rows.
    const read = {
      "x front": 104.71,
      "x middle": 103.93,
      "x back": 104.95,
      "y left": 98.02,
      "y middle": 100.21,
      "y right": 98.31,
      "diagonal 1": 143.52,
      "diagonal 2": 143.91,
      "x half": 51.99,
      "y half": 50.08,
    };
    const values = { "scale x": 0.2221769, "scale y": 0.1038153, "bow x": 0.6094646, "bow y": -1.2365574 };
    const others = { "keystone x": 0.0642341, "keystone y": 0.0809556, shear: 0.1468885 };
    const u = { "scale x": 0.0261898, "bow y": 0.0365834, "keystone y": 0.0210024, shear: 0.0279819 };
    const { history, round } = historyWith(planWith({}), read);
    const found = fieldIn(history, round);
    if (!found) throw new Error("not solved");
    for (const [term, value] of Object.entries({ ...values, ...others }))
      expect(found.map[term as keyof FieldMap], term).toBeCloseTo(value, 6);
    for (const [term, value] of Object.entries(u))
      expect(found.term(term as keyof FieldMap & "shear").quantity.standardUncertainty, term).toBeCloseTo(value, 6);
  });

  it("is found again from its lengths, with own cubics where quarter ticks are read", () => {
    const seven: FieldMap = { "scale x": 0.4, "scale y": -0.3, "bow x": 1.1, "bow y": -2.1, shear: 0.2 };
    const nine: FieldMap = { ...seven, "own cubic x": 0.3, "own cubic y": -0.2 };
    for (const [way, map] of [
      ["seven", seven],
      ["nine", nine],
    ] as const) {
      const plan = planWith({ way });
      const { history, round } = historyWith(plan, lengthsBy(map, plan));
      const found = fieldIn(history, round);
      for (const [term, mm] of Object.entries(map)) expect(found?.map[term as keyof FieldMap], term).toBeCloseTo(mm, 5);
    }
  });

  it("has the signs of the trade: longer ends are pincushion, a longer back is a keystone, a longer second diagonal leans right", () => {
    const plan = planWith({});
    const right = Object.fromEntries(lengthsOf(plan).map((id) => [id, nominalMm(id, plan)]));
    const map = (change: Record<string, number>) => {
      const { history, round } = historyWith(plan, { ...right, ...change });
      return fieldIn(history, round)?.map ?? {};
    };
    // First order: B = H ((front + back) / (2 middle) - 1) / q^2, q = 50 / 55.
    const bowed = map({ "x front": 104.5, "x back": 104.5 });
    expect(bowed["bow x"]).toBeGreaterThan(0.4);
    // T = H (back - front) / (2 q middle).
    expect(map({ "x front": 103.4, "x back": 103.6 })["keystone x"]).toBeCloseTo(
      (55 * 0.2) / (2 * (50 / 55) * 103.5),
      1,
    );
    // G = H (d2^2 - d1^2) / (4 w h): the law of cosines for a parallelogram.
    const g = map({
      "diagonal 1": nominalMm("diagonal 1", plan) - 0.1,
      "diagonal 2": nominalMm("diagonal 2", plan) + 0.1,
    });
    const [d1, d2] = [nominalMm("diagonal 1", plan) - 0.1, nominalMm("diagonal 2", plan) + 0.1];
    expect(g.shear).toBeCloseTo((55 * (d2 ** 2 - d1 ** 2)) / (4 * 103.5 * 100), 2);
  });
});

const seenAs = (map: FieldMap) => ({
  to: (at: { x: number; y: number }) => mapped(map, at, HALF),
  from: (at: { x: number; y: number }) => unmapped(map, at, HALF),
});

describe("what the controller has to make", () => {
  it("composes with what was in force: adding the change to it leaves more", () => {
    const present: FieldMap = { "bow x": 2, "bow y": -3, "keystone x": 1.5, shear: 1 };
    const found: FieldMap = {
      "bow x": 1.2,
      "bow y": -2.2,
      "scale x": 1.5,
      "scale y": -1,
      "keystone y": 0.6,
      shear: 0.8,
    };
    const terms = settableTerms({ way: "seven" });
    const made = composed(seenAs(found), present, terms, HALF);
    const added = Object.fromEntries(terms.map((t) => [t, (present[t] ?? 0) - (found[t] ?? 0)]));
    const leaving = (controller: FieldMap) => (at: { x: number; y: number }) =>
      mapped(found, unmapped(present, mapped(controller, at, HALF), HALF), HALF);
    const [left, naive] = [made?.controller ?? {}, added].map((c) => worstPoint(leaving(c), HALF).mm);
    expect(left).toBeLessThan(0.5 * (naive ?? 0));
    expect(made?.after({ x: 40, y: 30 })).toEqual(leaving(made?.controller ?? {})({ x: 40, y: 30 }));
  });

  it("leaves only what its form cannot make", () => {
    const terms = settableTerms({ way: "seven" });
    const made = composed(seenAs({ "bow x": 1.1, "bow y": -2.1, "scale x": 0.5, shear: 0.3 }), {}, terms, HALF);
    expect(worstPoint((at) => made?.after(at) ?? at, HALF).mm).toBeLessThan(0.09);
    const own = composed(seenAs({ "quadratic x": 0.2 }), {}, terms, HALF);
    expect(worstPoint((at) => own?.after(at) ?? at, HALF).mm).toBeCloseTo(0.2, 1);
  });
});

describe("the verdict on a field", () => {
  it("shows the errors that remain, with their signs", () => {
    const plan = planWith({ way: "seven" });
    const { history, round } = historyWith(plan, lengthsBy({ "scale x": 0.4, "bow y": -0.3 }, plan));
    const proof = { ...history, rounds: [{ ...round, purpose: "proof" as const }] };
    const remaining = (label: string) =>
      galvoField.judge(proof)?.lines.find((l) => l.label.startsWith(label))?.after.value;
    expect(remaining("Scale X")).toBeCloseTo(0.4, 2);
    expect(remaining("Bow Y")).toBeCloseTo(-0.3, 2);
    expect(galvoField.judge(proof)?.result).toBe("not proved");
  });
});

describe("the scale of a field", () => {
  const plan = planWith({ way: "scale" });
  const read = lengthsBy({ "scale x": 0.55 }, plan);
  const entered = (held: Record<string, HeldSetting>, value: number) => {
    const { history, round } = historyWith(plan, read, EXACT, { ...SAMPLE_GALVO, held });
    const inForce = { ...round.inForce, "field scale x": { shape: "scalar" as const, value } };
    const outcome = galvoField.solve({ ...history, rounds: [{ ...round, inForce }] });
    return outcome.status === "solved" ? (outcome.corrections[0]?.rows[0]?.enter ?? Number.NaN) : Number.NaN;
  };

  it("is multiplied in percent or as a factor, and divided as a size that makes marks smaller", () => {
    // Marks are 1 % too large: 0.55 mm at 55 mm.
    const percent = { unit: "percent", step: 1e-6, range: null, tableKind: "not known", sense: 1 } as const;
    expect(entered({ "field scale x": percent }, 0.98)).toBeCloseTo(0.98 / 1.01, 4);
    const size = { unit: "mm", step: 0.001, range: null, tableKind: "not known", sense: -1 } as const;
    expect(entered({ "field scale x": size }, 110)).toBeCloseTo(110 * 1.01, 1);
    expect(entered({ "field scale x": { ...size, sense: 1 } }, 110)).toBeCloseTo(110 / 1.01, 1);
  });
});

describe("the effect of a coefficient", () => {
  it("is said of the corner of the whole field, and grows with the power of its term", () => {
    const machine = fieldMachine("known");
    const of = (fieldMm: number, term: "bow x" | "keystone y" | "shear") =>
      effectMm({ machine }, { plan: planWith({ fieldMm }) }, term);
    expect(of(110, "bow x")).toBeCloseTo(0.04, 12);
    expect(of(55, "bow x")).toBeCloseTo(0.04 / 8, 12);
    expect(of(55, "keystone y")).toBeCloseTo(0.04 / 4, 12);
    expect(of(55, "shear")).toBeCloseTo(0.04 / 2, 12);
    expect(atWholeField(0.005, { machine }, { plan: planWith({ fieldMm: 55 }) }, "bow x")).toBeCloseTo(0.04, 12);
  });
});

describe("a field read wrongly", () => {
  const plan = planWith({ way: "seven", repeats: 2 }, CALIPERS);
  const map: FieldMap = { "bow x": 1, "bow y": -2.1, "scale x": 0.3, "keystone y": 0.1 };
  const right = lengthsBy(map, plan);
  const solved = (change: Record<string, number>) => {
    const { history } = historyWith(plan, { ...right, ...change }, CALIPERS);
    return galvoField.solve(history);
  };
  const asked = (change: Record<string, number>) =>
    solved(change)
      .findings.filter((f) => f.tone === "needs you" && !f.id.startsWith("range"))
      .map((f) => `${f.headline} ${f.text}`)
      .join(" ");

  it("asks nothing of lengths that are right", () => {
    expect(asked({})).toBe("");
  });

  it("names two lengths that were mixed up", () => {
    const swapped = { "x front": right["y left"] ?? 0, "y left": right["x front"] ?? 0 };
    expect(asked(swapped)).toMatch(/Side along X, front|side along X, front/);
  });

  it("names a diagonal that contradicts the sides", () => {
    expect(asked({ "diagonal 1": (right["diagonal 1"] ?? 0) - 1 })).toMatch(/iagonal/);
  });

  it("enters none of its settings while one of them is held back: they are right together only", () => {
    const known = fieldMachine("known");
    const off = { ...right, "diagonal 1": (right["diagonal 1"] ?? 0) - 1 };
    const outcome = galvoField.solve(historyWith(plan, off, CALIPERS, known).history);
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const rows = outcome.corrections.flatMap((c) => c.rows);
    expect(rows).toHaveLength(7);
    expect(rows.every((row) => row.heldBack !== null)).toBe(true);
    for (const c of outcome.corrections) expect(c.newValue).toEqual({ shape: "scalar", value: c.rows[0]?.old });
    const clean = galvoField.solve(historyWith(plan, right, CALIPERS, known).history);
    expect(clean.status === "solved" && clean.corrections.flatMap((c) => c.rows).some((row) => row.heldBack)).toBe(
      false,
    );
  });

  it("names a reading in inches", () => {
    expect(asked({ "y right": (right["y right"] ?? 0) / 25.4 })).toMatch(/inch/);
  });

  it("says which length it cannot do without", () => {
    const { "x middle": _, ...without } = right;
    const { history, round } = historyWith(plan, without, CALIPERS);
    expect(galvoField.solve(history)).toMatchObject({ status: "open", missing: "Measure mid-line along X." });
    const given: Answer = {
      ...(round.answers[0] as Answer),
      site: "x middle",
      content: { status: "cannot read", why: "burned away" },
    };
    const lost = { ...history, rounds: [{ ...round, answers: [...round.answers, given] }] };
    expect(galvoField.solve(lost)).toMatchObject({
      status: "unsolvable",
      reason: expect.stringMatching(/scale and bow cannot be told apart/),
    });
  });

  it("refuses lengths of no field", () => {
    const impossible = solved({ "diagonal 1": 20, "diagonal 2": 300, "x front": 900, "y left": 2 });
    expect(impossible.status === "unsolvable" || impossible.findings.some((f) => f.tone === "needs you")).toBe(true);
  });
});

describe("the next length of a field", () => {
  const plan = planWith({ way: "seven" }, CALIPERS);
  const right = lengthsBy({ "bow x": 1, "bow y": -2.1, "scale x": 0.3 }, plan);

  it("is predicted by the others, and as drawn before they are enough", () => {
    const { "x half": half = 0, ...others } = right;
    const known = historyWith(plan, others, CALIPERS).history;
    const predicted = galvoField.expected(known, "x half");
    expect(Math.abs((predicted?.value ?? 0) - half)).toBeLessThan(0.1);
    expect(predicted?.standardUncertainty).toBeLessThan(0.3);
    const few = historyWith(plan, { "x front": right["x front"] ?? 0 }, CALIPERS).history;
    expect(galvoField.expected(few, "y left")?.value).toBeCloseTo(100, 9);
    const { "y middle": middle = 0, ...needed } = right;
    const lacking = historyWith(plan, needed, CALIPERS).history;
    expect(Math.abs((galvoField.expected(lacking, "y middle")?.value ?? 0) - middle)).toBeLessThan(3);
  });
});

describe("a plan for a field", () => {
  const lens = opticOf({ label: "F290", focalLengthMm: 290, fieldMm: 200 });
  const context = {
    machine: { ...SAMPLE_GALVO, widthMm: 220, depthMm: 220 },
    couponCode: "T-1",
    inForce: {},
    optic: lens,
  };
  const form = galvoField.plan(context);
  const issues = (change: Record<string, string>, of = context) => {
    const own = galvoField.plan(of);
    const read = readDraft(own, { ...draftOf(own, own.defaults), ...change });
    return read.ok ? [] : read.issues.map((i) => `${i.field}: ${i.message}`);
  };

  it("takes the smallest of angle, plate and controller, and stays inside the number on the plate", () => {
    expect(form.defaults.fieldMm).toBe(190);
    expect(form.defaults).toMatchObject({ focalMm: 290, plateMm: 200 });
    const narrow = galvoField.plan({ ...context, machine: { ...SAMPLE_GALVO, widthMm: 150, depthMm: 150 } });
    expect(narrow.defaults.fieldMm).toBe(150);
    const warned = planWarnings({ ...form.defaults, fieldMm: 200 }, context);
    expect(warned[0]?.message).toMatch(/Near that edge the spot grows/);
    const steep = planWarnings({ ...form.defaults, fieldMm: 190, beamDeg: 15 }, context);
    expect(steep[0]?.message).toMatch(/A beam angle of 15° and a focal length of 290 mm reach 151.8 mm/);
  });

  it("refuses by name a square that does not fit, a diagonal beyond the gauge, a table that is on, a coefficient without a range", () => {
    expect(issues({ sideXMm: "200", fieldMm: "190" }).join()).toMatch(/larger than the working field of 190 mm/);
    expect(issues({ sideXMm: "150", fieldMm: "190" }).join()).toMatch(/Enter between 171 and 180.5 mm/);
    expect(issues({}).join()).toMatch(/gauge: The longest length is 24\d.\d mm/);
    expect(issues({ table: "on" }).join()).toMatch(/Switch the table off/);
    const held = { "field bow x": { unit: "one", step: 1, range: null, tableKind: "not known", sense: 1 } } as const;
    const open = { ...context, machine: { ...context.machine, held } };
    expect(issues({ way: "seven" }, open).join()).toMatch(/range of Bow X is not known/);
  });
});

describe("a field on practice heads", () => {
  it("is proved by the second burn where the effects are known", () => {
    for (const seed of [1, 2, 3, 5]) {
      const { history, before, after } = fieldTrial(seed, { way: "seven", gauge: "calipers", effects: "known" }, 2);
      expect(before).toBeGreaterThan(1.5);
      expect(after[0]).toBeLessThan(0.3);
      expect(galvoField.judge(history)?.result, `seed ${seed}`).toBe("proved");
    }
  });

  it("is proved after some tries where no effect is known, and keeps the effects", () => {
    const { history } = fieldTrial(2, { way: "seven", gauge: "calipers", effects: "not known" }, 5);
    const results = history.rounds.map(
      (_, i) => galvoField.judge({ ...history, rounds: history.rounds.slice(0, i + 1) })?.result ?? "none",
    );
    expect(results[0]).toBe("none");
    expect(results).toContain("proved");
    const first = { ...history, rounds: history.rounds.slice(0, 1) };
    expect(galvoField.next(first, galvoField.solve(first))).toMatchObject({ do: "round", purpose: "tune" });
    const outcome = galvoField.solve(history);
    const learned = outcome.status === "solved" ? outcome.learned : {};
    // A coefficient whose error was good from the beginning was never tried.
    expect(Object.keys(learned)).toContain("effect, mm: field bow y");
    const effect = learned["effect, mm: field bow y"] ?? 0;
    // As the hidden head has it, with its sign; its response is curved by up to 10 %.
    const truly = fieldTruth(2, fieldMachine("not known")).head.responses["bow y"]?.perUnitMm ?? 0;
    expect(effect / truly).toBeGreaterThan(0.85);
    expect(effect / truly).toBeLessThan(1.15);
  });

  it("holds every setting that it may correct", () => {
    const machine = fieldMachine("known");
    expect(Object.keys(machine.held).sort()).toEqual([...galvoField.settings.map((s) => s.key)].sort());
    expect(Object.keys(LENGTHS)).toContain("x quarter" satisfies LengthId);
  });
});
