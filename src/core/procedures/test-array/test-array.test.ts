/** An array from its layout to the settings on the card, on practice stocks, and what is refused of a layout. */
import { describe, expect, it } from "vitest";
import { seeded } from "../../../practice/random";
import { stockResponse } from "../../../practice/stock-response";
import { readAnswer } from "../../../testing/read-answer";
import { SAMPLE_GALVO, SAMPLE_MACHINE, SAMPLE_STOCK } from "../../../testing/sample-machine";
import type { MachineSpec } from "../../machine/machine-spec";
import { gaugeAsUsual } from "../../metrology/gauge";
import type { Answer } from "../../trial/answer";
import { readDraft } from "../../trial/draft";
import type { History, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { arrayCells, inOrder } from "./cells";
import { BEST_SITE, CHARRED_SITE, GOOD_SITE, SCAN_SITE, testArrayRound } from "./coupon";
import { areaOf, needOf } from "./layout";
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

/** As typed. */
function faultsOf(texts: Record<string, string>, context = CO2): Record<string, string> {
  const read = readDraft(testArrayPlan(context), texts);
  return read.ok ? {} : Object.fromEntries(read.issues.map((i) => [i.field, i.message]));
}

function planOf(texts: Record<string, string>, context = CO2): TestArrayPlan {
  const read = readDraft(testArrayPlan(context), texts);
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.plan;
}

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
    [{ speedMmPerS: "3000 6000 9000" }, "speedMmPerS", /Type mm\/min/],
    [{ up: "speedMmPerS" }, "up", /varies from left to right already/],
    [{ blocks: "powerPct" }, "up", /varies inside each block already/],
    [{ cellMm: "1", lineMm: "0.4" }, "cellMm", /narrower than 4 lines/],
    [{ cellMm: "30" }, "cellMm", /needs \d+ × \d+ mm\. The stock is 90 × 90 mm/],
    [{ rowPitchMm: "3" }, "cellMm", /fewer than 3 rows/],
    [{ passes: "1.5" }, "passes", /whole numbers/],
    [{ mostJPerMm2: "0.001" }, "cellMm", /Only 0 cells can be burned.*above the limit/],
    [{ cellMm: "1", gapMm: "0.5", speedMmPerS: many(21), powerPct: many(20) }, "cellMm", /420 cells\. Use at most 400/],
  ])("is refused where it cannot be: %j", (texts, field, message) => {
    expect(faultsOf(texts)[field]).toMatch(message);
  });

  it("takes mm/min where it is typed", () => {
    expect(planOf({ speedMmPerS: "600 1200 2400 mm/min", cellMm: "4" }).speedMmPerS).toEqual([10, 20, 40]);
  });

  it("asks for a card where there is none", () => {
    expect(readDraft(testArrayPlan({ ...CO2, stocks: [] }), {})).toMatchObject({
      ok: false,
      issues: [{ field: "stock", message: expect.stringMatching(/Make a card/) }],
    });
  });

  it("leaves out cells above the limit of the stock, and those whose speed is not reached, and says so", () => {
    const limited = planOf({ ...FIVE, mostJPerMm2: "5" });
    const cells = arrayCells(limited, SAMPLE_MACHINE, "T-1");
    for (const cell of cells) expect(cell.leftOut !== null).toBe(cell.dose.arealJPerMm2 > 5);
    expect(cells.some((c) => c.leftOut)).toBe(true);
    expect(planWarnings(limited, CO2)[0]?.message).toMatch(/left out\. The first: .* J\/mm²/);
    // v^2 = a L: of 6 mm with 1000 mm/s^2 77 mm/s.
    const slow = { ...SAMPLE_MACHINE, accelerationMmPerS2: 1000 };
    const outlined = planOf({ ...FIVE, fill: "outlined" }, contextOn(slow));
    const reached = arrayCells(outlined, slow, "T-1");
    for (const cell of reached) expect(cell.leftOut !== null).toBe(cell.settings.speedMmPerS > Math.sqrt(6000));
    expect(reached.find((c) => c.leftOut)?.leftOut).toMatch(/not reached over 6 mm\. The limit is 77 mm\/s/);
  });

  it("says where pulses stand apart", () => {
    const plan = planOf({ speedMmPerS: "500 1000 1500", pulseKHz: "10", lineMm: "0.06" }, GALVO);
    const cells = arrayCells(plan, SAMPLE_GALVO, "T-1");
    for (const cell of cells) expect(cell.isApart).toBe(cell.settings.speedMmPerS / 10_000 > 0.06);
    expect(planWarnings(plan, GALVO).some((w) => /do not touch each other/.test(w.message))).toBe(true);
  });

  it("burns weak cells first, each pass again, and sets each height once", () => {
    const plan = planOf({ ...FIVE, up: "aboveFocusMm", powerPct: "40", aboveFocusMm: "-2 0 2", passes: "3" });
    const spec = testArrayRound(plan, CO2);
    const cells = arrayCells(plan, SAMPLE_MACHINE, "T-1");
    const order = inOrder(cells).map((c) => c.dose.arealJPerMm2);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    const heights = spec.program.flatMap((op) => (op.kind === "move by hand" ? [op.aboveFocusMm] : []));
    expect(heights).toEqual([-2, 2, 0]);
    for (const { id } of cells)
      expect(spec.program.filter((op) => op.kind === "mark" && op.settings === id)).toHaveLength(3);
  });

  it("mixes places, the same for the same coupon, so that no row has one power alone", () => {
    const plan = planOf({ ...FIVE, order: "mixed" });
    const cells = arrayCells(plan, SAMPLE_MACHINE, "T-1");
    expect(new Set(cells.map((c) => `${c.place.column} ${c.place.row}`)).size).toBe(25);
    for (let row = 0; row < 5; row++)
      expect(new Set(cells.filter((c) => c.place.row === row).map((c) => c.settings.powerPct)).size).toBeGreaterThan(1);
    expect(arrayCells(plan, SAMPLE_MACHINE, "T-1")).toEqual(cells);
    expect(arrayCells(plan, SAMPLE_MACHINE, "T-2")).not.toEqual(cells);
  });

  it("lays cells side by side without overlap, inside what it says it needs", () => {
    const plan = planOf({ ...FIVE, blocks: "passes", passes: "1 2", stockWidthMm: "200" });
    const areas = arrayCells(plan, SAMPLE_MACHINE, "T-1").map((c) => areaOf(plan, c.place));
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
    const burned = arrayCells(of, SAMPLE_MACHINE, "T-1").filter((c) => c.leftOut === null);
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
  const best = Math.max(...arrayCells(plan, SAMPLE_MACHINE, "T-1").map((c) => quality(c.settings)));
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

  it("are never those of a cell that is no good", () => {
    const history = historyOf(round(1, "measure", plan));
    const first = found(history);
    const cell = arrayCells(plan, SAMPLE_MACHINE, "T-1").find(
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

  it("can be tapped: the best cell and all that are as good", () => {
    const byEye = planOf({ ...SIDE, score: "eye" });
    const cells = arrayCells(byEye, SAMPLE_MACHINE, "T-1");
    const good = cells.filter((c) => quality(c.settings) > 0.93 * best).map((c) => c.id);
    const answers = [
      read(BEST_SITE, { kind: "cells", cells: good.slice(0, 1) }),
      read(GOOD_SITE, { kind: "cells", cells: good }),
    ];
    const history = historyOf({ ...round(1, "measure", plan), plan: byEye, spec: testArrayRound(byEye, CO2), answers });
    expect(quality(found(history))).toBeGreaterThan(0.9 * best);
  });
});
