/** Prints what is promised, what was measured on this machine just now, and whether it holds. */
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { gzipSync } from "node:zlib";
import type { RoundSpec } from "../src/core/coupon/round-spec";
import { parseReading } from "../src/core/metrology/reading-text";
import { type Database, openDatabase } from "../src/data/database";
import { parseGcode } from "../src/formats/gcode-parser";
import { gcodeOf } from "../src/formats/gcode-writer";
import { accuracyCases, CALIPER_ERRORS, summaryOf } from "../src/rehearsal/scan-offset-accuracy";
import { addDemoBench } from "../src/server/bench/demo-bench";
import { burnOnPractice } from "../src/server/practice/practice-machine";
import { fullTrial, historyOf } from "../src/server/trial/trial-record";
import { beginTrial, openSession, takeReading } from "../src/server/trial/trial-steps";
import { files } from "./bench-files";
import { above, below, between, type Line } from "./bench-line";
import { workshop } from "./bench-workshop";

const PORT = 4881;
const SECOND_SEEDS = 50_000;

void main();

async function main(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-bench-"));
  const file = path.join(folder, "bench.sqlite");
  const db = openDatabase(file);
  addDemoBench(db, Date.now());
  const lines: Line[] = [
    ...parsing(),
    ...solving(db),
    ...taking(db),
    ...formats(db),
    ...files(burnedSpec(db)),
    ...accuracy(),
  ];
  db.$client.close();
  lines.push(...(await pageWeight(file)));
  lines.push(...(await workshop()));
  rmSync(folder, { recursive: true, force: true });
  for (const l of lines)
    console.log(`${l.holds ? "holds" : "FAILS"}  ${l.measured.padStart(10)}  ${l.target.padEnd(15)} ${l.what}`);
  process.exit(lines.every((l) => l.holds) ? 0 : 1);
}

function solving(db: Database): Line[] {
  const full = fullTrial(db, 1);
  const history = historyOf(full, 2);
  // As while reading, when it has run at every key before.
  median(60, () => full.procedure.solve(history));
  const ms = median(60, () => full.procedure.solve(history));
  return [{ what: "solve scan offset, two rounds, 84 readings, warm", ...below(ms, 5, "ms") }];
}

function taking(db: Database): Line[] {
  const trialId = beginTrial(db, "alder", "scan-offset", Date.now());
  burnOnPractice(db, trialId, 1, null, Date.now());
  openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, Date.now());
  let key = 0;
  const ms = median(60, () =>
    takeReading(
      db,
      {
        trialId,
        n: 1,
        site: "v300-left",
        input: { kind: "quantity", text: "0.31", words: "positive", unit: "mm" },
        from: "typed",
        clientKey: `bench-reading-${key++}`,
      },
      Date.now(),
    ),
  );
  return [{ what: "take a reading, to disk (synchronous FULL)", ...below(ms, 30, "ms") }];
}

function burnedSpec(db: Database): RoundSpec {
  const spec = fullTrial(db, 2).rounds[0]?.spec;
  if (!spec) throw new Error("the bench trial is not burned");
  return spec;
}

function formats(db: Database): Line[] {
  const full = fullTrial(db, 2);
  const spec = burnedSpec(db);
  const options = { couponCode: full.trial.code, machineName: full.machine.name, dialect: full.machine.gcode };
  const text = gcodeOf(spec, options);
  const writing = median(30, () => gcodeOf(spec, options));
  const parsing = median(30, () => parseGcode(text));
  const copying = median(30, () => text.split("\n").map((line) => line.split(" ")));
  return [
    { what: `write the G-code of a coupon (${text.split("\n").length} lines)`, ...below(writing, 20, "ms") },
    { what: "parse it, as a ratio to splitting it into words", ...below(parsing / copying, 30, "times") },
  ];
}

