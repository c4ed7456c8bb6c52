import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { historyOf, readAs, TEST_GAUGE, table } from "../../../testing/scan-offset-history";
import { expandedUncertainty } from "../../metrology/measured";
import type { History } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { ScanOffsetPlan } from "./plan";
import { scanOffset } from "./procedure";

function solved(history: History<ScanOffsetPlan>): Extract<Outcome, { status: "solved" }> {
  const outcome = scanOffset.solve(history);
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}
/** All readings at a speed, left out. */
function leftOut(history: History<ScanOffsetPlan>, speedMmPerS: number): Record<string, string> {
  const suspect = solved(history).findings.find((f) => f.id === `suspect place ${speedMmPerS}`)?.suspect;
  return Object.fromEntries((suspect?.leaveOut ?? []).map((key) => [key, "yes"]));
}
const entries = (history: History<ScanOffsetPlan>) => solved(history).corrections[0]?.rows.map((r) => r.enter);
const findings = (history: History<ScanOffsetPlan>) => solved(history).findings.map((f) => f.id);
/** Stagger of a machine 0.5 ms late with 0.02 mm of play. */
const late = (v: number) => 0.001 * v - 0.02;
const LATE = { 100: late(100), 200: late(200), 300: late(300), 400: late(400), 500: late(500) };

