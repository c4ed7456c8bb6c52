/** Widths are made here by the law of one spot, exact to the last digit, with one slip each. */
import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { usualLadder } from "../../../testing/usual-ladder";
import { markWidth, type Spot } from "../../beam/mark-width-law";
import { forecastOf } from "../../course/forecast";
import type { Gauge } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import { type Answer, imaginedReading, PLAIN_SHARES } from "../../trial/answer";
import { leaveOut } from "../../trial/decisions";
import type { History } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { focusRound, widthSite } from "./ladder/coupon";
import { cellsOf, type LadderPlan } from "./plan";
import { focus } from "./procedure";

const GAUGE: Gauge = {
  id: "microscope",
  name: "Microscope",
  kind: "microscope",
  unit: "mm",
  resolutionMm: 0.001,
  limitMm: 0.002,
  placing: { sdMm: 0.003, relativeDoubt: 0.5 },
};
const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "W-1", inForce: {}, gauges: [GAUGE] };
const PLAN: LadderPlan = {
  ...usualLadder(context),
  judged: "by widths",
  marks: "lines",
  doses: "lines",
  firstMm: 6,
  stepMm: 0.5,
  count: 21,
  settableMm: 0.1,
  stockHeightMm: 120,
};
const SPOT: Spot = { z0: 10.8, zR: 1.4, w0: 0.11, lnR: Math.log(5) };

/** @param apartMm waist of lines along X above that of lines along Y */
function historyOf(
  plan: LadderPlan,
  slip: (width: number, site: string) => number = (w) => w,
  apartMm = 0,
): History<LadderPlan> {
  const spec = focusRound(plan, context, "measure");
  const answers = cellsOf(plan).flatMap(({ number, heightMm }) =>
    (plan.marks === "lines both ways" ? (["x", "y"] as const) : (["x"] as const)).flatMap((run): Answer[] => {
      const z0 = SPOT.z0 + (run === "x" ? apartMm : -apartMm) / 2;
      const width = markWidth(heightMm, { ...SPOT, z0 }, 1);
      const site = widthSite(number, run);
      if (width < 0.03) return [];
      return [
        {
          site,
          u: null,
          gauge: GAUGE.id,
          session: "1",
          shares: PLAIN_SHARES,
          from: "typed",
          content: { status: "read", value: { kind: "quantity", value: slip(width, site) } },
        },
      ];
    }),
  );
  return {
    rounds: [{ n: 1, purpose: "measure", plan, spec, inForce: {}, answers }],
    gauges: [GAUGE],
    available: [GAUGE],
    machine: SAMPLE_MACHINE,
    tolerance: 1,
    decisions: {},
  };
}

function solved(history: History<LadderPlan>) {
  const outcome = focus.solve(history as never);
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}
const found = (history: History<LadderPlan>, id = "focus") => {
  const quantity = solved(history).estimates.find((e) => e.id === id)?.quantity;
  if (!quantity) throw new Error(`no ${id}`);
  return quantity;
};
const suspects = (history: History<LadderPlan>) => focus.solve(history as never).findings.filter((f) => f.suspect);

describe("widths of a ladder", () => {
  it("that agree accuse nobody, and say what one of them should be", () => {
    const history = historyOf(PLAN);
    expect(suspects(history)).toEqual([]);
    expect(found(history).value).toBeCloseTo(SPOT.z0, 2);
    const site = widthSite(8);
    const others: History<LadderPlan> = {
      ...history,
      rounds: history.rounds.map((r) => ({ ...r, answers: r.answers.filter((a) => a.site !== site) })),
    };
    const expected = focus.expected(others as never, site);
    expect(expected?.value).toBeCloseTo(markWidth(9.5, SPOT, 1), 3);
    expect(expected?.standardUncertainty).toBeLessThan(0.02);
  });

  it.each([
    ["0.12 mm too wide", (w: number) => w + 0.12],
    ["ten times too wide", (w: number) => 10 * w],
    ["in inches", (w: number) => w / 25.4],
  ])("name the one that is %s, and hold back the height that stands on it", (_, slip) => {
    const wrong = widthSite(7);
    const history = historyOf(PLAN, (w, site) => (site === wrong ? slip(w) : w));
    const [suspect, ...others] = suspects(history);
    expect(suspect?.site).toBe(wrong);
    expect(others).toEqual([]);
    // Left out, the height is as without it.
    const [key] = suspect?.suspect?.leaveOut ?? [];
    expect(key?.startsWith(leaveOut("").key)).toBe(true);
    const without = { ...history, decisions: { [key ?? ""]: "yes" } };
    expect(suspects(without)).toEqual([]);
    expect(Math.abs(found(without).value - SPOT.z0)).toBeLessThan(0.02);
  });

  it("tell before the burn how well the focus will be known", () => {
    const laid = { procedure: focus, plan: PLAN, context, tolerance: 1 } as const;
    const forecast = forecastOf(laid as never);
    expect(forecast?.label).toBe("the focus height");
    expect(forecast?.expanded).toBeGreaterThan(0.03);
    expect(forecast?.expanded).toBeLessThan(0.5);
    expect(forecast?.help).toBeNull();
  });
});

