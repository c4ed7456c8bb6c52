/** A run sheet laid out on paper: what to set and look after, the drawing at true scale, and boxes for what is read. */
import type { PencilField } from "../../core/trial/pencil";
import { LINE_MM, SheetFlow, withFeet } from "../paper/sheet-flow";
import {
  BODY_PT,
  box,
  dashed,
  line,
  MARGIN_MM,
  PAPERS,
  type Paper,
  type SheetItem,
  type SheetPage,
  text,
} from "../paper/sheet-page";
import { linesOf, textWidthMm } from "../paper/typesetter";
import { GROUP_COLUMNS, type RunSheet, type SheetSite } from "./sheet-content";
import { sheetDrawing, sheetPen } from "./sheet-drawing";
import { drawingPages } from "./sheet-tiles";

const SMALL_PT = 9;
const LABEL_MM = 42;
const WRITING_BOX = { widthMm: 22, heightMm: 7.6 };
const TICK_MM = 3.6;

/** All pages in the order in which they are used. */
export function sheetPages(sheet: RunSheet, paper: Paper): SheetPage[] {
  const size = { widthMm: PAPERS[paper].widthMm, heightMm: PAPERS[paper].heightMm };
  const pages = [
    ...setUp(sheet, size),
    ...sheet.pieces.flatMap((piece) => drawingPages(sheetDrawing(piece, sheet.sites), size, piece.label)),
    ...(sheet.sites.length > 0 ? toRead(sheet, size) : []),
  ];
  return withFeet(pages, "run sheet", sheet.title);
}

function setUp(sheet: RunSheet, size: { widthMm: number; heightMm: number }): SheetPage[] {
  const flow = new SheetFlow(size, "Set up");
  flow.down(7);
  flow.put(text(MARGIN_MM, flow.at, sheet.title, { face: "bold", sizePt: 18 }));
  flow.down(3);
  for (const { label, value } of sheet.facts) fact(flow, label, value);
  if (sheet.before.length > 0) {
    flow.heading("Before this burn");
    for (const words of sheet.before) flow.tick(words);
  }
  if (sheet.held.length > 0) held(flow, sheet.held);
  if (sheet.during.length > 0) {
    flow.heading("At the machine, one after the other");
    for (const words of sheet.during) flow.tick(words);
  }
  groups(flow, sheet.groups);
  return flow.pages;
}

function fact(flow: SheetFlow, label: string, value: string): void {
  const lines = linesOf(value, "words", BODY_PT, flow.widthMm - LABEL_MM);
  flow.need(lines.length * LINE_MM);
  flow.put(text(MARGIN_MM, flow.at + LINE_MM, label, { ink: "second" }));
  for (const words of lines) {
    flow.down(LINE_MM);
    flow.put(text(MARGIN_MM + LABEL_MM, flow.at, words));
  }
}

/** What the controller should hold, with room for what it does. */
function held(flow: SheetFlow, tables: RunSheet["held"]): void {
  flow.heading("In the controller now");
  flow.paragraph("Read every value back and write down what is there: results are worked out from it.");
  const [second, third] = [MARGIN_MM + 55, MARGIN_MM + 100];
  for (const { label, rows } of tables) {
    flow.need(LINE_MM * 2 + WRITING_BOX.heightMm);
    flow.down(LINE_MM + 2.5);
    flow.put(
      text(MARGIN_MM, flow.at, label, { face: "bold" }),
      text(second, flow.at, "as the ledger has it", { ink: "second", sizePt: SMALL_PT }),
      text(third, flow.at, "as read back", { ink: "second", sizePt: SMALL_PT }),
    );
    flow.down(1.5);
    for (const row of rows) {
      flow.need(WRITING_BOX.heightMm);
      flow.put(
        text(MARGIN_MM, flow.at + 5, row.label, { face: "figures" }),
        text(second, flow.at + 5, row.value ?? "", { face: "figures" }),
        box(third, flow.at + 0.4, WRITING_BOX.widthMm, WRITING_BOX.heightMm - 1.2),
      );
      flow.down(WRITING_BOX.heightMm - 0.8);
    }
  }
}