describe("scan offset", () => {
  it("adds half the stagger to the entry in force", () => {
    expect(entries(historyOf([readAs({ staggers: LATE })]))).toEqual([0.04, 0.09, 0.14, 0.19, 0.24]);
    const inForce = table([
      [100, 0.1],
      [500, 0.3],
    ]);
    expect(entries(historyOf([readAs({ staggers: LATE, inForce })]))).toEqual([0.14, 0.24, 0.34, 0.44, 0.54]);
  });

  it("shows its sum", () => {
    const row = solved(historyOf([readAs({ staggers: LATE })])).corrections[0]?.rows[2];
    expect(row?.arithmetic[0]).toBe("0.000 + 0.280 ÷ 2 = 0.1400");
    expect(row?.changeText).toBe("+0.280 ÷ 2");
  });

  it("goes the other way where larger entries mark later", () => {
    const machine = {
      ...SAMPLE_MACHINE,
      held: {
        "scan offset": {
          unit: "mm" as const,
          step: 0.001,
          range: null,
          tableKind: "interpolated" as const,
          sense: -1 as const,
        },
      },
    };
    expect(entries(historyOf([readAs({ staggers: LATE })], { machine }))?.[2]).toBe(-0.14);
  });

  describe("with an assumed sense", () => {
    const held = {
      unit: "mm",
      step: 0.001,
      range: null,
      tableKind: "interpolated",
      sense: 1,
      senseAssumed: true,
    } as const;
    const machine = { ...SAMPLE_MACHINE, held: { "scan offset": held } };
    const entered = table([100, 200, 300, 400, 500].map((v) => [v, late(v) / 2] as const));
    const times = (factor: number) =>
      Object.fromEntries(Object.entries(LATE).map(([v, stagger]) => [v, factor * stagger]));
    const burns = (left: number) =>
      historyOf(
        [readAs({ staggers: LATE }), readAs({ staggers: times(left), inForce: entered, purpose: "proof" }, 2)],
        {
          machine,
        },
      );

    it("uses the assumed sense first, and says so", () => {
      const first = historyOf([readAs({ staggers: LATE })], { machine });
      expect(entries(first)).toEqual([0.04, 0.09, 0.14, 0.19, 0.24]);
      expect(findings(first)).toContain("sense assumed");
    });

    it("changes the sign if the stagger doubles, and ends at the right entries", () => {
      expect(entries(burns(2))).toEqual([-0.04, -0.09, -0.14, -0.19, -0.24]);
      expect(findings(burns(2))).toContain("sense learned");
      expect(scanOffset.judge(burns(2))?.findings[0]).toMatchObject({
        id: "reversed",
        text: expect.stringMatching(/Enter the values from Correct/),
      });
    });

    it("keeps the assumed sense if it was right, and learns nothing from an unchanged stagger", () => {
      expect(entries(burns(0.1))?.[4]).toBeCloseTo(0.24 + 0.048 / 2, 9);
      expect(findings(burns(0.1))).toContain("sense learned");
      expect(findings(burns(1))).toContain("sense assumed");
    });

    it("does not change a known sense", () => {
      const said = { ...machine, held: { "scan offset": { ...held, senseAssumed: undefined } } };
      expect(entries({ ...burns(2), machine: said })?.[2]).toBe(0.42);
      expect(findings({ ...burns(2), machine: said })).not.toContain("sense learned");
    });
  });

  it("finds lag and play: S/2 = v tau - B/2", () => {
    const outcome = solved(historyOf([readAs({ staggers: LATE })]));
    const value = (id: string) => outcome.estimates.find((e) => e.id === id)?.quantity.value;
    expect(value("lag")).toBeCloseTo(500e-6, 12);
    expect(value("constant")).toBeCloseTo(-0.01, 9);
    expect(findings(historyOf([readAs({ staggers: LATE })], { gauges: [{ ...TEST_GAUGE, limitMm: 0 }] }))).toContain(
      "backlash",
    );
  });

  it("calls a clearly positive constant part a finding, not play", () => {
    const up = Object.fromEntries([100, 200, 300, 400, 500].map((v) => [v, 0.001 * v + 0.08]));
    expect(findings(historyOf([readAs({ staggers: up })]))).toContain("constant part");
  });

  // Offsets of a typical CO2 gantry, 0.10 0.10 0.11 0.25 0.28 0.30 mm at 100 to 600 mm/s (common practice, no source)
  it("does not force a line through the readings of a typical gantry", () => {
    const typical = { 100: 0.2, 200: 0.2, 300: 0.22, 400: 0.5, 500: 0.56, 600: 0.6 };
    const history = historyOf([readAs({ staggers: typical })], { gauges: [{ ...TEST_GAUGE, limitMm: 0 }] });
    expect(findings(history)).toContain("no line");
    expect(solved(history).corrections[0]?.choice?.chosen).toBe("readings");
    const rows = solved(history).corrections[0]?.rows.map((r) => r.enter) ?? [];
    for (const [i, wanted] of [0.1, 0.1, 0.11, 0.25, 0.28, 0.3].entries()) expect(rows[i]).toBeCloseTo(wanted, 3);
  });

  it("lets the person choose readings or line", () => {
    const history = historyOf([readAs({ staggers: { ...LATE, 300: late(300) + 0.012 } })]);
    expect(solved(history).corrections[0]?.choice?.chosen).toBe("line");
    const byReadings = solved({ ...history, decisions: { table: "readings" } }).corrections[0];
    expect(byReadings?.rows[2]?.enter).toBeCloseTo(0.146, 3);
  });

  it("holds back the entry of a point off the line until it is accepted", () => {
    const history = historyOf([readAs({ staggers: { ...LATE, 400: late(400) + 0.12 } })]);
    const row = solved(history).corrections[0]?.rows[3];
    expect(row?.heldBack?.why).toBe("400 mm/s contradicts the others.");
    expect(findings(history)).toContain("suspect place 400");
    const value = solved(history).corrections[0]?.newValue;
    expect(value?.shape === "table" && value.rows.some((r) => r.at === 400)).toBe(false);
    const accepted = solved({ ...history, decisions: { "accept place 400": "a slack belt" } }).corrections[0]?.rows[3];
    expect(accepted?.heldBack).toBeNull();
    const left = historyOf([...history.rounds], { decisions: leftOut(history, 400) });
    expect(findings(left).some((id) => id.startsWith("suspect"))).toBe(false);
    expect(entries(left)).toEqual([0.04, 0.09, 0.14, 0.24]);
  });

  it("takes out what the gauge always reads too much, by the reference step", () => {
    const wide = Object.fromEntries(Object.entries(LATE).map(([v, s]) => [v, s + 0.018]));
    const without = entries(historyOf([readAs({ staggers: wide })]))?.[2] ?? 0;
    const withStep = entries(historyOf([readAs({ staggers: wide, reference: 0.318 })]))?.[2] ?? 0;
    expect(without - 0.14).toBeCloseTo(0.009, 3);
    expect(Math.abs(withStep - 0.14)).toBeLessThan(0.005);
  });

  it("keeps the common part of the gauge common: repeats do not shrink it below its limit", () => {
    const expanded = (repeats: number) => {
      const row = solved(historyOf([readAs({ staggers: LATE, repeats })])).corrections[0]?.rows[2];
      return row ? expandedUncertainty(row.change) : 0;
    };
    const floor = (1.96 * 0.02) / Math.sqrt(3) / 2;
    expect(expanded(3)).toBeGreaterThan(expanded(20));
    expect(expanded(20)).toBeGreaterThan(floor * 0.99);
  });

  it("says that ends of different row lengths are no matter of scan offset", () => {
    const apart = Object.fromEntries([100, 200, 300].map((v) => [v, { left: 0.2, right: 0.32 }]));
    expect(findings(historyOf([readAs({ staggers: apart })]))).toContain("ends disagree");
    expect(findings(historyOf([readAs({ staggers: LATE })]))).toContain("ends agree");
  });

  it("notices words chosen the wrong way round at one end", () => {
    const slip = { ...LATE, 300: { left: -0.28, right: 0.28 } };
    const said = findings(historyOf([readAs({ staggers: slip })]));
    expect(said[0]).toBe("suspect sign v300-left");
    // One judgement of the ends, not two that contradict each other.
    expect(said.filter((id) => id.startsWith("ends"))).toEqual([]);
  });

  it("works from one speed and one end, and says what it is worth", () => {
    const one = readAs({ staggers: { 300: 0.28 }, repeats: 1 });
    const half = { ...one, answers: one.answers.filter((a) => a.site === "v300-right") };
    const outcome = solved(historyOf([half]));
    expect(outcome.complete).toBe(false);
    expect(outcome.corrections[0]?.rows).toHaveLength(1);
    expect(outcome.corrections[0]?.rows[0]?.enter).toBeCloseTo(0.14, 3);
    expect(outcome.estimates.some((e) => e.id === "lag")).toBe(false);
  });

  it("is open without a reading, and unsolvable while the entry in force is not known", () => {
    const empty = { ...readAs({ staggers: LATE }), answers: [] };
    expect(scanOffset.solve(historyOf([empty]))).toMatchObject({
      status: "open",
      missing: expect.stringMatching(/12 of 12/),
    });
    expect(scanOffset.solve(historyOf([readAs({ staggers: LATE, inForce: null })]))).toMatchObject({
      status: "unsolvable",
    });
  });

  it("cannot tell the entry in force between entries while the kind of table is not known", () => {
    const machine = {
      ...SAMPLE_MACHINE,
      held: {
        "scan offset": {
          unit: "mm" as const,
          step: 0.001,
          range: null,
          tableKind: "not known" as const,
          sense: 1 as const,
        },
      },
    };
    const round = readAs({ staggers: LATE, inForce: table([[100, 0.05]]) });
    const rows = solved(historyOf([round], { machine })).corrections[0]?.rows;
    expect(rows?.[0]?.heldBack).toBeNull();
    expect(rows?.[1]?.heldBack?.why).toMatch(/not known.*page of the machine/);
  });

  it("warns of working speeds without entry where only exact speeds count, with what the line says", () => {
    const machine = {
      ...SAMPLE_MACHINE,
      held: {
        "scan offset": {
          unit: "mm" as const,
          step: 0.001,
          range: null,
          tableKind: "exact speed only" as const,
          sense: 1 as const,
        },
      },
    };
    const finding = solved(historyOf([readAs({ staggers: LATE })], { machine })).findings.find(
      (f) => f.id === "exact speeds",
    );
    expect(finding?.text).toMatch(/150 mm\/s 0\.065 mm/);
  });

  it("builds on nothing where the table did not act, and proves the way work is engraved", () => {
    const round = readAs({ staggers: LATE, way: "bare strokes", inForce: table([[300, 0.5]]) });
    const history = historyOf([round]);
    expect(entries(history)?.[2]).toBe(0.14);
    expect(findings(history)).toContain("did not act");
    expect(scanOffset.next(history, scanOffset.solve(history))).toMatchObject({
      do: "round",
      plan: { way: "closed blocks" },
    });
  });

  it("keeps entries that were not burned, and says so", () => {
    const history = historyOf([readAs({ staggers: LATE, inForce: table([[450, 0.2]]) })]);
    const value = solved(history).corrections[0]?.newValue;
    expect(value?.shape === "table" && value.rows.find((r) => r.at === 450)?.value).toBe(0.2);
    expect(findings(history)).toContain("kept");
  });
});
