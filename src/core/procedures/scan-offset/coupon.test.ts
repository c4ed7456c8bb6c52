/** The coupon as it is laid out, sent and shown close up, over random plans. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { historyOf, readAs, table } from "../../../testing/scan-offset-history";
import { settingsOf } from "../../coupon/piece";
import { scanRows } from "../../coupon/scan-rows";
import type { PlanContext } from "../../trial/plan-form";
import { checkPlan } from "./check-plan";
import { REFERENCE_SITES, scanOffsetRound, siteId } from "./coupon";
import { compensatedMm, entryInForce } from "./in-force";
import { placesOf, SPACING_MM, usedHeightMm, WITNESS_ROWS } from "./layout";
import { asSent } from "./own-compensation";
import { SCAN_OFFSET, type ScanOffsetPlan, type Way } from "./plan";
import { CAUTIOUS_ACCELERATION_MM_PER_S2, runUpMm, scanOffsetPlan } from "./plan-faults";
import { scanOffset } from "./procedure";

const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
const usual = scanOffsetPlan(context).defaults;
const outlined: ScanOffsetPlan = { ...usual, outline: "each block", stockHeightMm: 130, rowsPerBlock: 4 };

/** Plans that their own form accepts. */
const plans = fc
  .record({
    way: fc.constantFrom<Way>("closed blocks", "own strokes", "bare strokes"),
    speeds: fc.uniqueArray(fc.integer({ min: 20, max: 600 }), { minLength: 1, maxLength: 6 }),
    rowLengthMm: fc.integer({ min: 20, max: 60 }),
    rowPitchMm: fc.constantFrom(0.5, 0.8, 1),
    rowsPerBlock: fc.constantFrom(4, 6, 8),
  })
  .map(
    ({ speeds, ...p }): ScanOffsetPlan => ({
      ...usual,
      ...p,
      speedsMmPerS: speeds,
      stockWidthMm: 140,
      stockHeightMm: 200,
    }),
  )
  .filter((plan) => scanOffsetPlan(context).read(plan).ok);

describe("an outline around each block", () => {
  const { pieces, sites, checklist } = scanOffsetRound(outlined, context, "measure");
  const [piece] = pieces;
  const outlines = piece?.paths.filter((p) => p.settings === "outlines") ?? [];

  it("is a closed slow line, 1.5 mm from the ends of the rows, that touches neither rows nor other outlines", () => {
    expect(outlines).toHaveLength(6);
    expect(piece?.settings.find((s) => s.id === "outlines")).toMatchObject({ use: "line", speedMmPerS: 60 });
    const { blocks } = placesOf(outlined);
    blocks.forEach(({ block, witness, outline }, i) => {
      expect([block.x0 - outline.x0, outline.x1 - block.x1]).toEqual([1.5, 1.5]);
      expect(outline.y0).toBeLessThan(block.y0);
      expect(outline.y1).toBeGreaterThan(witness.y1);
      expect(outline.y0).toBeGreaterThan(blocks[i + 1]?.outline.y1 ?? placesOf(outlined).reference.short.y1);
    });
    // The first side is drawn to the right and the third to the left: with backlash, both upright sides move inward alike.
    expect(outlines.every((p) => p.closed && (p.points[1]?.x ?? 0) > (p.points[0]?.x ?? 0))).toBe(true);
    expect(checklist.some((line) => line.includes("outlines"))).toBe(true);
  });

  it("asks for four gaps at each speed, once each, between rows of one direction and the side next to them", () => {
    const gaps = sites.filter((s) => s.measurand.kind === "row gap");
    expect(gaps).toHaveLength(24);
    expect(gaps.every((s) => s.repeats === 1)).toBe(true);
    const site = gaps.find((s) => s.id === "gap300-left-right");
    const { block, outline } = placesOf(outlined).blocks[2] ?? {};
    expect(site?.measurand).toMatchObject({ rows: { within: block, end: "left", going: "right" } });
    if (site?.measurand.kind !== "row gap" || site.measurand.line.kind !== "line") throw new Error("no line");
    const { within } = site.measurand.line;
    expect(within.x0 < (outline?.x0 ?? 0) && (outline?.x0 ?? 0) < within.x1).toBe(true);
    expect(within.x1).toBeLessThan(block?.x0 ?? 0);
  });

  it("is left out where it is not chosen, also in plans from before there were outlines", () => {
    const { outline: _, ...old } = usual;
    for (const plan of [usual, scanOffsetPlan(context).whole(old)]) {
      const round = scanOffsetRound(plan, context, "measure");
      expect(round.sites).toHaveLength(14);
      expect(round.pieces[0]?.settings.some((s) => s.id === "outlines")).toBe(false);
    }
  });
});

