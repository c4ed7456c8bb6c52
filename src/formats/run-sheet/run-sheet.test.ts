/** Run sheets of every procedure, on both papers: nothing cut, nothing on top of another, and true to scale. */
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Piece } from "../../core/coupon/piece";
import { PROCEDURES } from "../../core/course/registry";
import { madeUp } from "../../testing/made-up/procedure";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { boxesOf, overlaps, wordsIn } from "../../testing/sheet-boxes";
import { PAPERS, type Paper, type SheetItem, type SheetPage } from "../paper/sheet-page";
import { sheetPdf } from "../paper/sheet-pdf";
import { linesOf, runsOf, textWidthMm } from "../paper/typesetter";
import { type RunSheet, runSheet } from "./sheet-content";
import { sheetDrawing } from "./sheet-drawing";
import { sheetPages } from "./sheet-pages";
import { CONTROL_LINE_MM, drawingPages } from "./sheet-tiles";

function sheetFor(procedure: (typeof PROCEDURES)[number], change: (s: RunSheet) => RunSheet = (s) => s): RunSheet {
  const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
  const spec = procedure.round(procedure.plan(context).defaults, context, "measure");
  const inForce = Object.fromEntries(
    procedure.settings.map((s) => [
      s.key,
      s.shape === "table"
        ? { shape: "table" as const, rows: Array.from({ length: 12 }, (_, i) => ({ at: 100 + 50 * i, value: 0.12 })) }
        : { shape: "scalar" as const, value: 1 },
    ]),
  );
  return change(
    runSheet({ procedure, machine: SAMPLE_MACHINE, couponCode: "T-1", purpose: "measure", spec, inForce, unit: "in" }),
  );
}

const cases = [...PROCEDURES, madeUp].flatMap((p) =>
  (Object.keys(PAPERS) as Paper[]).map((paper) => [p.id, paper, p] as const),
);

describe.each(cases)("the run sheet of %s on %s", (_, paper, procedure) => {
  const pages = sheetPages(sheetFor(procedure), paper);

  it("keeps every word on its page, none smaller than 9 pt and none on another", () => {
    for (const page of pages) {
      const boxes = boxesOf(page.items);
      for (const b of boxes) {
        expect(b.x0, b.words).toBeGreaterThanOrEqual(5);
        expect(b.x1, b.words).toBeLessThanOrEqual(page.widthMm - 5);
        expect(b.y1, b.words).toBeLessThanOrEqual(page.heightMm - 5);
      }
      expect(overlaps(boxes)).toEqual([]);
      for (const item of page.items) if (item.kind === "text") expect(item.sizePt).toBeGreaterThanOrEqual(9);
    }
  });

  it("names every site in the drawing and has room for every answer", () => {
    const sheet = sheetFor(procedure);
    const words = pages.flatMap((p) => p.items.flatMap(wordsIn));
    for (const { n, site } of sheet.sites) {
      expect(words.filter((w) => w === String(n)).length, site.label).toBeGreaterThanOrEqual(site.place ? 2 : 1);
      expect(words.join(" ")).toContain(site.label.split(" ")[0]);
    }
    for (const line of sheet.before) expect(words.join(" ")).toContain(line);
  });
});

describe("a drawing", () => {
  const piece: Piece = {
    id: "p",
    label: "Large",
    stock: "board",
    widthMm: 700,
    heightMm: 420,
    settings: [{ id: "a", label: "A", use: "line", speedMmPerS: 100, powerPct: 10, runUpMm: 0, scan: null }],
    paths: [
      {
        points: [
          { x: 5, y: 5 },
          { x: 695, y: 415 },
        ],
        closed: false,
        settings: "a",
      },
    ],
  };

  it("larger than the paper lies on several pages, which hold all of it at true scale", () => {
    const drawing = sheetDrawing(piece, []);
    const pages = drawingPages(drawing, PAPERS.a4, "Large");
    expect(pages.length).toBeGreaterThan(6);
    expect(pages[0]?.title).toMatch(/overview 1 : \d/);
    // A point of the drawing lies in some window, moved and not scaled: the diagonal keeps its length everywhere.
    const parts = pages.slice(1).map(windowOf);
    for (const part of parts) {
      const diagonal = part.items.find((i) => i.kind === "path" && i.points.length === 2 && length(i) > 700);
      expect(diagonal && length(diagonal)).toBeCloseTo(Math.hypot(690, 410), 6);
    }
    const covered = parts.reduce((sum, w) => sum + w.widthMm * w.heightMm, 0);
    expect(covered).toBeGreaterThanOrEqual(drawing.widthMm * drawing.heightMm);
  });

  it("lies across the paper where it fits only so", () => {
    const pages = drawingPages(sheetDrawing({ ...piece, widthMm: 210, heightMm: 60 }, []), PAPERS.a4, "Wide");
    expect(pages).toHaveLength(1);
    expect(pages[0]?.widthMm).toBe(297);
  });
});

