import { describe, expect, it } from "vitest";
import { historyOf, readAs, TEST_GAUGE } from "../../../testing/scan-offset-history";
import { analyse } from "./analysis";
import { observeOneByOne, staggerRow } from "./observe";

const SPEEDS = [100, 200, 300, 400, 500];

describe("the line over the speeds", () => {
  it("bows halfway, and not at its ends", () => {
    const bow = (v: number) => staggerRow(v, SPEEDS).bow;
    expect(SPEEDS.map(bow)).toEqual([0, 0.75, 1, 0.75, 0]);
    expect(staggerRow(200, SPEEDS)).toMatchObject({ start: 1, lag: 200, "at 200": 1 });
  });

  it("has no part in a speed that is not on it", () => {
    expect(staggerRow(200, [300, 400, 500])).toEqual({ "at 200": 1 });
  });

  it("follows a drive that bends gently, and keeps lag and constant part of the line through both ends", () => {
    const straight = (v: number) => 0.001 * v - 0.02;
    const bent = (v: number) => straight(v) + 0.04 * Math.sin((Math.PI * (v - 100)) / 400);
    const staggers = Object.fromEntries(SPEEDS.map((v) => [v, bent(v)]));
    const history = historyOf([readAs({ staggers })]);
    const round = history.rounds[0];
    const analysis = round && analyse(history, round);
    for (const speed of analysis?.speeds ?? [])
      expect(Math.abs((speed.byLine?.quantity.value ?? 1) - bent(speed.speedMmPerS))).toBeLessThan(0.006);
    expect(analysis?.lag?.quantity.value).toBeCloseTo(0.001, 4);
    expect(Math.abs((analysis?.constant?.quantity.value ?? 1) + 0.02)).toBeLessThan(0.008);
    expect(analysis?.lineAt?.(350).quantity.value).toBeCloseTo(bent(350), 1);
    expect(Math.abs((analysis?.lineAt?.(350).quantity.value ?? 1) - bent(350))).toBeLessThan(0.008);
  });
});

describe("rows that are longer one way", () => {
  it("move both ends of a block by half of it apart, and one gap by a quarter", () => {
    const gaps = { left: { left: 1.5, right: 1.5 }, right: { left: 1.5, right: 1.5 } };
    const round = readAs({ staggers: { 100: 0.1 }, gaps: { 100: gaps } });
    const rows = observeOneByOne(historyOf([round]), round)?.observations.flatMap((o) => (o.reading ? [o] : []));
    const longer = (point: string) => rows?.find((o) => o.reading?.point === point)?.row.longer;
    expect(longer("v100-right")).toBe(0.5);
    expect(longer("v100-left")).toBe(-0.5);
    expect(longer("gap100-right-right")).toBe(-0.25);
    expect(longer("gap100-left-left")).toBe(0.25);
  });
});

describe("the offset of a direction", () => {
  it("is half of the stagger that the ends of the rows show", () => {
    const round = readAs({ staggers: { 100: 0.1, 200: 0.2, 300: 0.3 } });
    const model = observeOneByOne(historyOf([round]), round);
    const shown = model?.observations.find((o) => o.reading?.point === "v200-right")?.row ?? {};
    const wanted = model?.wanted.find((w) => w.id === "offset 200")?.row ?? {};
    expect(Object.keys(wanted)).toContain("at 200");
    for (const [id, share] of Object.entries(wanted)) expect(share).toBeCloseTo((shown[id] ?? 0) / 2, 12);
  });
});

describe("a reference step", () => {
  it("that was read with another gauge than the row ends says nothing of them", () => {
    const staggers = { 100: 0.1, 200: 0.2, 300: 0.3 };
    const round = readAs({ staggers, reference: 0.51 });
    const rule = { ...TEST_GAUGE, id: "microscope", name: "Microscope", kind: "microscope" as const };
    const elsewhere = {
      ...round,
      answers: round.answers.map((a) => (a.site.startsWith("reference") ? { ...a, gauge: rule.id } : a)),
    };
    const gauges = [TEST_GAUGE, rule];
    const points = (r: typeof round) =>
      new Set(observeOneByOne(historyOf([r], { gauges }), r)?.observations.map((o) => o.reading?.point));
    expect(round.answers.some((a) => a.site.startsWith("reference"))).toBe(true);
    expect([...points(round)].some((p) => p?.startsWith("reference"))).toBe(true);
    expect([...points(elsewhere)].some((p) => p?.startsWith("reference"))).toBe(false);
    const size = observeOneByOne(historyOf([round], { gauges }), round)?.observations.find(
      (o) => o.id === "known scale",
    );
    // A step of 0.5 mm may be 0.1 mm off where it is wrong at all: a fifth of it.
    expect(size).toMatchObject({ y: 0, u: 0.002, wrongBy: 0.1 / round.plan.referenceStepMm });
    // Alone it is read with whatever gauge was used.
    const alone = { ...elsewhere, answers: elsewhere.answers.filter((a) => a.site.startsWith("reference")) };
    expect([...points(alone)].some((p) => p?.startsWith("reference"))).toBe(true);
  });
});
