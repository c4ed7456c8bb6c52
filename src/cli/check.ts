/** `check FILE`: whether a file can be read, and what is in it. */

import sharp from "sharp";
import { machineSpecSchema } from "../core/machine/machine-spec";
import { countText } from "../core/metrology/count-text";
import { plain } from "../core/metrology/quantity-text";
import { parseCsv } from "../formats/csv";
import { parseDxf } from "../formats/dxf-parser";
import {
  isFieldTable,
  parseFieldTableCsv,
  parseFieldTableJson,
  type ReadTable,
  TABLE_BEGINS,
} from "../formats/field-table";
import { parseGcode } from "../formats/gcode-parser";
import { burnedPaths } from "../formats/gcode-paths";
import { MOST_PIXELS } from "../formats/largest-file";
import { isLedger, parseLedgerDocument } from "../formats/ledger-document";
import type { Parsed } from "../formats/parsed";
import { isStock, parseStockDocument } from "../formats/stock-document";
import { parseSvgDrawing } from "../formats/svg-drawing";
import { parseSvg } from "../formats/svg-parser";
import { checkBackup } from "./backup";
import { CliFault } from "./cli-fault";
import { fileText, jsonFile, loadDocument, trialIn } from "./document-file";

/** @param machineFile whose G-code it is; the usual way where it is left out */
export async function check(file: string, machineFile?: string): Promise<string> {
  const ending = /\.([a-z]+)$/i.exec(file)?.[1]?.toLowerCase() ?? "";
  switch (ending) {
    case "json": {
      if (isLedger(fileText(file))) return ledgerFacts(file);
      if (isStock(fileText(file))) return stockFacts(file);
      if (isFieldTable(fileText(file))) return tableFacts(parseFieldTableJson(fileText(file)), file);
      const document = loadDocument(file);
      const { procedure, history } = trialIn(file, document);
      const readings = history.rounds.reduce((sum, r) => sum + r.answers.length, 0);
      return `${procedure.title}, trial ${document.code}: ${history.rounds.length} rounds, ${readings} readings.\n`;
    }
    case "svg":
      return svgFacts(file, fileText(file));
    case "dxf": {
      const dxf = read(file, parseDxf(fileText(file)));
      return `DXF: ${dxf.paths.length} paths on ${new Set(dxf.paths.map((p) => p.layer)).size} layers.\n`;
    }
    case "nc":
    case "gcode": {
      const dialect = machineFile === undefined ? undefined : jsonFile(machineFile, machineSpecSchema).gcode;
      const gcode = read(file, parseGcode(fileText(file), { dialect }));
      return `G-code: ${burnedPaths(gcode).length} burned paths.\n`;
    }
    case "csv":
      if (fileText(file).startsWith(TABLE_BEGINS)) return tableText(read(file, parseFieldTableCsv(fileText(file))));
      return `CSV: ${read(file, parseCsv(fileText(file))).rows.length} rows.\n`;
    case "png": {
      const { width, height, density } = await pngFacts(file);
      return `PNG: ${width} × ${height} pixels, ${density ?? "unknown"} dpi.\n`;
    }
    case "sqlite":
      return checkBackup(file);
    default:
      throw new CliFault(file, "", "Only json, svg, dxf, nc, gcode, csv, png and sqlite files can be checked.");
  }
}

function ledgerFacts(file: string): string {
  const read = parseLedgerDocument(fileText(file));
  if (!read.ok) throw new CliFault(file, read.fault.path, read.fault.message);
  const { machine, entries } = read.document;
  const settings = new Set(entries.map((e) => e.setting)).size;
  return `Ledger of ${machine}: ${entries.length} entries of ${countText(settings, "setting")}.\n`;
}

function tableFacts(table: ReturnType<typeof parseFieldTableJson>, file: string): string {
  if (!table.ok) throw new CliFault(file, table.fault.path, table.fault.message);
  return tableText(table.document);
}

function tableText({ across, sideMm, nodes }: ReadTable): string {
  const largest = nodes.reduce((most, { dx, dy }) => Math.max(most, Math.hypot(dx, dy)), 0);
  return `Correction table: ${across} × ${across} nodes over ${plain(sideMm)} mm, largest shift ${plain(largest, 3)} mm.\n`;
}

function stockFacts(file: string): string {
  const read = parseStockDocument(fileText(file));
  if (!read.ok) throw new CliFault(file, read.fault.path, read.fault.message);
  const { cards } = read.document;
  const results = cards.flatMap((c) => c.batches).reduce((sum, b) => sum + b.results.length, 0);
  return `Stock: ${countText(cards.length, "card")}, ${countText(results, "result")}.\n`;
}

/** A coupon where its groups carry settings, any drawing otherwise. */
function svgFacts(file: string, text: string): string {
  const { widthMm, heightMm, paths } = read(file, parseSvgDrawing(text));
  const isCoupon = /\bdata-use=/.test(text);
  const groups = isCoupon ? ` in ${read(file, parseSvg(text)).settings.length} groups` : "";
  return `SVG, ${plain(widthMm)} × ${plain(heightMm)} mm: ${paths.length} paths${groups}.\n`;
}

async function pngFacts(file: string) {
  try {
    return await sharp(file, { limitInputPixels: MOST_PIXELS }).metadata();
  } catch {
    throw new CliFault(file, "", "This is no picture that can be read.");
  }
}

function read<T>(file: string, parsed: Parsed<T>): T {
  if (parsed.ok) return parsed.value;
  throw new CliFault(file, `line ${parsed.line}, column ${parsed.column}`, parsed.message);
}