function windowOf(page: SheetPage) {
  const found = page.items.find((i) => i.kind === "window");
  if (!found) throw new Error("no window");
  return found;
}

function length(item: SheetItem): number {
  if (item.kind !== "path") return 0;
  const [a, b] = [item.points[0], item.points[1]];
  return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
}

describe("letters", () => {
  it("come from a font that has them", () => {
    expect(runsOf("Ω 5 ł", "words")).toEqual([
      { text: "Ω", font: "others" },
      { text: " 5 ", font: "words" },
      { text: "ł", font: "others" },
    ]);
    expect(runsOf("−0.25 mm ± “x” µ°", "figures")).toHaveLength(1);
  });

  it("are broken into lines that fit, whatever is written", () => {
    for (const text of ["short", "a few words that take more than one line", "x".repeat(400), ""]) {
      const lines = linesOf(text, "words", 10, 40);
      expect(lines.join("").replaceAll(" ", "")).toBe(text.replaceAll(" ", ""));
      for (const line of lines) expect(textWidthMm(line, "words", 10)).toBeLessThanOrEqual(40);
    }
  });
});

const drawsPdf = spawnSync("pdftoppm", ["-v"]).status === 0;

describe.runIf(drawsPdf)("drawn by an independent reader", () => {
  let folder: string;
  beforeAll(() => {
    folder = mkdtempSync(path.join(tmpdir(), "ustrina-pdf-"));
  });
  afterAll(() => rmSync(folder, { recursive: true }));

  it("the control line is 100.0 mm long", async () => {
    const [procedure] = PROCEDURES;
    if (!procedure) throw new Error("no procedure");
    const sheet = sheetFor(procedure);
    const file = path.join(folder, "sheet.pdf");
    writeFileSync(file, await sheetPdf(sheetPages(sheet, "a4"), sheet.title, new Date(0)));
    const n = sheetPages(sheet, "a4").findIndex((p) => p.title.includes("1 : 1")) + 1;
    expect(n).toBeGreaterThan(0);
    const dpi = 600;
    const raster = spawnSync("pdftoppm", ["-r", String(dpi), "-f", `${n}`, "-l", `${n}`, "-gray", file], {
      maxBuffer: 1e9,
    });
    const { width, height, grey } = pgm(raster.stdout);
    // The longest dark run of the lowest sixth of the page, above the last line of text.
    let longest = 0;
    for (let y = Math.round(height * 0.8); y < Math.round(height * 0.93); y++) {
      let run = 0;
      for (let x = 0; x < width; x++) {
        run = (grey[y * width + x] ?? 255) < 128 ? run + 1 : 0;
        longest = Math.max(longest, run);
      }
    }
    // The end ticks are 0.2 mm wide: half of each lies beyond the line.
    const measured = (longest / dpi) * 25.4 - 0.2;
    expect(Math.abs(measured - CONTROL_LINE_MM)).toBeLessThan(0.05);
  });
});

/** A binary PGM. */
function pgm(data: Buffer): { width: number; height: number; grey: Buffer } {
  const head = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(data.subarray(0, 64).toString("latin1"));
  if (!head) throw new Error("no picture");
  return { width: Number(head[1]), height: Number(head[2]), grey: data.subarray(head[0].length) };
}
