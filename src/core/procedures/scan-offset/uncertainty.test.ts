/** Where the uncertainty of a scan offset comes from, what makes it smaller, and what to do where a verdict cannot be told. */
import { describe, expect, it } from "vitest";
import { historyOf, readAs, TEST_GAUGE, table } from "../../../testing/scan-offset-history";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import type { History } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import { REFERENCE_SITES } from "./coupon";
import type { ScanOffsetPlan } from "./plan";
import { scanOffset } from "./procedure";
import { judgeScanOffset } from "./proof";

const LATE = { 100: 0.08, 200: 0.18, 300: 0.28, 400: 0.38, 500: 0.48 };
const MICROSCOPE: Gauge = gaugeAsUsual("microscope", { id: "m" });

type Solved = Extract<Outcome, { status: "solved" }>;
const solved = (history: History<ScanOffsetPlan>): Solved => {
  const outcome = scanOffset.solve(history);
  if (outcome.status !== "solved") throw new Error(outcome.status);
  return outcome;
};
const estimate = (outcome: Solved, id: string) => {
  const found = outcome.estimates.find((e) => e.id === id);
  if (!found) throw new Error(`no estimate ${id}`);
  return found;
};
/** Readings of the same sites with another gauge, in a later session. */
const again = (gauge: Gauge, more: number, times: number): Answer[] =>
  Object.entries(LATE).flatMap(([v, stagger]) =>
    ["left", "right"].flatMap((end) =>
      Array.from(
        { length: times },
        (_, i): Answer => ({
          site: `v${v}-${end}`,
          content: { status: "read", value: { kind: "quantity", value: stagger + more + 0.002 * (i % 2) } },
          u: null,
          gauge: gauge.id,
          session: "later",
          shares: PLAIN_SHARES,
          from: "typed",
        }),
      ),
    ),
  );

describe("the budget of an offset", () => {
  it("names placing, limit, zero and the drawn step, and adds up to the whole", () => {
    const outcome = solved(historyOf([readAs({ staggers: LATE, reference: 0.3 })]));
    const { budget, quantity } = estimate(outcome, "offset 300");
    expect(budget.map((p) => p.label)).toEqual([
      "Repeatability, calipers",
      "Departure from the line",
      "Drawn size of the reference step",
      "Limit of error, calipers",
      "Zero of the outside jaws, calipers",
    ]);
    expect(Math.hypot(...budget.map((p) => p.standardUncertainty))).toBeCloseTo(quantity.standardUncertainty, 12);
    expect(budget[0]).toMatchObject({ kind: "A" });
  });

  it("has no zero where the gauge has no jaws, and calls scatter from experience alone type B", () => {
    const gauge = { ...TEST_GAUGE, kind: "microscope" as const };
    const outcome = solved(
      historyOf([readAs({ staggers: LATE, repeats: 1 })], { gauges: [gauge], available: [gauge] }),
    );
    const { budget } = estimate(outcome, "offset 300");
    expect(budget.some((p) => p.label.startsWith("Zero"))).toBe(false);
    expect(budget.find((p) => p.label.startsWith("Repeatability"))).toMatchObject({ kind: "B" });
  });

  it("does not shrink the limit of error with repeats, but does with a reference step", () => {
    const limit = (repeats: number, reference?: number) =>
      estimate(solved(historyOf([readAs({ staggers: LATE, repeats, reference })])), "offset 300").budget.find((p) =>
        p.label.startsWith("Limit"),
      )?.standardUncertainty ?? 0;
    expect(limit(9)).toBeGreaterThan(0.9 * limit(3));
    expect(limit(9, 0.3)).toBeLessThan(0.6 * limit(9));
  });

  it("leaves the common error out of the lag, which is a difference", () => {
    const { budget } = estimate(solved(historyOf([readAs({ staggers: LATE })])), "lag");
    const limit = budget.find((p) => p.label.startsWith("Limit"))?.standardUncertainty ?? 0;
    expect(limit).toBeLessThan(0.02 * (budget[0]?.standardUncertainty ?? 0));
  });

  it("says what helps most, and that it would", () => {
    const history = historyOf([readAs({ staggers: LATE, repeats: 1 })], { available: [TEST_GAUGE, MICROSCOPE] });
    const before = estimate(solved(history), "offset 300");
    expect(before.helps).toMatch(/with the microscope picture\. Expect ± 0\.00\d+ mm\./);
    const alone = estimate(solved({ ...history, available: [TEST_GAUGE] }), "offset 300");
    expect(alone.helps).toMatch(/^Read the reference step twice at each end\. Expect ± 0\.00\d+ mm/);
  });

  it("with two readings of an unknown gauge has one degree of freedom and says that more readings help most", () => {
    const gauge = { ...TEST_GAUGE, limitMm: 0, kind: "scan" as const, placing: null };
    const read = readAs({ staggers: { 300: 0.28 }, repeats: 2 });
    const answers = read.answers.filter((a) => a.site === "v300-left");
    const history = historyOf([{ ...read, answers }], { gauges: [gauge], available: [gauge] });
    const { budget, helps } = estimate(solved(history), "offset 300");
    expect(budget.find((p) => p.label.startsWith("Repeatability"))?.degreesOfFreedom).toBeCloseTo(1, 2);
    expect(helps).toMatch(/Read each row end twice more/);
  });
});

