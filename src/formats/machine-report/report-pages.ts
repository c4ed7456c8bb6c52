/** A report of a machine laid out on paper: facts, settings in force, states. One page for most machines. */
import { SheetFlow, withFeet } from "../paper/sheet-flow";
import { line, MARGIN_MM, PAPERS, type Paper, type SheetPage, text } from "../paper/sheet-page";
import { linesOf } from "../paper/typesetter";
import type { MachineReport } from "./report-content";

const SMALL_PT = 9;
const ROW_MM = 4;
const GAP_MM = 3;

type Column<R> = { label: string; widthMm: number; of: (row: R) => string; isFigure?: true };

/** Widths add up to the narrower paper without its margins. */
const SETTINGS: readonly Column<MachineReport["settings"][number]>[] = [
  { label: "Setting", widthMm: 38, of: (s) => `${s.label}, ${s.location}` },
  { label: "Value", widthMm: 40, of: (s) => s.value, isFigure: true },
  { label: "U (k = 2)", widthMm: 28, of: (s) => s.uncertainty, isFigure: true },
  { label: "Date", widthMm: 25, of: (s) => s.date, isFigure: true },
  { label: "Origin", widthMm: 34, of: (s) => s.origin },
  { label: "State", widthMm: 21, of: (s) => s.state },
];

const PROCEDURES: readonly Column<MachineReport["procedures"][number]>[] = [
  { label: "Procedure", widthMm: 36, of: (p) => p.title },
  { label: "State", widthMm: 22, of: (p) => p.state },
  { label: "Since", widthMm: 25, of: (p) => p.since, isFigure: true },
  { label: "Residual error, 95 %", widthMm: 42, of: (p) => p.residual, isFigure: true },
  { label: "Reason", widthMm: 61, of: (p) => p.reasons },
];

export function reportPages(report: MachineReport, paper: Paper): SheetPage[] {
  const flow = new SheetFlow({ widthMm: PAPERS[paper].widthMm, heightMm: PAPERS[paper].heightMm }, "Report");
  flow.down(7);
  flow.put(text(MARGIN_MM, flow.at, `Report of ${report.name}`, { face: "bold", sizePt: 18 }));
  flow.down(3);
  for (const { label, value } of report.facts) {
    flow.down(4.6);
    flow.put(text(MARGIN_MM, flow.at, label, { ink: "second" }), text(MARGIN_MM + 42, flow.at, value));
  }
  flow.heading("Settings in force");
  if (report.settings.length === 0) flow.paragraph("No setting is written down.");
  else table(flow, SETTINGS, report.settings);
  flow.heading("Procedures");
  table(flow, PROCEDURES, report.procedures);
  return withFeet(flow.pages, "report", report.name);
}

function table<R>(flow: SheetFlow, columns: readonly Column<R>[], rows: readonly R[]): void {
  const starts = columns.map((_, i) => MARGIN_MM + columns.slice(0, i).reduce((sum, c) => sum + c.widthMm, 0));
  const start = (i: number) => starts[i] ?? MARGIN_MM;
  const headings = () => {
    flow.down(ROW_MM + 0.6);
    columns.forEach(({ label }, i) => {
      flow.put(text(start(i), flow.at, label, { ink: "second", sizePt: SMALL_PT }));
    });
    flow.down(1.4);
  };
  headings();
  for (const row of rows) {
    const cells = columns.map(({ of, widthMm, isFigure }) =>
      linesOf(of(row), isFigure ? "figures" : "words", SMALL_PT, widthMm - GAP_MM),
    );
    const height = Math.max(...cells.map((lines) => lines.length)) * ROW_MM + 1.6;
    if (flow.need(height)) headings();
    flow.put(line(MARGIN_MM, flow.at, MARGIN_MM + flow.widthMm, flow.at, 0.1, "faint"));
    cells.forEach((lines, i) => {
      lines.forEach((words, k) => {
        const face = columns[i]?.isFigure ? "figures" : "words";
        flow.put(text(start(i), flow.at + (k + 1) * ROW_MM - 0.4, words, { face, sizePt: SMALL_PT }));
      });
    });
    flow.down(height);
  }
}