const COLUMNS_MM = [18, 82, 112, 128, 134];

function groups(flow: SheetFlow, list: RunSheet["groups"]): void {
  if (list.length === 0) return;
  flow.heading("Marking settings");
  const headings = () => {
    flow.down(LINE_MM);
    GROUP_COLUMNS.forEach((label, i) => {
      flow.put(columnText(i, flow.at, label, { ink: "second", sizePt: SMALL_PT }));
    });
    flow.down(1.2);
  };
  headings();
  for (const { cells, piece, settings } of list) {
    const pen = sheetPen(piece, settings);
    const wrapped = cells.map((cell, i) =>
      linesOf(cell, i === 0 || i === 4 ? "words" : "figures", BODY_PT, columnWidth(flow, i)),
    );
    const height = Math.max(...wrapped.map((lines) => lines.length)) * LINE_MM + 1.4;
    if (flow.need(height)) headings();
    flow.put(line(MARGIN_MM, flow.at, MARGIN_MM + flow.widthMm, flow.at, 0.1, "faint"));
    flow.put(dashed(line(MARGIN_MM, flow.at + 3.3, MARGIN_MM + 14, flow.at + 3.3, pen.widthMm), pen.dashMm));
    wrapped.forEach((lines, i) => {
      lines.forEach((words, k) => {
        flow.put(columnText(i, flow.at + LINE_MM * (k + 1), words, { face: i === 0 || i === 4 ? "words" : "figures" }));
      });
    });
    flow.down(height);
  }
}

/** Numbers end at their column, words begin at it. */
function columnText(i: number, y: number, words: string, style: Parameters<typeof text>[3]): SheetItem {
  const isNumber = i > 0 && i < 4;
  const x = MARGIN_MM + (COLUMNS_MM[i] ?? 0);
  return text(x, y, words, { ...style, anchor: isNumber ? "end" : "start" });
}

function columnWidth(flow: SheetFlow, i: number): number {
  if (i === 0) return 42;
  if (i === 4) return flow.widthMm - (COLUMNS_MM[4] ?? 0);
  return 60;
}

function toRead(sheet: RunSheet, size: { widthMm: number; heightMm: number }): SheetPage[] {
  const flow = new SheetFlow(size, "Where to measure");
  flow.heading("Where to measure");
  flow.down(3);
  let x = MARGIN_MM;
  for (const label of ["Gauge", "Closed jaws read", "Read on"]) {
    flow.put(text(x, flow.at + 5, label, { ink: "second" }));
    const width = textWidthMm(label, "words", BODY_PT) + 3;
    flow.put(box(x + width, flow.at - 0.5, 30, WRITING_BOX.heightMm));
    x += width + 30 + 6;
  }
  flow.down(WRITING_BOX.heightMm + 1);
  let question = "";
  for (const site of sheet.sites) {
    const rows = fieldRows(site.fields);
    const height = Math.max(WRITING_BOX.heightMm + 2.4, rows.reduce((sum, row) => sum + row.heightMm, 0) + 1.6);
    const asks = site.question === question ? [] : linesOf(site.question, "words", BODY_PT, flow.widthMm);
    const begun = flow.need(height + asks.length * LINE_MM + 3);
    if (asks.length > 0 || begun) {
      question = site.question;
      flow.down(2);
      for (const words of linesOf(site.question, "words", BODY_PT, flow.widthMm)) {
        flow.down(LINE_MM);
        flow.put(text(MARGIN_MM, flow.at, words, { ink: "second" }));
      }
      flow.down(1.6);
    }
    siteRow(flow, site, rows, height);
  }
  return flow.pages;
}

const FIELDS_AT_MM = 68;
const FIELDS_MM = 94;

type FieldRow = { heightMm: number; fields: PencilField[] };

