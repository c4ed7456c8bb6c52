/** What a run sheet says, for rounds of every shape. */
import { describe, expect, it } from "vitest";
import type { MarkingSettings, Piece } from "../../core/coupon/piece";
import type { RoundSpec } from "../../core/coupon/round-spec";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import type { SettingValue } from "../../core/settings/setting";
import { madeUp } from "../../testing/made-up/procedure";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { runSheet, type SheetFacts } from "./sheet-content";
import { sheetPages } from "./sheet-pages";

const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
const spec = scanOffset.round(scanOffset.plan(context).defaults, context, "measure");
const sheet = (change: Partial<SheetFacts> = {}) =>
  runSheet({
    procedure: scanOffset,
    machine: SAMPLE_MACHINE,
    couponCode: "T-1",
    purpose: "measure",
    spec,
    inForce: {},
    unit: "mm",
    ...change,
  });
const held = (value: SettingValue | null, unit: SheetFacts["unit"] = "mm") =>
  sheet({ inForce: { "scan offset": value }, unit }).held[0]?.rows;
const fact = (s: ReturnType<typeof sheet>, label: string) => s.facts.find((f) => f.label === label)?.value;

describe("a run sheet", () => {
  it("names coupon, machine, burn and stock", () => {
    const s = sheet({ purpose: "proof" });
    expect(s.title).toBe("Scan offset · coupon T-1");
    expect(fact(s, "Machine")).toBe("Testbed, CO2 gantry");
    expect(fact(s, "Burn")).toBe("proof");
    expect(fact(s, "Stock")).toBe("offcut 90 × 120");
  });

  it("has what the controller should hold, in the unit of the trial, or says that it is not known", () => {
    const rows: SettingValue = {
      shape: "table",
      rows: [
        { at: 100, value: 0.127 },
        { at: 300, value: -0.0254 },
      ],
    };
    expect(held(rows)).toEqual([
      { label: "100 mm/s", value: "0.127 mm" },
      { label: "300 mm/s", value: "−0.0254 mm" },
    ]);
    expect(held(rows, "in")?.[0]).toEqual({ label: "100 mm/s", value: "0.005 in" });
    expect(held(rows, "thou")?.[1]).toEqual({ label: "300 mm/s", value: "−1 thou" });
    expect(held({ shape: "table", rows: [] })).toEqual([{ label: "no entries", value: null }]);
    expect(held(null)).toEqual([{ label: "not known", value: null }]);
    const scalar = runSheet({
      procedure: madeUp,
      machine: SAMPLE_MACHINE,
      couponCode: "T-1",
      purpose: "measure",
      spec,
      unit: "mm",
      inForce: { "made-up length": { shape: "scalar", value: 2.5 } },
    });
    expect(scalar.held[0]?.rows).toEqual([{ label: "Made-up length", value: "2.5 mm" }]);
  });

  it("gives every speed in mm/s and in mm/min: they are mixed up too easily", () => {
    const cells = sheet().groups.map((g) => g.cells);
    const block = cells.find(([label]) => label === "300 mm/s, both ways");
    expect(block?.slice(1)).toEqual(["300 mm/s", "18000 mm/min", "14 %", "every 0.8 mm, both ways"]);
    expect(cells.find(([label]) => label === "Labels")?.[4]).toBe("as drawn");
  });

  it.each([
    [0.2, "1 s"],
    [59.4, "59 s"],
    [130, "2 min 10 s"],
    [3600, "1 h"],
    [3720, "1 h 2 min"],
  ])("says %d s as a person does", (seconds, text) => {
    const pulse: RoundSpec = {
      ...spec,
      program: [{ kind: "pulse", at: { x: 0, y: 0 }, durationS: seconds, powerPct: 5 }],
    };
    expect(fact(sheet({ spec: pulse }), "Marking takes at least")).toBe(text);
  });
});

describe("a round of another shape", () => {
  const settings: MarkingSettings = {
    id: "a",
    label: "A",
    use: "line",
    speedMmPerS: 10,
    powerPct: 5,
    runUpMm: 0,
    scan: null,
  };
  const piece = (id: string): Piece => ({
    id,
    label: `Piece ${id}`,
    stock: `card ${id}`,
    widthMm: 30,
    heightMm: 30,
    settings: [settings],
    paths: [
      {
        points: [
          { x: 1, y: 1 },
          { x: 9, y: 9 },
        ],
        closed: false,
        settings: "a",
      },
    ],
  });

  it("of several pieces has a drawing and the settings of each", () => {
    const s = sheet({ spec: { ...spec, pieces: [piece("p"), piece("q")], program: [], sites: [] } });
    expect(fact(s, "Stock")).toBe("card p, card q");
    expect(s.groups).toHaveLength(2);
    expect(sheetPages(s, "a4").map((p) => p.title)).toEqual([
      "Set up",
      "Piece p, true scale 1 : 1",
      "Piece q, true scale 1 : 1",
    ]);
  });

  it("without a piece has what to do and what to read, and no drawing", () => {
    const sites = spec.sites.slice(0, 1).map((s) => ({ ...s, place: null }));
    const s = sheet({
      spec: { ...spec, pieces: [], program: [{ kind: "move by hand", text: "Lower the head." }], sites },
    });
    expect(fact(s, "Stock")).toBe("none");
    expect(s.before).toContain("Lower the head.");
    expect(sheetPages(s, "letter").map((p) => p.title)).toEqual(["Set up", "Where to measure"]);
  });

  it("of a great many sites goes on over pages, and asks its question again on each", () => {
    const many = Array.from({ length: 60 }, (_, i) => ({
      ...(spec.sites[3] as (typeof spec.sites)[number]),
      id: `s${i}`,
    }));
    const pages = sheetPages(sheet({ spec: { ...spec, sites: many } }), "a4").filter(
      (p) => p.title === "Where to measure",
    );
    expect(pages.length).toBeGreaterThan(3);
    for (const page of pages) {
      const words = page.items.flatMap((i) => (i.kind === "text" ? [i.text] : [])).join(" ");
      expect(words).toContain("How far apart are the tips of neighbouring rows?");
    }
  });
});