describe("readings on top of a table", () => {
  it("lie on one line with what the table took off, however crooked the table is", () => {
    const crooked = table([
      [100, 0.02],
      [200, 0.09],
      [300, 0.1],
      [400, 0.19],
      [500, 0.2],
    ]);
    const left = Object.fromEntries(
      Object.entries(LATE).map(([v, s]) => [v, s - 2 * (crooked.rows.find((r) => r.at === Number(v))?.value ?? 0)]),
    );
    const outcome = solved(historyOf([readAs({ staggers: left, inForce: crooked })]));
    expect(estimate(outcome, "lag").quantity.value).toBeCloseTo(500e-6, 9);
    expect(outcome.corrections[0]?.choice?.chosen).toBe("line");
    for (const row of outcome.corrections[0]?.rows ?? []) expect(row.enter).toBeCloseTo(LATE[row.at as 100] / 2, 6);
  });
});

describe("a second sitting", () => {
  const measured = readAs({ staggers: LATE, repeats: 1 });
  const both = (more: number, gauge = MICROSCOPE) =>
    historyOf([{ ...measured, answers: [...measured.answers, ...again(gauge, more, 2)] }], {
      gauges: [TEST_GAUGE, gauge],
      available: [TEST_GAUGE, gauge],
    });

  it("with a finer gauge counts for more, and the uncertainty shrinks", () => {
    const before = estimate(solved(historyOf([measured])), "offset 300").quantity;
    const after = estimate(solved(both(0.01)), "offset 300").quantity;
    expect(expandedUncertainty(after)).toBeLessThan(0.4 * expandedUncertainty(before));
    expect(after.value).toBeCloseTo(0.145, 2);
  });

  it("that disagrees beyond both uncertainties is a finding, one that agrees is not", () => {
    const found = (history: History<ScanOffsetPlan>) => solved(history).findings.filter((f) => f.suspect);
    expect(found(both(0.01))).toEqual([]);
    expect(found(both(0.06))).toMatchObject([
      {
        tone: "needs you",
        headline: expect.stringMatching(/^The readings with the (microscope picture|calipers) contradict the others/),
      },
    ]);
    // One gauge cancels its limit of error, so that less is enough.
    expect(found(both(0.03, { ...TEST_GAUGE }))[0]?.headline).toMatch(/^The readings with the calipers contradict/);
  });
});

