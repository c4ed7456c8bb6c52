/** A ramp from its layout to the value on the card, what proves it, and what is refused. */
import { describe, expect, it } from "vitest";
import { readAnswer } from "../../../testing/read-answer";
import { SAMPLE_GALVO, SAMPLE_MACHINE, SAMPLE_STOCK } from "../../../testing/sample-machine";
import { messagesOf, typedPlan } from "../../../testing/typed-plan";
import type { MachineSpec } from "../../machine/machine-spec";
import { gaugeAsUsual } from "../../metrology/gauge";
import type { History, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { BEST_SITE, END_SITE, rampRound, START_SITE } from "./coupon";
import type { RampPlan } from "./plan";
import { rampPlan } from "./plan-faults";
import { ramp } from "./procedure";
import { areaOf, needOf, placeOf, segmentsOf, ticksOf, valueAt } from "./strip";

const contextOn = (machine: MachineSpec): PlanContext => ({
  machine,
  couponCode: "T-1",
  inForce: {},
  stocks: [SAMPLE_STOCK],
});
const CO2 = contextOn(SAMPLE_MACHINE);
const EYE = gaugeAsUsual("eye");

const faultsOf = (texts: Record<string, string>, context = CO2) => messagesOf(rampPlan(context), texts);
const planOf = (texts: Record<string, string>, context = CO2) => typedPlan(rampPlan(context), texts);

const POWER = { fromPct: "5", toPct: "80" };
const HEIGHT = { varied: "aboveFocusMm" };

describe("the strip of a ramp", () => {
  it("fits as it is usual, on a gantry and on a galvo, for each setting", () => {
    for (const context of [CO2, contextOn(SAMPLE_GALVO)])
      for (const texts of [POWER, { varied: "speedMmPerS" }, HEIGHT]) expect(faultsOf(texts, context)).toEqual({});
  });

  it("has power by equal ratios: in the middle of 5 to 80 % it is 20 %", () => {
    const plan = planOf(POWER);
    expect(valueAt(plan, 50)).toBeCloseTo(20, 9);
    expect(valueAt(plan, 25)).toBeCloseTo(10, 9);
    expect(placeOf(plan, 40)).toBeCloseTo(75, 9);
    // A segment a mm, each with the value of its middle.
    const segments = segmentsOf(plan);
    expect(segments).toHaveLength(100);
    expect(segments[0]?.value).toBeCloseTo(5 * 16 ** 0.005, 2);
  });

  it("has heights evenly, on a stock that rises to the right by the same", () => {
    const plan = planOf({ ...HEIGHT, fromHeightMm: "4", toHeightMm: "-6" });
    expect(valueAt(plan, 50)).toBeCloseTo(-1, 9);
    const { program, pieces } = rampRound(plan, CO2);
    expect(program.find((op) => op.kind === "prop")).toMatchObject({ tangent: expect.closeTo(0.1, 12) });
    expect(program.find((op) => op.kind === "move by hand")).toMatchObject({ aboveFocusMm: 4 });
    expect(pieces[0]?.settings).toHaveLength(2);
    expect(areaOf(plan, { s0: 0, s1: 100 }).x1 - areaOf(plan, { s0: 0, s1: 100 }).x0).toBeCloseTo(100, 9);
  });

  it("is burned from the weak end, with rising and with falling values", () => {
    const order = (texts: Record<string, string>) =>
      rampRound(planOf(texts), CO2)
        .program.flatMap((op) => (op.kind === "mark" ? [op.settings] : []))
        .slice(0, 2);
    expect(order(POWER)).toEqual(["labels", "s1"]);
    expect(order({ fromPct: "80", toPct: "5" })).toEqual(["labels", "s100"]);
    expect(order({ varied: "speedMmPerS", fromMmPerS: "20", toMmPerS: "200" })).toEqual(["labels", "s100"]);
  });

  it("stays inside the stated size, with a number every 10 mm", () => {
    for (const texts of [{}, HEIGHT]) {
      const plan = planOf(texts);
      const need = needOf(plan);
      const points = rampRound(plan, CO2).pieces.flatMap((p) =>
        p.paths.filter((path) => path.settings !== "labels").flatMap((path) => path.points),
      );
      expect(Math.max(...points.map((p) => p.x))).toBeLessThan(need.widthMm);
      expect(Math.max(...points.map((p) => p.y))).toBeLessThan(need.heightMm);
      const ticks = ticksOf(plan);
      expect(ticks.filter((t) => t.number).map((t) => t.number?.text)).toEqual([
        "0",
        "10",
        "20",
        "30",
        "40",
        "50",
        "60",
        "70",
        "80",
        "90",
        "100",
      ]);
    }
  });
});

describe("what is refused of a ramp", () => {
  it.each([
    [{ fromPct: "20", toPct: "22" }, "toPct", /must be at least 1.3\. Enter a wider range/],
    [{ toPct: "120" }, "toPct", /Full power is 100 %/],
    [{ ...HEIGHT, fromHeightMm: "-2", toHeightMm: "3" }, "toHeightMm", /needs falling heights\. Enter at most −3 mm/],
    [{ ...HEIGHT, fromHeightMm: "30", toHeightMm: "-30" }, "toHeightMm", /rise 60 mm over 100 mm/],
    [{ stockHeightMm: "80" }, "lengthMm", /needs \d+ × \d+ mm.*shorter strip or a larger stock/],
    [{ rowPitchMm: "2 mm" }, "rowPitchMm", /Enter at most 1 mm/],
    [{ varied: "speedMmPerS", toMmPerS: "590", stockAtXMm: "0" }, "toMmPerS", /is not reached beside this stock/],
    [{ stockAtXMm: "880" }, "stockAtXMm", /outside the working area/],
  ])("%j", (texts, field, words) => {
    expect(faultsOf(texts)[field]).toMatch(words);
  });

  it("is a strong end above the charring limit of the stock", () => {
    const context = { ...CO2, stocks: [{ ...SAMPLE_STOCK, mostJPerMm2: 2 }] };
    expect(faultsOf(POWER, context).toPct).toMatch(/More than 2 J\/mm² chars this stock\. Enter a weaker end\./);
  });
});

describe("the best value of a ramp", () => {
  const plan = planOf(POWER);

  function round(
    n: number,
    of: RampPlan,
    read: { best: number[]; start?: number; end?: number },
    purpose: RoundRecord["purpose"] = "measure",
  ): RoundRecord<RampPlan> {
    const place = (site: string, value: number) => readAnswer(site, { kind: "quantity", value }, EYE, "typed");
    return {
      n,
      purpose,
      plan: of,
      spec: rampRound(of, CO2),
      inForce: {},
      answers: [
        ...read.best.map((v) => place(BEST_SITE, v)),
        ...(read.start === undefined ? [] : [place(START_SITE, read.start)]),
        ...(read.end === undefined ? [] : [place(END_SITE, read.end)]),
      ],
    };
  }
  const historyOf = (...rounds: RoundRecord<RampPlan>[]): History<RampPlan> => ({
    rounds,
    gauges: [],
    available: [],
    machine: SAMPLE_MACHINE,
    tolerance: ramp.tolerance.default,
    decisions: {},
  });
  const solved = (history: History<RampPlan>) => {
    const outcome = ramp.solve(history);
    if (outcome.status !== "solved") throw new Error(outcome.status);
    return outcome;
  };
  const first = round(1, plan, { best: [58, 60, 65], start: 30, end: 85 });

  it("by hand: readings 58, 60 and 65 mm on 100 mm from 5 to 80 %", () => {
    // Mean 61 mm: 5 x 16^0.61 = 27.13 %. sd = sqrt((4 x 3^2 + 26) / 6) = 3.215 mm, / sqrt(3) = 1.856 mm; with a step of 0.5 mm 0.144 mm.
    // ln 16 / 100 a mm: 1.8616 x 0.027726 = 5.161 % of 27.13 % = 1.400 %.
    const [best] = solved(historyOf(first)).estimates;
    expect(best?.quantity.value).toBeCloseTo(0.2713, 4);
    expect(best?.quantity.standardUncertainty).toBeCloseTo(0.014, 4);
    expect(best?.quantity.degreesOfFreedom).toBeCloseTo(6.07, 1);
  });

  it("goes onto the stock card with the good range", () => {
    const { forStock } = solved(historyOf(first));
    expect(forStock).toMatchObject({ kind: "marking", purpose: "Engrave dark", stock: SAMPLE_STOCK.key });
    // 5 x 16^0.3 = 11.5, 5 x 16^0.85 = 52.8.
    const said = Object.fromEntries(forStock?.conditions.map((c) => [c.label, c.text]) ?? []);
    expect(said).toMatchObject({ Good: "from 11.5 % to 52.8 %" });
    expect(forStock?.values.map((v) => v.id)).toEqual([
      "powerPct",
      "speedMmPerS",
      "rowPitchMm",
      "passes",
      "aboveFocusMm",
    ]);
    expect(solved(historyOf(round(1, plan, { best: [50] }))).forStock?.conditions).toContainEqual({
      label: "Good",
      text: "on the whole ramp",
    });
  });

  it("is refused if readings contradict each other or are beyond the scale", () => {
    const reason = (read: Parameters<typeof round>[2], of = plan) => {
      const outcome = ramp.solve(historyOf(round(1, of, read)));
      return outcome.status === "unsolvable" ? outcome.reason : outcome.status;
    };
    expect(reason({ best: [60], start: 80 })).toMatch(
      /^The good range starts at 80 mm, after the best point at 60 mm\. Read both/,
    );
    expect(reason({ best: [60], end: 40 })).toMatch(/^The good range ends at 40 mm, before the best point at 60 mm\./);
    expect(reason({ best: [130] })).toMatch(/^The reading 130 mm is beyond the scale\..*Undo this reading/);
    // On a falling ramp the strong end comes first.
    const falling = planOf({ fromPct: "80", toPct: "5" });
    expect(reason({ best: [60], start: 80, end: 40 }, falling)).toBe("solved");
    expect(reason({ best: [60], start: 40 }, falling)).toMatch(/^The good range starts at 40 mm/);
  });

  it("is looked for beyond the end of the ramp, up to full power", () => {
    const at = historyOf(round(1, planOf({ fromPct: "5", toPct: "40" }), { best: [97, 98, 99], start: 60, end: 100 }));
    const end = (history: typeof at) => solved(history).findings.find((f) => f.id === "end")?.text;
    expect(end(at)).toMatch(/^Burn the next ramp\./);
    const next = ramp.next(at, solved(at));
    if (next.do !== "round") throw new Error(next.do);
    expect(next.purpose).toBe("refine");
    expect(next.plan.toPct).toBe(100);
    expect(next.plan.fromPct).toBeGreaterThan(5);
    const full = historyOf(
      round(1, planOf({ fromPct: "10", toPct: "100" }), { best: [97, 98, 99], start: 60, end: 100 }),
    );
    expect(ramp.next(full, solved(full))).toMatchObject({ do: "round", purpose: "proof" });
    expect(end(full)).toMatch(/^The machine and the stock allow no ramp beyond this end\./);
  });

  it("is proved by a narrower ramp in the other direction with the same value", () => {
    const whole = round(1, plan, { best: [58, 60, 62], start: 30, end: 85 });
    const next = ramp.next(historyOf(whole), solved(historyOf(whole)));
    if (next.do !== "round") throw new Error(`${next.do} ${next.why}`);
    expect(next.purpose).toBe("proof");
    expect(next.plan.fromPct).toBeGreaterThan(next.plan.toPct);
    expect(faultsOf({ fromPct: String(next.plan.fromPct), toPct: String(next.plan.toPct) })).toEqual({});
    // Where the first ramp had it: 5 x 16^0.6 = 26.4 %.
    const due = placeOf(next.plan, 5 * 16 ** 0.6);
    expect(due).toBeGreaterThan(55);
    const proof = (off: number) =>
      historyOf(
        whole,
        round(2, next.plan, { best: [due + off, due + off + 1, due + off - 1], start: 90, end: 20 }, "proof"),
      );
    expect(ramp.judge(proof(0))).toMatchObject({ result: "proved" });
    expect(ramp.judge(proof(0))?.lines[0]?.after.value).toBeCloseTo(0, 3);
    // 30 mm of the proof are 15 % of the first range; it runs the other way.
    expect(ramp.judge(proof(-40))).toMatchObject({ result: "not proved" });
    expect(ramp.judge(proof(-30))?.lines[0]?.after.value).toBeCloseTo(0.15, 2);
    // Ramps that contradict each other: their difference is in the uncertainty.
    const contradicting = solved(proof(-40)).estimates[0];
    expect(contradicting?.budget.map((part) => part.id)).toContain("burns");
    expect(contradicting?.quantity.standardUncertainty).toBeGreaterThan(
      4 * (solved(proof(0)).estimates[0]?.quantity.standardUncertainty ?? 0),
    );
    // Both ramps together have a smaller uncertainty than one.
    const u = (history: History<RampPlan>) => solved(history).estimates[0]?.quantity.standardUncertainty ?? Number.NaN;
    expect(u(proof(0))).toBeLessThan(u(historyOf(whole)) / 1.9);
  });

  it("warns of several good points", () => {
    const twice = solved(historyOf(round(1, plan, { best: [30, 70, 32] })));
    expect(twice.findings.map((f) => f.headline)).toContain("The readings of the best point differ by 40 mm.");
  });
});
