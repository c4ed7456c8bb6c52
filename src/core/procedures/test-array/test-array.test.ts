/** An array from its layout to the settings on the card, on practice stocks, and what is refused of a layout. */
import { describe, expect, it } from "vitest";
import { seeded } from "../../../practice/random";
import { stockResponse } from "../../../practice/stock-response";
import { readAnswer } from "../../../testing/read-answer";
import { SAMPLE_GALVO, SAMPLE_MACHINE, SAMPLE_STOCK } from "../../../testing/sample-machine";
import { messagesOf, typedPlan } from "../../../testing/typed-plan";
import { colourDifference } from "../../colour/difference";
import { labOfHex } from "../../colour/lab";
import type { MachineSpec } from "../../machine/machine-spec";
import { isAnswerKnown, learnAnswer } from "../../marking/known-answers";
import { comparisonsOf, nextComparison } from "../../marking/next-comparison";
import { gaugeAsUsual } from "../../metrology/gauge";
import { type Answer, valuesAt } from "../../trial/answer";
import { draftOf } from "../../trial/draft";
import type { History, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { askedFields } from "../../trial/plan-table";
import { arrayCells, inOrder } from "./cells";
import {
  BEST_SITE,
  CHARRED_SITE,
  COLOUR_PARTS,
  COMPARISON_SITE,
  colourSiteId,
  GOOD_SITE,
  PASSED_SITE,
  SCAN_SITE,
  testArrayRound,
} from "./coupon";
import { areaOf, labelsOf, needOf } from "./layout";
import type { TestArrayPlan } from "./plan";
import { planWarnings, testArrayPlan } from "./plan-faults";
import { testArray } from "./procedure";

const contextOn = (machine: MachineSpec): PlanContext => ({
  machine,
  couponCode: "T-1",
  inForce: {},
  stocks: [SAMPLE_STOCK],
});
const CO2 = contextOn(SAMPLE_MACHINE);
const GALVO = contextOn(SAMPLE_GALVO);

const EYE = gaugeAsUsual("eye");
const read = (site: string, value: Parameters<typeof readAnswer>[1]) => readAnswer(site, value, EYE, "typed");

/** The same stock with a charring limit, J/mm^2. */
const charring = (mostJPerMm2: number) => ({ ...CO2, stocks: [{ ...SAMPLE_STOCK, mostJPerMm2 }] });

const faultsOf = (texts: Record<string, string>, context = CO2) => messagesOf(testArrayPlan(context), texts);
const planOf = (texts: Record<string, string>, context = CO2) => typedPlan(testArrayPlan(context), texts);

const FIVE = { speedMmPerS: "20 36 63 112 200", powerPct: "10 17 28 48 80" };

describe("the layout of an array", () => {
  it("fits as it is usual, on a gantry and on a galvo", () => {
    expect(faultsOf({})).toEqual({});
    expect(faultsOf({}, GALVO)).toEqual({});
  });

  it.each([
    [{ speedMmPerS: "20 40 40" }, "speedMmPerS", /40 mm\/s occurs twice/],
    [{ speedMmPerS: "20" }, "speedMmPerS", /Enter at least 2 values/],
    [{ rowPitchMm: "0.1 0.2" }, "rowPitchMm", /is on no edge/],
    [{ powerPct: "10 30 W" }, "powerPct", /“W” is not the unit .* Enter the values in %/],
    [{ powerPct: "50 120" }, "powerPct", /Power is 120 %\. Enter at most 100 %/],
    [{ powerPct: "0 50" }, "powerPct", /more than 0 %/],
    [{ speedMmPerS: "3000 6000 9000" }, "speedMmPerS", /Write mm\/min after the last value/],
    [{ up: "speedMmPerS" }, "up", /varies from left to right already/],
    [{ blocks: "powerPct" }, "up", /varies inside each block already/],
    [{ cellMm: "1", lineMm: "0.4" }, "cellMm", /narrower than 4 lines/],
    [{ cellMm: "30" }, "cellMm", /needs \d+ × \d+ mm\. The stock is 90 × 90 mm/],
    [{ rowPitchMm: "3" }, "cellMm", /fewer than 3 rows/],
    [{ passes: "1.5" }, "passes", /whole numbers/],
    [{ cellMm: "1", gapMm: "0.5", speedMmPerS: many(21), powerPct: many(20) }, "cellMm", /420 cells\. Use at most 400/],
  ])("is refused where it cannot be: %j", (texts, field, message) => {
    expect(faultsOf(texts)[field]).toMatch(message);
  });

  it("takes mm/min where it is typed", () => {
    expect(planOf({ speedMmPerS: "600 1200 2400 mm/min", cellMm: "4" }).speedMmPerS).toEqual([10, 20, 40]);
  });

  it("asks for a card where there is none", () => {
    expect(faultsOf({}, { ...CO2, stocks: [] }).stock).toMatch(/Make a stock card/);
  });

  it("leaves out cells above the limit of the stock, and those whose speed is not reached, and says so", () => {
    const limited = planOf(FIVE, charring(5));
    const cells = arrayCells(limited, SAMPLE_MACHINE);
    for (const cell of cells) expect(cell.leftOut !== null).toBe(cell.dose.energy > 5);
    expect(cells.some((c) => c.leftOut)).toBe(true);
    expect(planWarnings(limited, CO2)[0]?.message).toMatch(
      /cannot be burned\. .* is above 5 J\/mm², which chars this stock/,
    );
    expect(faultsOf(FIVE, charring(0.001)).cellMm).toMatch(/Only 0 cells can be burned\. Lay out at least 9/);
    // v^2 = a L: of 6 mm with 1000 mm/s^2 77 mm/s.
    const slow = { ...SAMPLE_MACHINE, accelerationMmPerS2: 1000 };
    const outlined = planOf({ ...FIVE, fill: "outlined", score: "eye" }, contextOn(slow));
    const reached = arrayCells(outlined, slow);
    for (const cell of reached) expect(cell.leftOut !== null).toBe(cell.settings.speedMmPerS > Math.sqrt(6000));
    expect(reached.find((c) => c.leftOut)?.leftOut).toMatch(/not reached over 6 mm\. The limit is 77 mm\/s/);
  });

  it("says where pulses stand apart", () => {
    const plan = planOf({ speedMmPerS: "500 1000 1500", pulseKHz: "10", lineMm: "0.06" }, GALVO);
    const cells = arrayCells(plan, SAMPLE_GALVO);
    for (const cell of cells) expect(cell.isApart).toBe(cell.settings.speedMmPerS / 10_000 > 0.06);
    expect(planWarnings(plan, GALVO).some((w) => /do not touch each other/.test(w.message))).toBe(true);
  });

  it("accepts only rising values, and scans only of filled cells", () => {
    expect(faultsOf({ speedMmPerS: "200 100 300" }).speedMmPerS).toMatch(/100 mm\/s comes after a larger value/);
    expect(faultsOf({ fill: "outlined" }).score).toBe(
      "Darkness is read from filled cells. Choose filled squares, or score by eye.",
    );
    expect(faultsOf({ fill: "cut", score: "eye" })).toEqual({});
  });

  it("labels blocks with their values, above them", () => {
    const plan = planOf({ ...FIVE, blocks: "passes", passes: "1 3", stockWidthMm: "200" });
    const top = Math.max(...labelsOf(plan).map((l) => l.at.y));
    expect(
      labelsOf(plan)
        .filter((l) => l.at.y === top)
        .map((l) => l.text),
    ).toEqual(["1", "3"]);
    expect(top).toBeGreaterThan(Math.max(...arrayCells(plan, SAMPLE_MACHINE).map((c) => areaOf(plan, c.place).y1)));
  });

  it("burns weak cells first, each pass again, and sets each height once", () => {
    const plan = planOf({ ...FIVE, up: "aboveFocusMm", powerPct: "40", aboveFocusMm: "-2 0 2", passes: "3" });
    const spec = testArrayRound(plan, CO2);
    const cells = arrayCells(plan, SAMPLE_MACHINE);
    const order = inOrder(cells).map((c) => c.dose.energy);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    const heights = spec.program.flatMap((op) => (op.kind === "move by hand" ? [op.aboveFocusMm] : []));
    expect(heights).toEqual([-2, 2, 0]);
    for (const { id } of cells)
      expect(spec.program.filter((op) => op.kind === "mark" && op.settings === id)).toHaveLength(3);
  });

  it("burns a drawing of one's own in every cell, as lines or filled with rows", () => {
    // A frame: a square with a hole.
    const drawing = "0,0 1,0 1,1 0,1 z; 0.25,0.25 0.75,0.25 0.75,0.75 0.25,0.75 z";
    expect(faultsOf({ ...FIVE, fill: "own lines", score: "eye" }).drawing).toBe("Choose an SVG file.");
    expect(faultsOf({ ...FIVE, fill: "own filled", drawing, score: "sharpness" }).score).toMatch(
      /read from whole squares/,
    );
    const pathsOf = (fill: string) => {
      const plan = planOf({ ...FIVE, fill, drawing, score: "eye" });
      const [cell] = arrayCells(plan, SAMPLE_MACHINE);
      if (!cell) throw new Error("no cell");
      const [piece] = testArrayRound(plan, CO2).pieces;
      const settings = piece?.settings.find((s) => s.id === cell.id);
      const paths = piece?.paths.filter((p) => p.settings === cell.id) ?? [];
      return { area: areaOf(plan, cell.place), settings, paths };
    };
    const lines = pathsOf("own lines");
    expect(lines.settings).toMatchObject({ use: "line", scan: null });
    expect(lines.paths.map((p) => [p.closed, p.points.length])).toEqual([
      [true, 4],
      [true, 4],
    ]);
    const { area, settings, paths } = pathsOf("own filled");
    expect(settings).toMatchObject({ use: "rows", scan: null });
    expect(settings?.runUpMm).toBeGreaterThan(0);
    const length = paths.reduce((sum, { points: [a, b] }) => sum + Math.abs((a?.x ?? 0) - (b?.x ?? 0)), 0);
    // 6 mm wide, rows 0.1 mm apart, a quarter left out.
    expect(length).toBeCloseTo((36 / 0.1) * 0.75, 0);
    const ways = paths.map(({ points: [a, b] }) => Math.sign((b?.x ?? 0) - (a?.x ?? 0)));
    expect(ways.slice(0, 4)).toEqual([1, -1, 1, -1]);
    for (const { points } of paths)
      for (const { x, y } of points) {
        expect(x).toBeGreaterThanOrEqual(area.x0 - 1e-9);
        expect(x).toBeLessThanOrEqual(area.x1 + 1e-9);
        expect(y).toBeGreaterThan(area.y0);
        expect(y).toBeLessThan(area.y1);
      }
  });

  it("mixes places, the same for the same coupon, so that no row has one power alone", () => {
    const plan = planOf({ ...FIVE, order: "mixed" });
    const cells = arrayCells(plan, SAMPLE_MACHINE);
    expect(new Set(cells.map((c) => `${c.place.column} ${c.place.row}`)).size).toBe(25);
    for (let row = 0; row < 5; row++)
      expect(new Set(cells.filter((c) => c.place.row === row).map((c) => c.settings.powerPct)).size).toBeGreaterThan(1);
    expect(arrayCells(plan, SAMPLE_MACHINE)).toEqual(cells);
    expect(arrayCells({ ...plan, code: "T-2" }, SAMPLE_MACHINE)).not.toEqual(cells);
  });

  it("lays cells side by side without overlap, inside what it says it needs", () => {
    const plan = planOf({ ...FIVE, blocks: "passes", passes: "1 2", stockWidthMm: "200" });
    const areas = arrayCells(plan, SAMPLE_MACHINE).map((c) => areaOf(plan, c.place));
    const { widthMm, heightMm } = needOf(plan);
    for (const [i, a] of areas.entries()) {
      expect(a.x0).toBeGreaterThan(0);
      expect(a.x1).toBeLessThan(widthMm);
      expect(a.y1).toBeLessThan(heightMm);
      for (const b of areas.slice(i + 1))
        expect(a.x1 <= b.x0 || b.x1 <= a.x0 || a.y1 <= b.y0 || b.y1 <= a.y0).toBe(true);
    }
    expect(areas).toHaveLength(50);
  });
});

function many(count: number): string {
  return Array.from({ length: count }, (_, i) => String(2 + i)).join(" ");
}

describe("the settings that an array finds", () => {
  const SIDE = { speedMmPerS: "20 29 43 63 93 136 200", powerPct: "10 14 20 28 40 57 80" };
  const plan = planOf(SIDE);
  const stock = stockResponse("energy", seeded(4), 0.03);
  /** As the stock of this seed answers: power and speed from the middle, in half ranges. */
  const quality = (s: { speedMmPerS: number; powerPct: number }) =>
    stock.quality({ power: Math.log(s.powerPct / 28) / 0.896, speed: Math.log(s.speedMmPerS / 63) / 0.896 });

  function round(
    n: number,
    purpose: RoundRecord["purpose"],
    of: TestArrayPlan,
    bad: string[] = [],
  ): RoundRecord<TestArrayPlan> {
    const spec = testArrayRound(of, CO2);
    const random = seeded(n);
    const burned = arrayCells(of, SAMPLE_MACHINE).filter((c) => c.leftOut === null);
    const scores = burned.map(
      (c) => quality(c.settings) + stock.surface({ x: c.place.column, y: c.place.row }, random),
    );
    const answers: Answer[] = [
      read(SCAN_SITE, { kind: "scores", scores }),
      read(CHARRED_SITE, { kind: "cells", cells: bad }),
    ];
    return { n, purpose, plan: of, spec, inForce: {}, answers };
  }
  const historyOf = (...rounds: RoundRecord<TestArrayPlan>[]): History<TestArrayPlan> => ({
    rounds,
    gauges: [],
    available: [],
    machine: SAMPLE_MACHINE,
    tolerance: testArray.tolerance.default,
    decisions: {},
  });
  const best = Math.max(...arrayCells(plan, SAMPLE_MACHINE).map((c) => quality(c.settings)));
  const found = (history: History<TestArrayPlan>) => {
    const outcome = testArray.solve(history);
    if (outcome.status !== "solved" || !outcome.forStock) throw new Error(outcome.status);
    const value = (id: string) => outcome.forStock?.values.find((v) => v.id === id)?.quantity.value ?? Number.NaN;
    return { outcome, speedMmPerS: value("speedMmPerS"), powerPct: 100 * value("powerPct") };
  };

  it("are good ones, on the card with their conditions, and then burned again with their neighbours", () => {
    const history = historyOf(round(1, "measure", plan));
    const first = found(history);
    expect(quality(first)).toBeGreaterThan(0.95 * best);
    expect(first.outcome.forStock).toMatchObject({ kind: "marking", purpose: "Engrave dark", stock: SAMPLE_STOCK.key });
    expect(first.outcome.forStock?.conditions.map((c) => c.label)).toContain("Energy per area");
    let rounds = history.rounds;
    for (let n = 2; n <= 5; n++) {
      const now = historyOf(...rounds);
      const next = testArray.next(now, testArray.solve(now));
      if (next.do !== "round") break;
      rounds = [...rounds, round(n, next.purpose, next.plan)];
      if (next.purpose === "proof") break;
    }
    const proved = historyOf(...rounds);
    expect(proved.rounds.at(-1)?.purpose).toBe("proof");
    const verdict = testArray.judge(proved);
    expect(verdict?.lines[0]?.after.value).toBeLessThan(0.05);
    expect(quality(found(proved))).toBeGreaterThan(0.95 * best);
  });

  it("say what 10 % off costs, as the stock answers", () => {
    const { outcome, ...settings } = found(historyOf(round(1, "measure", plan)));
    const text = outcome.findings.find((f) => f.id === "sensitivity")?.headline ?? "";
    const said = [...text.matchAll(/(Speed|Power) 10 % off costs about ([\d.]+) %/g)].map((m) => [m[1], Number(m[2])]);
    expect(said.map(([name]) => name)).toEqual(["Speed", "Power"]);
    const lost = (by: Partial<typeof settings>) => (100 * (quality(settings) - quality({ ...settings, ...by }))) / best;
    const truly = [
      Math.max(lost({ speedMmPerS: 0.9 * settings.speedMmPerS }), lost({ speedMmPerS: 1.1 * settings.speedMmPerS })),
      Math.max(lost({ powerPct: 0.9 * settings.powerPct }), lost({ powerPct: 1.1 * settings.powerPct })),
    ];
    said.forEach(([, costs], i) => {
      expect(Math.abs(Number(costs) - Math.max(0, truly[i] ?? Number.NaN))).toBeLessThan(3);
    });
  });

  it("use only responses that a page can calculate beforehand", () => {
    // Other values than in the tests around: the false answers are remembered.
    const of = planOf({ ...SIDE, speedMmPerS: "21 30 44 64 94 137 201" });
    const history = historyOf(round(1, "measure", of), round(2, "proof", of));
    const orders = testArray.responses?.(history) ?? [];
    expect(orders.length).toBe(2);
    // A false answer shows wherever a response is used.
    for (const given of orders) learnAnswer(given, "none good");
    expect(orders.every(isAnswerKnown)).toBe(true);
    expect(testArray.solve(history)).toMatchObject({ reason: expect.stringMatching(/^Every cell is no good/) });
    expect(testArray.judge(history)).toBeNull();
    expect(testArray.next(history, testArray.solve(history))).toMatchObject({
      do: "read",
      why: expect.stringMatching(/^Every cell is no good/),
    });
  });

  it("are never those of a cell that is no good", () => {
    const history = historyOf(round(1, "measure", plan));
    const first = found(history);
    const cell = arrayCells(plan, SAMPLE_MACHINE).find(
      (c) => c.settings.speedMmPerS === first.speedMmPerS && Math.abs(c.settings.powerPct - first.powerPct) < 1e-9,
    );
    const again = found(historyOf(round(1, "measure", plan, [cell?.id ?? ""])));
    expect([again.speedMmPerS, again.powerPct]).not.toEqual([first.speedMmPerS, first.powerPct]);
  });

  it("are missing where no cell shows a mark, and where nothing is read", () => {
    const spec = testArrayRound(plan, CO2);
    const blank = spec.sites.map(({ ask }) => (ask.kind === "scores" ? ask.cells.map(() => 0) : []))[0] ?? [];
    const empty = { ...round(1, "measure", plan), answers: [read(SCAN_SITE, { kind: "scores", scores: blank })] };
    expect(testArray.solve(historyOf(empty))).toMatchObject({
      status: "unsolvable",
      reason: expect.stringMatching(/No cell shows a mark\. Burn another array with more energy/),
    });
    expect(testArray.solve(historyOf({ ...empty, answers: [] }))).toMatchObject({ status: "open" });
  });

  it("use only cells that differ in no other setting", () => {
    const first = round(1, "measure", plan);
    // Rows closer together, and every score half of what it was: another array, not the same one again.
    const half = (value: Answer["content"]) =>
      value.status === "read" && value.value.kind === "scores"
        ? { ...value, value: { ...value.value, scores: value.value.scores.map((s) => (s === null ? null : s / 2)) } }
        : value;
    const other = round(2, "refine", { ...plan, rowPitchMm: [0.05] });
    const halved = { ...other, answers: other.answers.map((a) => ({ ...a, content: half(a.content) })) };
    const alone = found(historyOf(halved));
    const both = found(historyOf(first, halved));
    expect(both.outcome.estimates).toEqual(alone.outcome.estimates);
    const same = found(historyOf(first, round(2, "refine", plan)));
    expect(same.outcome.estimates).not.toEqual(found(historyOf(round(2, "refine", plan))).outcome.estimates);
  });

  it("are proved only by a burn of the chosen cell", () => {
    const first = round(1, "measure", plan);
    const { speedMmPerS, powerPct } = found(historyOf(first));
    const around = (speeds: number[], powers: number[]) => ({ ...plan, speedMmPerS: speeds, powerPct: powers });
    const powers = [powerPct / 1.3, powerPct, powerPct * 1.3];
    const near = round(2, "proof", around([speedMmPerS / 1.3, speedMmPerS, speedMmPerS * 1.3], powers));
    const away = round(2, "proof", around([speedMmPerS / 1.3, speedMmPerS / 1.1, speedMmPerS * 1.3], powers));
    expect(testArray.judge(historyOf(first, near))).not.toBeNull();
    expect(testArray.judge(historyOf(first, away))).toBeNull();
  });

  it("are proved beside the earlier settings of the card, with the loss of these", () => {
    const marked = [
      {
        purpose: "Engrave dark",
        machine: SAMPLE_MACHINE.name,
        settings: { speedMmPerS: 150, powerPct: 60, passes: 1 },
      },
    ];
    const of = (settings: Record<string, number>) => ({
      ...plan,
      from: plan.from && { ...plan.from, marked: [{ ...(marked[0] ?? { purpose: "", machine: "" }), settings }] },
    });
    const proofOf = (settings: Record<string, number>) => {
      const first = historyOf(round(1, "measure", of(settings)));
      let next = testArray.next(first, testArray.solve(first));
      let rounds = first.rounds;
      for (let n = 2; n <= 4 && next.do === "round" && next.purpose !== "proof"; n++) {
        rounds = [...rounds, round(n, next.purpose, next.plan)];
        next = testArray.next(historyOf(...rounds), testArray.solve(historyOf(...rounds)));
      }
      if (next.do !== "round") throw new Error(next.why);
      return { rounds, next };
    };
    const { rounds, next } = proofOf({ speedMmPerS: 150, powerPct: 60, passes: 1 });
    expect([next.plan.speedMmPerS, next.plan.powerPct].map((v) => v.length)).toEqual([4, 4]);
    expect(next.plan.speedMmPerS).toContain(150);
    const proved = historyOf(...rounds, round(rounds.length + 1, "proof", next.plan));
    const said = found(proved).outcome.findings.find((f) => f.id === "before");
    expect(said?.headline).toMatch(
      /^The settings used before are [\d.]+ ± [\d.]+ % short of the best: 150 mm\/s, 60 %\.$/,
    );
    // With other passes the earlier cell is not comparable.
    expect(proofOf({ speedMmPerS: 150, powerPct: 60, passes: 2 }).next.plan.speedMmPerS).toHaveLength(3);
  });

  it("continue beyond an edge, within the limits of the machine", () => {
    // As if every bit of power were welcome.
    const rising = (of: TestArrayPlan): RoundRecord<TestArrayPlan> => {
      const made = round(1, "measure", of);
      const cells = arrayCells(of, SAMPLE_MACHINE).filter((c) => c.leftOut === null);
      const scores = cells.map((c, i) => c.settings.powerPct / 200 + 0.003 * Math.sin(43_758 * (i + 1)));
      return { ...made, answers: [read(SCAN_SITE, { kind: "scores", scores }), ...made.answers.slice(1)] };
    };
    const told = (of: TestArrayPlan) => {
      const history = historyOf(rising(of));
      const outcome = testArray.solve(history);
      const finding = outcome.findings.find((f) => f.id === "edge high");
      return { headline: finding?.headline, next: testArray.next(history, outcome) };
    };
    const open = told(plan);
    expect(open.headline).toBe("The best cell is at the edge of the array: power 80 %.");
    expect(open.next).toMatchObject({ do: "round", purpose: "refine" });
    if (open.next.do === "round") expect(Math.max(...open.next.plan.powerPct)).toBe(100);
    const limited = told(planOf({ ...SIDE, powerPct: "20 40 55 70 80 90 100" }));
    expect(limited.headline).toBe("The best cell is at the limit of the machine: power 100 %.");
    // The proof stays within the limit, with as many cells as a response needs.
    if (limited.next.do !== "round") throw new Error(limited.next.why);
    const { plan: next } = limited.next;
    expect(faultsOf({ ...SIDE, powerPct: next.powerPct.join(" "), speedMmPerS: next.speedMmPerS.join(" ") })).toEqual(
      {},
    );
    expect(next.powerPct.length * next.speedMmPerS.length).toBeGreaterThanOrEqual(9);
    expect(Math.max(...next.powerPct)).toBe(100);
  });

  it("can be found by comparing two cells at a time", () => {
    const compared = planOf({ ...SIDE, score: "comparisons" });
    const spec = testArrayRound(compared, CO2);
    const [site] = spec.sites;
    if (site?.ask.kind !== "comparison") throw new Error("no comparison");
    const { cells } = site.ask;
    expect(site.repeats).toBe(20);
    expect([cells[0]?.u, cells[0]?.v, cells.at(-1)?.u, cells.at(-1)?.v]).toEqual([-1, -1, 1, 1]);
    const settings = arrayCells(compared, SAMPLE_MACHINE);
    const answers: Answer[] = [];
    const comparedTo = (n: number) => {
      while (answers.length < n) {
        const [a, b] = nextComparison(cells, comparisonsOf(cells, valuesAt(answers, COMPARISON_SITE)));
        const [qa, qb] = [a, b].map((i) => quality(settings[i]?.settings ?? { speedMmPerS: 1, powerPct: 1 }));
        const isFirst = (qa ?? 0) >= (qb ?? 0);
        const [better, worse] = (isFirst ? [a, b] : [b, a]).map((i) => cells[i]?.id ?? "");
        answers.push(
          read(COMPARISON_SITE, { kind: "comparison", better: better ?? "", worse: worse ?? "", alike: false }),
        );
      }
      const of: RoundRecord<TestArrayPlan> = { n: 1, purpose: "measure", plan: compared, spec, inForce: {}, answers };
      return historyOf({ ...of, answers: answers.slice(0, n) });
    };
    expect(testArray.solve(comparedTo(4))).toMatchObject({ status: "open", missing: "Make at least 5 comparisons." });
    const whole = comparedTo(20);
    const after = found(whole);
    expect(quality(after)).toBeGreaterThan(0.93 * best);
    expect(after.outcome.forStock?.conditions).toContainEqual({
      label: "Scored by",
      text: expect.stringMatching(/^By eye, two cells at a time/),
    });
    expect(after.outcome.estimates[0]?.quantity.standardUncertainty).toBeGreaterThan(0);
    // A finer array does not improve the eye, so the proof follows, with fewer comparisons.
    const next = testArray.next(whole, after.outcome);
    if (next.do !== "round") throw new Error(next.why);
    expect(next.plan.comparisons).toBe(12);
  });

  it("can be tapped: the best cell and all that are as good", () => {
    const byEye = planOf({ ...SIDE, score: "eye" });
    const cells = arrayCells(byEye, SAMPLE_MACHINE);
    const good = cells.filter((c) => quality(c.settings) > 0.93 * best).map((c) => c.id);
    const answers = [
      read(BEST_SITE, { kind: "cells", cells: good.slice(0, 1) }),
      read(GOOD_SITE, { kind: "cells", cells: good }),
    ];
    const history = historyOf({ ...round(1, "measure", plan), plan: byEye, spec: testArrayRound(byEye, CO2), answers });
    const tapped = found(history);
    expect(quality(tapped)).toBeGreaterThan(0.9 * best);
    // Two cells of 4 % each: U = 1.96 x 0.04 x sqrt(2) = 0.111, and after a second burn 0.078. Taps never are narrower than the eye.
    const short = (of: ReturnType<typeof found>) => of.outcome.estimates.find((e) => e.id === "short")?.quantity;
    expect(short(tapped)).toMatchObject({ value: 0, standardUncertainty: expect.closeTo(0.04 * Math.SQRT2, 9) });
    const again = historyOf(...history.rounds, { ...(history.rounds[0] ?? round(1, "measure", byEye)), n: 2 });
    expect(short(found(again))?.standardUncertainty).toBeCloseTo(0.04, 9);
    expect(tapped.outcome.findings.map((f) => f.id)).toContain("by eye");
    expect(tapped.outcome.findings.map((f) => f.id)).not.toContain("energy");
  });

  it("can be the fastest that are cut through with certainty", () => {
    const cut = planOf({ ...SIDE, fill: "cut", score: "yes or no" });
    const spec = testArrayRound(cut, CO2);
    expect(spec.sites.map((s) => s.question)).toEqual([
      "Which cells are cut through?",
      "Which cells are charred or otherwise no good?",
    ]);
    const cells = arrayCells(cut, SAMPLE_MACHINE);
    const outcome = (passes: (energy: number) => boolean) => {
      const ids = cells.filter((c) => passes(c.dose.energy)).map((c) => c.id);
      return historyOf({
        ...round(1, "measure", plan),
        plan: cut,
        spec,
        answers: [read(PASSED_SITE, { kind: "cells", cells: ids }), read(CHARRED_SITE, { kind: "cells", cells: [] })],
      });
    };
    const energies = cells.map((c) => c.dose.energy).sort((a, b) => a - b);
    const limit = energies[Math.floor(energies.length / 2)] ?? 0;
    const whole = outcome((e) => e > limit);
    const { outcome: solved, ...settings } = found(whole);
    const chosen = cells.find(
      (c) => c.settings.speedMmPerS === settings.speedMmPerS && c.settings.powerPct === settings.powerPct,
    );
    expect(chosen?.dose.energy).toBeGreaterThan(limit);
    expect(solved.estimates[0]).toMatchObject({ label: "Chance that the chosen cell fails" });
    expect(solved.predicted).toMatch(/% of the marks to fail\.$/);
    expect(solved.forStock?.values.map((v) => v.label)).toContain("Chance of failing");
    // Full power is usual for a cut, so its limit needs no finding.
    expect(solved.findings.map((f) => f.id)).not.toContain("energy");
    const fastest = cells.filter((c) => c.dose.energy > limit).map((c) => c.settings.speedMmPerS);
    expect(settings.speedMmPerS).toBeLessThanOrEqual(Math.max(...fastest));
    expect(settings.speedMmPerS).toBeGreaterThan(Math.min(...fastest));
    // The proof: the chosen cell passes once more, or fails.
    const proved = (passes: (energy: number) => boolean) => {
      const [second] = outcome(passes).rounds;
      return testArray.judge(
        historyOf(...whole.rounds, { ...(second ?? round(2, "proof", plan)), n: 2, purpose: "proof" }),
      );
    };
    expect(proved((e) => e > limit)?.advice).toMatch(/^The chosen cell fails with a chance of [\d.]+ ± [\d.]+ %\./);
    expect(proved((e) => e > 4 * limit)).toMatchObject({
      result: "not proved",
      lines: [{ label: "Chance that the chosen cell fails" }],
    });
    // A cut has its purpose, so it is not asked for.
    const asked = (key: string, text: string) => {
      const form = testArrayPlan(CO2);
      const draft = { ...draftOf(form, form.defaults), [key]: text };
      return askedFields(form.fields, (other) => draft[other] ?? "").some((f) => f.key === "purpose");
    };
    expect([asked("fill", "filled"), asked("fill", "cut"), asked("score", "colour")]).toEqual([true, false, false]);
    expect(testArray.solve(outcome(() => false))).toMatchObject({
      status: "unsolvable",
      reason: expect.stringMatching(/^No cell is cut through\. Burn another array with more energy/),
    });
  });

  it("can be those of the nearest colour, with all colours for the palette", () => {
    const coloured = planOf({ ...SIDE, score: "colour", wanted: "#3a62a8" });
    const spec = testArrayRound(coloured, CO2);
    expect(spec.sites.map((s) => s.id)).toEqual(["scan L*", "scan a*", "scan b*", "charred"]);
    const cells = arrayCells(coloured, SAMPLE_MACHINE);
    // From straw to blue as the energy grows.
    const energies = cells.map((c) => Math.log(c.dose.energy));
    const [low, high] = [Math.min(...energies), Math.max(...energies)];
    const heat = energies.map((e) => (e - low) / (high - low));
    const parts = {
      "L*": heat.map((h) => 70 - 30 * h),
      "a*": heat.map((h) => 5 + 10 * Math.sin(3 * h)),
      "b*": heat.map((h) => 35 - 75 * h),
    };
    const answers = [
      ...COLOUR_PARTS.map((of) => read(colourSiteId(of), { kind: "scores", scores: parts[of] })),
      read(CHARRED_SITE, { kind: "cells", cells: [] }),
    ];
    const history = historyOf({ ...round(1, "measure", plan), plan: coloured, spec, answers });
    const { outcome, ...settings } = found(history);
    const wanted = labOfHex("#3a62a8");
    if (!wanted) throw new Error("no colour");
    const far = heat.map((_, i) =>
      colourDifference({ l: parts["L*"][i] ?? 0, a: parts["a*"][i] ?? 0, b: parts["b*"][i] ?? 0 }, wanted),
    );
    const chosen = cells.findIndex(
      (c) =>
        c.settings.speedMmPerS === settings.speedMmPerS && Math.abs(c.settings.powerPct - settings.powerPct) < 1e-9,
    );
    expect(far[chosen] ?? 99).toBeLessThan(Math.min(...far) + 3);
    expect(outcome.estimates[0]).toMatchObject({
      label: "Chosen cell beyond the nearest colour",
      unit: "colourDifference",
    });
    const { palette = [] } = outcome.forStock ?? {};
    expect(palette).toHaveLength(49);
    const differences = palette.map(({ l, a, b }) => colourDifference({ l, a, b }, wanted));
    expect(differences[0]).toBeLessThanOrEqual(Math.min(...differences) + 0.2);
    expect(palette[0]?.settings).toMatch(/mm\/s, .* %$/);
    expect(outcome.findings.map((f) => f.id)).not.toContain("energy");
    expect(planOf({ ...SIDE, score: "colour", whiteCard: "95" }).whiteCard).toBe(95);
    expect(faultsOf({ ...SIDE, score: "colour", wanted: "blue" }).wanted).toBe("Enter a colour, for example #3b5fa3.");
    expect(faultsOf({ ...SIDE, score: "colour", greyCard: "90" }).greyCard).toMatch(
      /^A lighter card is too near to white/,
    );
    expect(faultsOf({ ...SIDE, fill: "outlined", score: "colour" }).score).toMatch(/^Colour is read from filled cells/);
  });
});