describe("an undecided verdict", () => {
  const givenUp = Object.values(REFERENCE_SITES).map(
    (site): Answer => ({
      site,
      u: null,
      gauge: TEST_GAUGE.id,
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
      content: { status: "cannot read", why: "burned away" },
    }),
  );
  const proof = (left: number, repeats = 1) => {
    const round = readAs({ staggers: { 100: left, 300: left, 500: left }, purpose: "proof", repeats }, 2);
    return { ...round, answers: [...round.answers, ...givenUp] };
  };
  const history = (left: number, more: Partial<History<ScanOffsetPlan>> = {}) =>
    historyOf([proof(left)], {
      tolerance: 0.03,
      gauges: [{ ...TEST_GAUGE, limitMm: 0.005, placing: { sdMm: 0.02, relativeDoubt: 0.5 } }],
      ...more,
    });

  it("says how many more readings are expected to settle it, and they do", () => {
    const verdict = judgeScanOffset(history(0.01));
    expect(verdict?.result).toBe("cannot tell");
    const way = verdict?.ways[0];
    expect(way).toMatchObject({ gauge: null });
    expect(way?.text).toMatch(/readings\): ± 0\.0\d+ mm is then expected, and proved if they agree/);
    const more = proof(0.01, 1 + (way?.more ?? 0));
    const isOfAll = (a: Answer, i: number) => i % (1 + (way?.more ?? 0)) === 0 || a.content.status === "cannot read";
    const spread = more.answers.filter((a, i) => isOfAll(a, i) || way?.sites.includes(a.site));
    const settled = judgeScanOffset({ ...history(0.01), rounds: [{ ...more, answers: spread }] });
    expect(settled?.result).toBe("proved");
  });

  it("names another gauge where that is cheaper, and lists the cheapest first", () => {
    const verdict = judgeScanOffset(history(0.01, { available: [TEST_GAUGE, MICROSCOPE], tolerance: 0.022 }));
    expect(verdict?.ways.length).toBeGreaterThan(1);
    expect(verdict?.ways[0]).toMatchObject({ gauge: MICROSCOPE.id, more: 1 });
    const readings = verdict?.ways.map((w) => Number(/\((\d+) readings\)/.exec(w.text)?.[1])) ?? [];
    expect(readings).toEqual([...readings].sort((a, b) => a - b));
  });

  it("says so when no number of readings helps", () => {
    const verdict = judgeScanOffset(history(0.0299));
    expect(verdict?.ways).toEqual([]);
    expect(verdict?.advice).toMatch(/More readings with these gauges cannot decide a tolerance of 0\.030 mm/);
  });

  it("speaks the unit of the screen", () => {
    const verdict = judgeScanOffset(history(0.01, { decisions: { "length unit": "thou" } }));
    expect(verdict?.advice).toMatch(/thou at \d+ mm\/s/);
  });
});

describe("a check", () => {
  const check = (left: number) =>
    readAs({ staggers: { 100: left, 300: left, 500: left }, purpose: "check", reference: 0.3 });
  const judged = (left: number) => judgeScanOffset(historyOf([check(left)], { tolerance: 0.05 }));

  it("holds or does not, and keeps what was found at the fastest speed", () => {
    expect(judged(0.004)).toMatchObject({ result: "proved", headline: "Still valid" });
    expect(judged(0.12)).toMatchObject({
      result: "not proved",
      headline: "No longer valid",
      asFound: { label: "stagger at 500 mm/s" },
    });
    expect(judged(0.12)?.asFound.quantity.value).toBeCloseTo(0.12, 2);
  });

  it("ends where it holds, and leads to a correction and a proof where it does not", () => {
    const next = (left: number) => {
      const history = historyOf([check(left)], { tolerance: 0.05 });
      return scanOffset.next(history, scanOffset.solve(history));
    };
    expect(next(0.004)).toMatchObject({ do: "stop" });
    expect(next(0.12)).toMatchObject({ do: "round", purpose: "proof" });
  });

  it("is laid out at the slowest, the middle and the fastest speed that were proved", () => {
    const plan = scanOffset.checkPlan(
      { ...readAs({ staggers: LATE }).plan, speedsMmPerS: [400, 100, 300, 200, 500] },
      { machine: historyOf([]).machine, couponCode: "T", inForce: {} },
    );
    expect(plan).toMatchObject({ speedsMmPerS: [100, 300, 500], repeats: 2 });
  });
});