/** Boxes side by side as far as they go; words to tick have lines of their own. */
function fieldRows(fields: readonly PencilField[]): FieldRow[] {
  const rows: FieldRow[] = [];
  let used = FIELDS_MM;
  for (const field of fields) {
    if (field.kind === "ticks") {
      const count = tickLines(field).length + (field.question ? 1 : 0);
      rows.push({ heightMm: count * 5, fields: [field] });
      used = FIELDS_MM;
      continue;
    }
    const width = boxWidth(field);
    if (used + width > FIELDS_MM) {
      rows.push({ heightMm: WRITING_BOX.heightMm + 1, fields: [] });
      used = 0;
    }
    rows.at(-1)?.fields.push(field);
    used += width;
  }
  return rows;
}

function boxWidth(field: Extract<PencilField, { kind: "box" }>): number {
  const label = field.label ? textWidthMm(field.label, "words", SMALL_PT) + 1.5 : 0;
  return label + WRITING_BOX.widthMm + (field.unit ? 1.5 : 0) + textWidthMm(field.unit, "words", SMALL_PT) + 2.4;
}

/** Options in lines that fit. */
function tickLines(field: Extract<PencilField, { kind: "ticks" }>): string[][] {
  const lines: string[][] = [];
  let used = FIELDS_MM;
  for (const option of field.options) {
    const width = tickWidth(option);
    if (used + width > FIELDS_MM) {
      lines.push([]);
      used = 0;
    }
    lines.at(-1)?.push(option);
    used += width;
  }
  return lines;
}

function tickWidth(option: string): number {
  return TICK_MM + 1.6 + textWidthMm(option, "words", SMALL_PT) + 4;
}

function siteRow(flow: SheetFlow, { n, site }: SheetSite, rows: readonly FieldRow[], height: number): void {
  const top = flow.at;
  flow.put(
    line(MARGIN_MM, top, MARGIN_MM + flow.widthMm, top, 0.1, "faint"),
    { kind: "circle", x: MARGIN_MM + 3.4, y: top + 5.6, radiusMm: 3.2, widthMm: 0.25, ink: "ink", fill: null },
    text(MARGIN_MM + 3.4, top + 6.8, String(n), { face: "figures", anchor: "middle", sizePt: SMALL_PT }),
  );
  linesOf(site.label, "words", BODY_PT, FIELDS_AT_MM - 12).forEach((words, i) => {
    flow.put(text(MARGIN_MM + 9, top + 6.8 + i * LINE_MM, words));
  });
  let y = top + 1.4;
  for (const row of rows) {
    let x = MARGIN_MM + FIELDS_AT_MM;
    for (const field of row.fields) {
      if (field.kind === "box") {
        flow.put(...writingBox(field, x, y));
        x += boxWidth(field);
      } else flow.put(...tickBoxes(field, x, y));
    }
    y += row.heightMm;
  }
  const right = MARGIN_MM + flow.widthMm;
  flow.put(
    box(right - 5, top + 3.8, TICK_MM, TICK_MM),
    text(right - 7, top + 6.8, "cannot read", { sizePt: SMALL_PT, ink: "second", anchor: "end" }),
  );
  flow.down(height);
}

function writingBox(field: Extract<PencilField, { kind: "box" }>, x: number, y: number): SheetItem[] {
  const label = field.label ? textWidthMm(field.label, "words", SMALL_PT) + 1.5 : 0;
  return [
    text(x, y + 5.4, field.label, { sizePt: SMALL_PT, ink: "second" }),
    box(x + label, y, WRITING_BOX.widthMm, WRITING_BOX.heightMm),
    text(x + label + WRITING_BOX.widthMm + 1.5, y + 5.4, field.unit, { sizePt: SMALL_PT, ink: "second" }),
  ];
}

function tickBoxes(field: Extract<PencilField, { kind: "ticks" }>, x: number, y: number): SheetItem[] {
  const items: SheetItem[] = [];
  let at = y;
  if (field.question) {
    items.push(text(x, at + 3.6, field.question, { sizePt: SMALL_PT, ink: "second" }));
    at += 5;
  }
  for (const options of tickLines(field)) {
    let left = x;
    for (const option of options) {
      items.push(
        box(left, at + 0.6, TICK_MM, TICK_MM, 0.2),
        text(left + TICK_MM + 1.6, at + 3.6, option, { sizePt: SMALL_PT }),
      );
      left += tickWidth(option);
    }
    at += 5;
  }
  return items;
}
