/** The files of a round, made from its layout and readings at the moment they are asked for. */

import type { CouponPoint } from "../../core/geometry/frames";
import { lengthUnitOf } from "../../core/trial/decisions";
import type { Db } from "../../data/database";
import { dxfOf } from "../../formats/dxf-writer";
import { documentText } from "../../formats/json-document";
import type { Paper } from "../../formats/paper/sheet-page";
import { sheetPdf } from "../../formats/paper/sheet-pdf";
import { readingsCsv, sheetToFill } from "../../formats/readings-csv";
import { resultsCsv, sitesCsv } from "../../formats/results-csv";
import { svgOf } from "../../formats/svg-writer";
import { Refusal } from "../refusal";
import { fieldTableFile } from "./field-table-file";
import { madeDrawing } from "./made-drawing";
import { practiceLook } from "./practice-look";
import { practiceScan, SCAN_DPI } from "./practice-scan";
import { roundGcode } from "./round-gcode";
import { roundPiece } from "./round-piece";
import { roundSheetPages } from "./round-sheet";
import { trialDocument } from "./trial-document";
import { couponCode, type FullTrial, fullTrial, historyOf, laidOut, roundOf } from "./trial-record";

/** Text, bytes, or text in pieces that are made as they are sent. */
export type FileBody = string | Buffer | Iterable<string>;
export type RoundFile = { name: string; mime: string; body: FileBody | Promise<FileBody> };

/**
 * What a file may be asked for with: paper of what lies on pages, which piece, from 1, of what holds one, how fine a scan, which of what a solution makes, and which
 * place of a piece, and how much of it across, mm.
 */
export type Asked = {
  paper: Paper;
  piece: number;
  dpi?: number;
  of?: string;
  place?: { at: CouponPoint; acrossMm: number };
};
export const AS_USUAL: Asked = { paper: "a4", piece: 1 };

type Maker = {
  suffix: string;
  mime: string;
  make: (db: Db, full: FullTrial, n: number, asked: Asked) => RoundFile["body"];
};

/** By the last part of their address. */
const FILES: Record<string, Maker> = {
  "coupon.svg": {
    suffix: ".svg",
    mime: "image/svg+xml",
    make: (db, full, n, { piece }) => svgOf(roundPiece(db, full, n, piece)),
  },
  "coupon.dxf": {
    suffix: ".dxf",
    mime: "image/vnd.dxf",
    make: (db, full, n, { piece }) => dxfOf(roundPiece(db, full, n, piece)),
  },
  "coupon.nc": { suffix: ".nc", mime: "text/plain", make: roundGcode },
  "run-sheet.pdf": { suffix: "-run-sheet.pdf", mime: "application/pdf", make: runSheetPdf },
  "sites.csv": {
    suffix: "-sites.csv",
    mime: "text/csv",
    make: (db, full, n) => sitesCsv(laidOut(db, full, roundOf(full, n)).spec.sites),
  },
  "sheet.csv": { suffix: "-to-fill.csv", mime: "text/csv", make: sheet },
  "readings.csv": { suffix: "-readings.csv", mime: "text/csv", make: readings },
  "trial.json": {
    suffix: ".json",
    mime: "application/json",
    make: (db, full) => documentText(trialDocument(db, full.trial.id)),
  },
  "practice-scan.png": {
    suffix: "-practice-scan.png",
    mime: "image/png",
    make: (db, full, n, { dpi, of }) =>
      practiceScan(db, full, n, SCAN_DPI.find((d) => d === dpi) ?? SCAN_DPI[0], of?.replaceAll("-", " ")),
  },
  "practice-look.png": {
    suffix: "-practice-look.png",
    mime: "image/png",
    make: (db, full, n, { place = { at: { x: 0, y: 0 }, acrossMm: 10 } }) =>
      practiceLook(db, full, n, place.at, place.acrossMm),
  },
  "field-table.csv": {
    suffix: "-field-table.csv",
    mime: "text/csv",
    make: (_, full, n) => fieldTableFile(full, n, "csv"),
  },
  "field-table.json": {
    suffix: "-field-table.json",
    mime: "application/json",
    make: (_, full, n) => fieldTableFile(full, n, "json"),
  },
  "made.svg": {
    suffix: ".svg",
    mime: "image/svg+xml",
    make: (db, full, n, { of = "" }) => svgOf(madeDrawing(db, full, n, of, new Date()), false),
  },
  "made.dxf": {
    suffix: ".dxf",
    mime: "image/vnd.dxf",
    make: (db, full, n, { of = "" }) => dxfOf(madeDrawing(db, full, n, of, new Date())),
  },
  "results.csv": { suffix: "-results.csv", mime: "text/csv", make: results },
};

/**
 * @param file one of the names above
 * @throws Refusal when the layout is not complete, nothing is read yet, or there is no such file
 */
export function roundFile(db: Db, trialId: number, n: number, file: string, asked = AS_USUAL): RoundFile {
  const full = fullTrial(db, trialId);
  const maker = Object.hasOwn(FILES, file) ? FILES[file] : undefined;
  if (!maker) throw new Refusal("file", `There is no file “${file}”.`);
  const piece = asked.piece > 1 ? `-piece-${asked.piece}` : "";
  const of = asked.of ? `-${asked.of}` : "";
  const name = `${full.machine.name}-${couponCode(full, n)}${piece}${of}${maker.suffix}`.toLowerCase();
  return { name, mime: maker.mime, body: maker.make(db, full, n, asked) };
}

async function runSheetPdf(db: Db, full: FullTrial, n: number, { paper }: Asked): Promise<Buffer> {
  const { title, pages } = roundSheetPages(db, full, n, paper);
  return sheetPdf(pages, title, new Date());
}

function sheet(db: Db, full: FullTrial, n: number): string {
  const round = roundOf(full, n);
  const { spec } = laidOut(db, full, round);
  return sheetToFill(
    spec.sites,
    round.readings.map((r) => r.answer),
    lengthUnitOf(full.trial),
  );
}

function readings(_db: Db, full: FullTrial, n: number): string {
  const round = roundOf(full, n);
  return readingsCsv(
    round.spec?.sites ?? [],
    round.readings.map((r) => ({
      ...r,
      gauge: round.sessions.find((s) => s.gauge.id === r.answer.gauge)?.gauge.name ?? "",
    })),
    lengthUnitOf(full.trial),
  );
}

function results(_db: Db, full: FullTrial, n: number): string {
  roundOf(full, n);
  const outcome = full.procedure.solve(historyOf(full, n));
  if (outcome.status !== "solved")
    throw new Refusal("file", outcome.status === "open" ? outcome.missing : outcome.reason);
  return resultsCsv(outcome, lengthUnitOf(full.trial));
}