describe("the layout", () => {
  it("puts nothing on anything else, and uses the height that it says", () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const { blocks, reference, title } = placesOf(plan);
        const areas = [...blocks.flatMap((b) => [b.block, b.witness]), reference.short, reference.long];
        for (const [i, a] of areas.entries()) {
          expect(a.x1).toBeGreaterThan(a.x0);
          expect(a.y1).toBeGreaterThan(a.y0);
          expect(a.y0).toBeGreaterThanOrEqual(0);
          expect(a.y1).toBeLessThan(title.y);
          for (const b of areas.slice(i + 1))
            expect(a.y0 < b.y1 - 1e-9 && b.y0 < a.y1 - 1e-9 && a.x0 < b.x1 && b.x0 < a.x1).toBe(false);
        }
        const lowest = Math.min(...areas.map((a) => a.y0));
        expect(plan.stockHeightMm - lowest).toBeLessThanOrEqual(usedHeightMm(plan) + 1e-9);
      }),
      { seed: 1, numRuns: 100 },
    );
  });

  it("goes from slow at the top to fast, each block with its witness strip above it", () => {
    const { blocks } = placesOf({ ...usual, speedsMmPerS: [400, 100, 250] });
    expect(blocks.map((b) => b.speedMmPerS)).toEqual([100, 250, 400]);
    for (const b of blocks) {
      expect(b.witness.y0 - b.block.y1).toBeCloseTo(SPACING_MM.witness, 9);
      expect(b.witness.y1 - b.witness.y0).toBeCloseTo(WITNESS_ROWS * usual.rowPitchMm, 9);
    }
  });

  it("has a reference step of just the size that is planned, at both ends", () => {
    const { reference } = placesOf({ ...usual, referenceStepMm: 0.37 });
    expect(reference.short.x0 - reference.long.x0).toBeCloseTo(0.37, 9);
    expect(reference.long.x1 - reference.short.x1).toBeCloseTo(0.37, 9);
  });
});

describe("the round", () => {
  it("burns the same rows, whether as strokes or as areas that the controller fills", () => {
    fc.assert(
      fc.property(plans, (plan) => {
        const rowsOf = (way: Way) => {
          const [piece] = scanOffsetRound({ ...plan, way }, context, "measure").pieces;
          if (!piece) throw new Error("no piece");
          const rows = piece.paths.flatMap((path) => {
            const { use, scan } = settingsOf(piece, path.settings);
            if (scan) return scanRows(path.points, scan.rowPitchMm);
            if (use !== "rows") return [];
            const xs = path.points.map((p) => p.x);
            return [{ y: path.points[0]?.y ?? 0, x0: Math.min(...xs), x1: Math.max(...xs) }];
          });
          return rows.sort((a, b) => a.y - b.y || a.x0 - b.x0);
        };
        const [areas, strokes] = [rowsOf("closed blocks"), rowsOf("bare strokes")];
        expect(areas).toHaveLength(strokes.length);
        areas.forEach((row, i) => {
          expect(row.y).toBeCloseTo(strokes[i]?.y ?? Number.NaN, 6);
          expect(row.x0).toBeCloseTo(strokes[i]?.x0 ?? Number.NaN, 6);
          expect(row.x1).toBeCloseTo(strokes[i]?.x1 ?? Number.NaN, 6);
        });
      }),
      { seed: 2, numRuns: 60 },
    );
  });

  it("goes to and fro in blocks and one way in witness strips, where it draws rows itself", () => {
    const [piece] = scanOffsetRound({ ...usual, way: "bare strokes" }, context, "measure").pieces;
    const directions = (id: string) =>
      piece?.paths
        .filter((p) => p.settings === id)
        .map((p) => Math.sign((p.points[1]?.x ?? 0) - (p.points[0]?.x ?? 0)));
    expect(directions("v300")).toEqual([1, -1, 1, -1, 1, -1, 1, -1]);
    expect(directions("v300w")).toEqual([1, 1, 1]);
    expect(directions("reference")?.every((d) => d === 1)).toBe(true);
  });

  it("asks at both ends of every block, and signs what is seen there", () => {
    const { sites } = scanOffsetRound(usual, context, "measure");
    expect(sites).toHaveLength(2 + 2 * usual.speedsMmPerS.length);
    for (const v of usual.speedsMmPerS) {
      const [left, right] = (["left", "right"] as const).map((end) => sites.find((s) => s.id === siteId(v, end))?.ask);
      if (left?.kind !== "quantity" || right?.kind !== "quantity") throw new Error("no quantity");
      // A late beam carries right-going rows further right: at the left end the others stand out.
      expect(right.signedBy?.positive).toMatch(/^right-going/);
      expect(left.signedBy?.positive).toMatch(/^left-going/);
    }
    const reference = sites.filter((s) => (Object.values(REFERENCE_SITES) as string[]).includes(s.id));
    expect(reference.every((s) => s.ask.kind === "quantity" && s.ask.signedBy === null)).toBe(true);
  });
});