function accuracy(): Line[] {
  const whole = summaryOf(accuracyCases(1000, 300, CALIPER_ERRORS));
  const second = summaryOf(accuracyCases(SECOND_SEEDS, 300, CALIPER_ERRORS));
  const random = summaryOf(accuracyCases(7000, 2000, { ...CALIPER_ERRORS, limitMm: 0, jaws: false }));
  const randomSecond = summaryOf(accuracyCases(SECOND_SEEDS, 2000, { ...CALIPER_ERRORS, limitMm: 0, jaws: false }));
  const common = summaryOf(accuracyCases(SECOND_SEEDS, 2000, CALIPER_ERRORS));
  const errors = "play, lags, scale, row ends, placing 0.02, step 0.01, common ±0.02 mm";
  const quiet = summaryOf(
    accuracyCases(300, 50, { placingMm: 0, limitMm: 0, resolutionMm: 0, jaws: false, noise: false }),
  );
  return [
    { what: `stagger left under 0.03 mm at every speed (${errors})`, ...above(100 * whole.shareUnder30um, 99, "%") },
    { what: "the same, second seeds", ...above(100 * second.shareUnder30um, 99, "%") },
    { what: "median of the worst speed", ...below(1000 * whole.medianWorstMm, 12, "µm") },
    { what: "the same, second seeds", ...below(1000 * second.medianWorstMm, 12, "µm") },
    {
      what: "largest stagger left, all noise off (rounding of 0.001 mm a direction)",
      ...below(1000 * quiet.worstMm, 1, "µm"),
    },
    ...coverage("random parts only", random, (c, what) => ({ what, ...between(c, 93.5, 96.5, "%") })),
    ...coverage("random parts only, second seeds", randomSecond, (c, what) => ({
      what,
      ...between(c, 93.5, 96.5, "%"),
    })),
    ...coverage("common errors too", common, (c, what) => ({ what, ...above(c, 94, "%") })),
    {
      what: "widest mean half width by rms error, common errors too",
      ...below(Math.max(...common.estimates.map((e) => e.widthByError)), 2.6, "times"),
    },
  ];
}

/** The least and the most of all reported numbers: lag, constant part and offsets, first round and proof. */
function coverage(
  errors: string,
  summary: ReturnType<typeof summaryOf>,
  line: (percent: number, what: string) => Line,
) {
  const all = summary.estimates.map((e) => 100 * e.coverage);
  return [
    line(Math.min(...all), `95 % intervals that hold the truth, ${errors}: least of ${all.length} numbers`),
    line(Math.max(...all), "the same, most"),
  ];
}

/** Parsing what technicians type. */
function parsing(): Line[] {
  const texts = ["1.46", "12,5", "0.0035 in", "1 3/8 in", "350+6 mm", "1.46/2", "8 thou", "50 µm", "0.2x", "1-3/8"];
  const count = 200_000;
  let taken = 0;
  const began = performance.now();
  for (let i = 0; i < count; i++) if (parseReading(texts[i % texts.length] as string, "length").ok) taken++;
  const perSecond = (1000 * count) / (performance.now() - began);
  if (taken !== (count * 8) / texts.length) throw new Error(`parsing: ${taken} of ${count} taken`);
  return [{ what: "readings parsed a second, one in five refused", ...above(perSecond / 1000, 100, "thousand") }];
}

/** All scripts that the bench page asks for, compressed. Needs a build. */
async function pageWeight(file: string): Promise<Line[]> {
  const server = spawn(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(PORT)],
    {
      env: { ...process.env, USTRINA_DATABASE: file, NEXT_TELEMETRY_DISABLED: "1" },
    },
  );
  try {
    await new Promise<void>((resolve, reject) => {
      server.stdout.on("data", (data) => String(data).includes("Ready") && resolve());
      server.on("exit", () => reject(new Error("the server did not start: run the build first")));
    });
    const origin = `http://127.0.0.1:${PORT}`;
    const html = await (await fetch(origin)).text();
    const scripts = [...new Set([...html.matchAll(/\/_next\/static\/[^"'\\]+\.js/g)].map((m) => m[0]))];
    let bytes = 0;
    for (const script of scripts)
      bytes += gzipSync(Buffer.from(await (await fetch(origin + script)).arrayBuffer())).length;
    return [
      { what: `JavaScript of the bench page, compressed (${scripts.length} files)`, ...below(bytes / 1000, 250, "kB") },
    ];
  } finally {
    server.kill();
  }
}

function median(times: number, act: () => unknown): number {
  const all = Array.from({ length: times }, () => {
    const began = performance.now();
    act();
    return performance.now() - began;
  }).sort((a, b) => a - b);
  return all[times >> 1] ?? Number.NaN;
}