describe("lines both ways", () => {
  const both: LadderPlan = { ...PLAN, marks: "lines both ways" };

  it("show two waists, 0.4 mm apart, and the middle of them; one direction only where it is asked for", () => {
    const history = historyOf(both, undefined, 0.4);
    const outcome = solved(history);
    expect(outcome.findings.find((f) => f.id === "two waists")?.headline).toMatch(
      /^The beam has two waists, 0\.4 ± 0\.\d+ mm apart\.$/,
    );
    expect(found(history).value).toBeCloseTo(SPOT.z0, 2);
    expect(found(history, "widths x").value).toBeCloseTo(SPOT.z0 + 0.2, 2);
    expect(found(history, "widths y").value).toBeCloseTo(SPOT.z0 - 0.2, 2);
    expect(outcome.corrections[0]?.choice?.options.map((o) => o.value).sort()).toEqual([
      "widths",
      "widths x",
      "widths y",
    ]);
    const alongX = { ...history, decisions: { "focus by": "widths x" } };
    expect(found(alongX).value).toBeCloseTo(SPOT.z0 + 0.2, 2);
    expect(solved(alongX).corrections[0]?.rows[0]?.change.value).toBeCloseTo(SPOT.z0 + 0.2, 2);
  });

  it("say nothing of two waists where there is one", () => {
    const outcome = solved(historyOf(both));
    expect(outcome.findings.some((f) => f.id === "two waists")).toBe(false);
    expect(expandedUncertainty(found(historyOf(both)))).toBeLessThan(0.3);
  });

  it("are drawn in the halves of a cell, and are read one direction after the other", () => {
    const { pieces, sites } = focusRound(both, context, "measure");
    const [first] = pieces[0]?.paths.filter((p) => p.settings === "c1") ?? [];
    expect(first).toBeDefined();
    const paths = pieces[0]?.paths.filter((p) => p.settings === "c1") ?? [];
    const isUpright = (p: (typeof paths)[number]) => p.points[0]?.x === p.points[1]?.x;
    expect(paths.filter(isUpright).length).toBeGreaterThan(2);
    expect(paths.filter((p) => !isUpright(p)).length).toBeGreaterThan(2);
    const upright = sites.find((s) => s.id === widthSite(1, "y"));
    if (upright?.measurand.kind !== "width" || upright.measurand.of.kind !== "line") throw new Error("no line");
    expect(upright.measurand.of.along).toBe("y");
    const { within } = upright.measurand.of;
    for (const p of paths) {
      const y = ((p.points[0]?.y ?? 0) + (p.points[1]?.y ?? 0)) / 2;
      expect(y > within.y0 && y < within.y1).toBe(isUpright(p));
    }
  });
});

describe("a ladder of which no width is read", () => {
  it("is looked at around a usual beam in its middle, which may be a third of its length away", () => {
    const history = historyOf(PLAN);
    const [round] = history.rounds;
    if (!round) throw new Error("no round");
    const imagined = cellsOf(PLAN).map(({ number }) =>
      imaginedReading({ site: widthSite(number, "x"), value: 0.2, gauge: GAUGE.id, session: "1" }),
    );
    const model = focus.observe?.(history as never, { ...round, answers: imagined } as never);
    const usual = model?.observations.find((o) => o.isUsual && o.row.z0);
    expect(usual?.u).toBeCloseTo(10 / 3, 9);
    // The beam is as wide above its middle as below: derivatives by the height are opposite there.
    const slopes = model?.observations.flatMap((o) => (o.reading ? [o.row.z0 ?? 0] : [])) ?? [];
    expect(slopes.length).toBeGreaterThan(6);
    expect((slopes[0] ?? 0) / (slopes.at(-1) ?? 0)).toBeCloseTo(-1, 9);
    // Drift along the ladder likewise: none in its middle.
    const drifts = model?.observations.flatMap((o) => (o.reading ? [o.row.drift ?? 0] : [])) ?? [];
    expect((drifts[0] ?? 0) / (drifts.at(-1) ?? 0)).toBeCloseTo(-1, 9);
  });
});

describe("a width beyond the cells that are read", () => {
  it("may be as far off as the law changes within a step; one among them is known better", () => {
    const history = historyOf(PLAN);
    const [round] = history.rounds;
    if (!round) throw new Error("no round");
    const cells = cellsOf(PLAN);
    const zOf = (site: string) => cells.find((c) => widthSite(c.number, "x") === site)?.heightMm ?? Number.NaN;
    const last = 12.5;
    const answers = round.answers.filter((a) => zOf(a.site) <= last && zOf(a.site) !== 11);
    const uAt = (zMm: number) => {
      const cell = cells.find((c) => c.heightMm === zMm);
      const expected = focus.expected(
        { ...history, rounds: [{ ...round, answers }] } as never,
        widthSite(cell?.number ?? 0, "x"),
      );
      return expected?.standardUncertainty ?? Number.NaN;
    };
    const drop = (zMm: number) => Math.abs(markWidth(zMm, SPOT, 1) - markWidth(zMm + PLAN.stepMm, SPOT, 1));
    // Widths that are exact make all readings look as good as the step of their gauge: less than the half of what is expected.
    expect(uAt(13)).toBeGreaterThan(0.3 * drop(13));
    expect(uAt(13)).toBeLessThan(drop(13));
    expect(uAt(11)).toBeLessThan(0.5 * uAt(13));
  });
});