describe("a run-up", () => {
  it("is long enough to reach the speed, v²/2a, also where the acceleration is not known", () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 1000 }), fc.integer({ min: 500, max: 20_000 }), (v, a) => {
        expect(runUpMm(v, { ...SAMPLE_MACHINE, accelerationMmPerS2: a })).toBeGreaterThan(v ** 2 / (2 * a));
      }),
      { seed: 3 },
    );
    const unknown = { ...SAMPLE_MACHINE, accelerationMmPerS2: null };
    expect(runUpMm(400, unknown)).toBeGreaterThan(400 ** 2 / (2 * CAUTIOUS_ACCELERATION_MM_PER_S2));
  });
});

describe("rows in Ustrina's own G-code", () => {
  const plan: ScanOffsetPlan = { ...usual, way: "own strokes" };
  const spec = scanOffsetRound(plan, context, "measure");
  const inForce = {
    [SCAN_OFFSET]: table([
      [100, 0.1],
      [500, 0.3],
    ]),
  };
  const ends = (s: typeof spec, id: string) => s.pieces[0]?.paths.filter((p) => p.settings === id).map((p) => p.points);

  it("begin earlier by the entry for their speed, against their direction", () => {
    const sent = asSent(spec, plan, inForce, SAMPLE_MACHINE);
    const [before, after] = [ends(spec, "v300"), ends(sent, "v300")];
    before?.forEach((points, row) => {
      const toRight = (points[1]?.x ?? 0) > (points[0]?.x ?? 0);
      points.forEach((p, k) => {
        // Half way between the entries at 100 and 500: 0.2 mm.
        expect((after?.[row]?.[k]?.x ?? 0) - p.x).toBeCloseTo(toRight ? -0.2 : 0.2, 9);
        expect(after?.[row]?.[k]?.y).toBe(p.y);
      });
    });
    expect(ends(sent, "labels")).toEqual(ends(spec, "labels"));
  });

  it("begin later on a machine whose entries mean that, and as drawn where nothing is in force", () => {
    const turned = {
      ...SAMPLE_MACHINE,
      held: {
        [SCAN_OFFSET]: {
          unit: "mm" as const,
          step: 0.001,
          range: null,
          tableKind: "interpolated" as const,
          sense: -1 as const,
        },
      },
    };
    const [first] = ends(asSent(spec, plan, inForce, turned), "v300") ?? [];
    expect((first?.[0]?.x ?? 0) - (ends(spec, "v300")?.[0]?.[0]?.x ?? 0)).toBeCloseTo(0.2, 9);
    expect(asSent(spec, plan, {}, SAMPLE_MACHINE)).toBe(spec);
    expect(asSent(spec, { ...plan, way: "bare strokes" }, inForce, SAMPLE_MACHINE)).toBe(spec);
    expect(asSent(spec, { ...plan, way: "closed blocks" }, inForce, SAMPLE_MACHINE)).toBe(spec);
  });
});

