/** What is promised of files: how long writing and reading takes, and what broken ones do. */
import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import type { RoundSpec } from "../../src/core/coupon/round-spec";
import { USUAL_DIALECT } from "../../src/core/machine/gcode-dialect";
import { parseCsv } from "../../src/formats/csv";
import { parseDxf } from "../../src/formats/dxf-parser";
import { dxfOf } from "../../src/formats/dxf-writer";
import { parseGcode } from "../../src/formats/gcode-parser";
import { gcodeOf } from "../../src/formats/gcode-writer";
import { parseReadingsCsv, sheetToFill } from "../../src/formats/readings-csv";
import { parseSvgDrawing } from "../../src/formats/svg-drawing";
import { parseSvg } from "../../src/formats/svg-parser";
import { svgOf } from "../../src/formats/svg-writer";
import { parseTrialDocument } from "../../src/formats/trial-document";
import { mangled } from "../../src/testing/mangled-text";
import { above, below, type Line } from "./line";

const MANGLED = 100_000;
const LARGE = 50_000_000;

type Parser = { name: string; good: string; parse: (text: string) => { ok: boolean } };

export function files(spec: RoundSpec): Line[] {
  const parsers = parsersFor(spec);
  return [...streaming(), ...reading(), ...parsers.flatMap(broken), ...parsers.map(large), ...hostile()];
}

function parsersFor(spec: RoundSpec): Parser[] {
  const [piece] = spec.pieces;
  if (!piece) throw new Error("the bench trial has no piece");
  // Small: so that a mangle hits something more often than it hits the middle of a list.
  const small = { ...piece, paths: piece.paths.slice(-6), settings: piece.settings };
  const one = { ...spec, pieces: [small] };
  const document = JSON.parse(readFileSync("examples/scan-offset/trial.json", "utf8"));
  for (const round of document.rounds) Object.assign(round, { spec: null, readings: round.readings.slice(0, 4) });
  const gcode = gcodeOf(one, { couponCode: "T-1", machineName: "T", dialect: USUAL_DIALECT });
  const sheet = sheetToFill(spec.sites, [], "mm");
  return [
    { name: "SVG", good: svgOf(small), parse: parseSvg },
    { name: "SVG drawing", good: svgOf(small), parse: parseSvgDrawing },
    { name: "DXF", good: dxfOf(small), parse: parseDxf },
    { name: "G-code", good: gcode, parse: parseGcode },
    { name: "CSV", good: sheet, parse: parseCsv },
    { name: "sheet", good: sheet, parse: (text) => parseReadingsCsv(text, spec.sites) },
    { name: "trial document", good: JSON.stringify(document), parse: parseTrialDocument },
  ];
}

function streaming(): Line[] {
  const run = spawnSync(process.execPath, ["--import", "tsx", "scripts/bench/stream.ts"], { encoding: "utf8" });
  const { moves, ms, residentMb } = JSON.parse(run.stdout) as { moves: number; ms: number; residentMb: number };
  if (moves < 1_000_000) throw new Error(`streaming: only ${moves} moves were written`);
  return [
    { what: "stream a coupon of a million moves as G-code", ...below(ms / 1000, 3, "s") },
    { what: "the most memory it holds", ...below(residentMb, 250, "MB") },
  ];
}

function reading(): Line[] {
  const rows = Array.from({ length: 200_000 }, (_, i) => `G1 X${(i % 997) / 4} Y${(i % 1009) / 8} S100`);
  const text = ["G21 G90", "M3 S0 F6000", ...rows, "M5", "M2", ""].join("\n");
  if (!parseGcode(text).ok) throw new Error("reading: the file is refused");
  return [
    {
      what: "read 200,000 lines of G-code",
      ...below(
        timed(() => parseGcode(text)),
        1000,
        "ms",
      ),
    },
  ];
}

/** No crash, none slow; a crash ends the bench. */
function broken({ name, good, parse }: Parser): Line[] {
  if (!parse(good).ok) throw new Error(`${name}: the good file is refused`);
  let [slowest, refused] = [0, 0];
  for (const text of mangled(good, MANGLED, 77)) {
    const began = performance.now();
    if (!parse(text).ok) refused++;
    slowest = Math.max(slowest, performance.now() - began);
  }
  const share = (100 * refused) / MANGLED;
  return [
    {
      what: `${name}: slowest of ${MANGLED.toLocaleString("en")} mangled files, no crash`,
      ...below(slowest, 1000, "ms"),
    },
    { what: `${name}: of them refused with a place or field`, ...above(share, 10, "%") },
  ];
}

function large({ name, good, parse }: Parser): Line {
  const text = good.repeat(Math.ceil(LARGE / good.length)).slice(0, LARGE);
  if (parse(text).ok) throw new Error(`${name}: 50 MB are taken`);
  return {
    what: `${name}: refuse a file of 50 MB`,
    ...below(
      timed(() => parse(text)),
      1000,
      "ms",
    ),
  };
}

/** The worst that was found just below the limits: each is refused, and soon. */
function hostile(): Line[] {
  const sheet = '<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm" viewBox="0 0 9 9">';
  const files: [string, () => { ok: boolean }][] = [
    [
      "SVG of 19,000 paths, then text",
      () => parseSvgDrawing(`${sheet}${'<path d="M0 0L1 1"/>'.repeat(19_000)}<text/></svg>`),
    ],
    [
      "SVG of one path of 1.1 MB, broken at its end",
      () => parseSvgDrawing(`${sheet}<path d="M0 0${"L1 1".repeat(280_000)}Q"/></svg>`),
    ],
    ["G-code of 400,000 moves, and then one more", () => parseGcode(`G21 F1\n${"G1X1\n".repeat(599_000)}`)],
    ["G-code of 8 MB without an end", () => parseGcode(`G21 F1\n${"G1X1\n".repeat(1_590_000)}`)],
    ["G-code of dots and comments", () => parseGcode("(a)\n".repeat(1_990_000))],
    ["DXF of 5 MB of sections", () => parseDxf("0\nSECTION\n".repeat(490_000))],
    ["DXF of 5 MB of group codes", () => parseDxf("0\n".repeat(2_490_000))],
    ["CSV of 2 MB of one open text", () => parseCsv('a,b,"c\n'.repeat(280_000))],
    ["JSON of 8 MB of brackets", () => parseTrialDocument("[".repeat(7_990_000))],
    ["JSON of a string of 8 MB", () => parseTrialDocument(`{"a":"${"x".repeat(7_980_000)}"}`)],
    [
      "JSON of 60,000 empty rounds",
      () => parseTrialDocument(`{"format":"ustrina trial","version":2,"rounds":[${"{},".repeat(60_000)}{}]}`),
    ],
  ];
  return files.map(([what, parse]) => {
    const ms = timed(() => {
      if (parse().ok) throw new Error(`${what}: taken`);
    });
    return { what: `refuse ${what}`, ...below(ms, 1000, "ms") };
  });
}

function timed(act: () => unknown): number {
  const began = performance.now();
  act();
  return performance.now() - began;
}