describe("what was in force", () => {
  const rows: [number, number][] = [
    [100, 0.1],
    [300, 0.2],
  ];
  const entry = (v: number, way: Way, tableKind: "interpolated" | "exact speed only" | "not known") => {
    const round = readAs({ staggers: { 100: 0.1 }, inForce: table(rows), way });
    const machine = {
      ...SAMPLE_MACHINE,
      held: { [SCAN_OFFSET]: { unit: "mm" as const, step: 0.001, range: null, tableKind, sense: 1 as const } },
    };
    return entryInForce(historyOf([round], { machine }), round, v);
  };

  it("is what the kind of table makes of a speed between its entries", () => {
    expect(entry(200, "closed blocks", "interpolated")).toBeCloseTo(0.15, 12);
    expect(entry(200, "closed blocks", "exact speed only")).toBe(0);
    expect(entry(200, "closed blocks", "not known")).toBeNull();
    expect(entry(300, "closed blocks", "not known")).toBe(0.2);
    expect(entry(600, "closed blocks", "interpolated")).toBe(0.2);
  });

  it("is nothing on bare strokes, and interpolated in Ustrina's own, whatever the controller does", () => {
    expect(entry(200, "bare strokes", "interpolated")).toBe(0);
    expect(entry(200, "own strokes", "exact speed only")).toBeCloseTo(0.15, 12);
  });

  it("takes twice the entry off the stagger, and nothing where it is not known", () => {
    const round = readAs({ staggers: { 100: 0.1 }, inForce: table(rows) });
    expect(compensatedMm(historyOf([round]), round, 200)).toBeCloseTo(0.3, 12);
    const unknown = readAs({ staggers: { 100: 0.1 }, inForce: null });
    expect(compensatedMm(historyOf([unknown]), unknown, 200)).toBe(0);
  });
});

describe("a check", () => {
  it("looks at the slowest, the middle and the fastest speed that the machine still goes", () => {
    const last = { ...usual, speedsMmPerS: [600, 100, 200, 300, 500] };
    expect(checkPlan(last, context).speedsMmPerS).toEqual([100, 300, 600]);
    const slower = { ...context, machine: { ...SAMPLE_MACHINE, topSpeedMmPerS: 350 } };
    expect(checkPlan(last, slower).speedsMmPerS).toEqual([100, 200, 300]);
    expect(checkPlan({ ...usual, speedsMmPerS: [200] }, context).speedsMmPerS).toEqual([200]);
  });

  it("uses the way in which work is engraved", () => {
    expect(checkPlan({ ...usual, way: "bare strokes" }, context).way).toBe("closed blocks");
    const bare = { ...context, machine: { ...SAMPLE_MACHINE, scansBlocks: false } };
    expect(checkPlan({ ...usual, way: "bare strokes" }, bare).way).toBe("bare strokes");
    expect(checkPlan({ ...usual, way: "own strokes" }, context).way).toBe("own strokes");
  });
});

describe("the close-up", () => {
  const history = historyOf([readAs({ staggers: { 100: 0.1, 300: -0.24 }, reference: 0.3 })]);
  const tips = (site: string, typed: number | null = null) => {
    const detail = scanOffset.detail(history, { site, typed });
    if (!detail) throw new Error("no detail");
    const rows = detail.primitives.flatMap((p) =>
      p.kind === "stroke" && p.weight === "mark" ? [p.points[1]?.x ?? 0] : [],
    );
    const text = detail.primitives.find((p) => p.kind === "dimension");
    return { rows, text: text?.kind === "dimension" ? text.text : "", note: detail.note };
  };

  it("follows what was read: rows that stand out do so in the drawing", () => {
    const [late, early] = [tips("v100-right"), tips("v300-right")];
    expect(Math.sign((late.rows[0] ?? 0) - (late.rows[1] ?? 0))).toBe(1);
    expect(Math.sign((early.rows[0] ?? 0) - (early.rows[1] ?? 0))).toBe(-1);
    expect([late.text, early.text]).toEqual(["0.10", "0.24"]);
  });

  it("follows what is being typed, says when a size is only an example, and says how much larger it draws", () => {
    expect(tips("v100-right", 0.35).text).toBe("0.35");
    const unread = historyOf([{ ...readAs({ staggers: { 100: 0.1 } }), answers: [] }]);
    const detail = scanOffset.detail(unread, { site: "v100-left", typed: null });
    expect(detail?.note).toMatch(/not read yet/);
    expect(tips("v100-right").note).toMatch(/times larger than the pitch/);
    expect(scanOffset.detail(history, { site: "gone", typed: null })).toBeNull();
  });
});
