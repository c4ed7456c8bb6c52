/** The field of a galvo by a grid of dots: what is left after one table, dots in pictures, and time beside a general-purpose library. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { scanOfDots } from "../../src/burning/scanned-dots";
import { fitPlaneMap } from "../../src/core/fitting/plane-map";
import { findDots } from "../../src/core/picture/dots/find-dots";
import { lightOf } from "../../src/core/picture/dots/light";
import { piecesIn } from "../../src/core/picture/dots/pieces";
import { readGrid } from "../../src/core/picture/dots/read-grid";
import { LARGE_NODES } from "../../src/core/picture/dots/turn-by-the-l";
import { tableNodes } from "../../src/core/procedures/field/table";
import type { FieldTable } from "../../src/core/settings/field-table";
import { openDatabase } from "../../src/data/database";
import { greyPng } from "../../src/formats/png-writer";
import { type Random, seeded } from "../../src/practice/random";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { burnOnPractice, practiceBurnOf } from "../../src/server/trial/burn-on-practice";
import { fullTrial, roundOf } from "../../src/server/trial/trial-record";
import { beginTrial, keepDraft } from "../../src/server/trial/trial-steps";
import { type DotLook, type DrawnDot, dotPicture } from "../../src/testing/dot-picture";
import { type GridCase, gridTrial } from "../../src/testing/rehearsal/grid-accuracy";
import { droppedPicture } from "./dropped-picture";
import { below, between, exactly, type Line } from "./line";
import { blobs, componentsTime, openCv } from "./opencv";
import { besideSciPy } from "./scipy";

const SEEDS = Array.from({ length: 300 }, (_, i) => i + 1);
const ERRORS =
  "scanner: X/Y 0.2 %, skew 0.1 %, bands 10 um, waves 0.008 mm; dots 0.02 px at 600 dpi; calipers: placing 0.02, step 0.01, common ±0.02 mm";

/** Left after one correction, mm: median and 95 %. */
const GOALS: readonly {
  c: GridCase;
  what: string;
  rms: [number, number];
  worst: [number, number];
  shape?: [number, number];
}[] = [
  {
    c: { pictures: "two", lengths: "diagonals" },
    what: "two scans, four lengths read four times each",
    rms: [0.007, 0.013],
    worst: [0.017, 0.028],
    shape: [0.005, 0.008],
  },
  {
    c: { pictures: "one", lengths: "diagonals" },
    what: "one scan with both diagonals",
    rms: [0.01, 0.014],
    worst: [0.025, 0.035],
  },
  {
    c: { pictures: "one", lengths: "sides" },
    what: "one scan with two lengths alone",
    rms: [0.017, 0.026],
    worst: [0.04, 0.065],
  },
];

export async function grid(): Promise<Line[]> {
  return [
    ...GOALS.flatMap(accuracyOf),
    ...(await centres()),
    ...indices(),
    ...besideSciPy(),
    ...(await times()),
    ...(await inTheBrowser()),
    tableTime(),
  ];
}

function accuracyOf({ c, what, rms, worst, shape }: (typeof GOALS)[number]): Line[] {
  const trials = SEEDS.map((seed) => gridTrial(seed, c));
  const lines = (
    name: string,
    of: (t: (typeof trials)[number]) => number,
    [median, most]: [number, number],
  ): Line[] => [
    { what: `${what}: ${name}, median of 300 heads`, ...below(quantile(trials.map(of), 0.5), median, "mm") },
    { what: `${what}: ${name}, 95 % of heads`, ...below(quantile(trials.map(of), 0.95), most, "mm") },
  ];
  const sum = (of: (t: (typeof trials)[number]) => number) => trials.reduce((s, t) => s + of(t), 0);
  return [
    ...lines(`left over a field of 110 mm after one table, rms (25 × 25 dots; ${ERRORS})`, (t) => t.rms, rms),
    ...lines("farthest point", (t) => t.worst, worst),
    ...(shape ? lines("shape alone, scale and shear taken out, rms", (t) => t.shape, shape) : []),
    {
      what: `${what}: 95 % intervals over the field that hold, ${sum((t) => t.of)} numbers`,
      ...between((100 * sum((t) => t.held)) / sum((t) => t.of), 93, 98, "%"),
    },
  ];
}

type Finely = { dpi: number; r: number; pitch: number; blurPx: number; grain: number; most: number };

const FINE: readonly Finely[] = [
  { dpi: 300, r: 5.9, pitch: 51, blurPx: 0.8, grain: 1.5, most: 0.015 },
  { dpi: 600, r: 11.8, pitch: 102, blurPx: 1.1, grain: 2.5, most: 0.02 },
  { dpi: 1200, r: 23.6, pitch: 204, blurPx: 1.6, grain: 4, most: 0.03 },
];
const LIT = 0.15;
const NOISE = 1.5;

/** 15 by 15 dots that fall anywhere within a pixel, each found dot against where it was drawn, and by the library on the same pictures. */
async function centres(): Promise<Line[]> {
  const { cv } = await openCv();
  return FINE.flatMap(({ dpi, r, pitch, blurPx, grain, most }): Line[] => {
    const [ours, theirs]: [number[], number[]] = [[], []];
    for (const seed of [1, 2, 3]) {
      const random = seeded(seed);
      const dots = Array.from(
        { length: 225 },
        (_, i): DrawnDot => ({
          x: pitch * (1 + (i % 15)) + random.between(-0.5, 0.5),
          y: pitch * (1 + Math.floor(i / 15)) + random.between(-0.5, 0.5),
          r,
        }),
      );
      const side = Math.ceil(16 * pitch);
      const look = { width: side, height: side, blurPx, grain, noise: NOISE, light: LIT };
      const picture = dotPicture(dots, look, random);
      ours.push(...errorsOf(dots, findDots(picture, false).dots, pitch));
      theirs.push(...errorsOf(dots, blobs(cv, picture), pitch));
    }
    const what = `centres of dots at ${dpi} dpi (light falls off by 15 %, grain ${grain} and noise 1.5 grey levels, blur ${blurPx} px), rms along an axis`;
    return [
      { what, ...below(rms(ours), most, "px") },
      {
        what: `the same, as a share of that of the blob detector of OpenCV 4.12, its half pixel taken off`,
        ...below(rms(ours) / rms(theirs), 1, "times"),
      },
    ];
  });
}

function errorsOf(dots: readonly DrawnDot[], found: readonly { x: number; y: number }[], pitch: number): number[] {
  return dots.flatMap((d) => {
    const at = found.find((f) => Math.hypot(f.x - d.x, f.y - d.y) < pitch / 2);
    return at ? [at.x - d.x, at.y - d.y] : [99, 99];
  });
}

function rms(values: readonly number[]): number {
  return Math.sqrt(values.reduce((s, e) => s + e * e, 0) / values.length);
}

/** Grids turned by up to 5 degrees, bent, with missing dots and specks: a wrong index would be a wrong field. */
function indices(): Line[] {
  let [wrong, refused, clean] = [0, 0, 0];
  for (let seed = 1; seed <= 1000; seed++) {
    const random = seeded(90_000 + seed);
    const across = 11 + 2 * Math.floor(random.between(0, 5));
    const hard = seed % 2 === 0;
    const drawn = gridOf(across, hard ? random.between(0, 0.2) : 0.02, hard ? 80 : 15, random);
    const read = readGrid(dotPicture(drawn.dots, drawn.look, random), across, false);
    if (!hard) clean++;
    if (!read.ok) {
      if (!hard) refused++;
      continue;
    }
    for (const dot of read.dots) {
      const truth = drawn.at[dot.index];
      if (!truth || Math.hypot(truth.x - dot.x, truth.y - dot.y) > 2) wrong++;
    }
  }
  return [
    {
      what: "wrong indices in 1000 pictures of 11 to 19 dots a side (up to 20 % missing, 80 specks, 5 degrees, bent by 2 %, uneven light, grain)",
      ...exactly(wrong, 0),
    },
    {
      what: "of those with 2 % missing and 15 specks, refused",
      ...below((100 * refused) / clean, 2, "%"),
    },
  ];
}

function gridOf(across: number, missing: number, specks: number, random: Random) {
  const [pitch, r] = [26, 3.4];
  const half = (across - 1) / 2;
  const side = Math.ceil((across + 3) * pitch);
  const turn = random.between(-5, 5) * (Math.PI / 180);
  const bow = random.between(-0.02, 0.02);
  const large = new Set(LARGE_NODES.map((n) => `${n.column} ${n.row}`));
  const at: ({ x: number; y: number } | undefined)[] = [];
  const dots: DrawnDot[] = [];
  for (let row = -half; row <= half; row++)
    for (let column = -half; column <= half; column++) {
      const [u, v] = [column / half, row / half];
      const [x, y] = [pitch * column * (1 + bow * v * v), pitch * row * (1 - bow * u * u)];
      const place = {
        x: side / 2 + Math.cos(turn) * x - Math.sin(turn) * y,
        y: side / 2 - Math.sin(turn) * x - Math.cos(turn) * y,
      };
      at.push(place);
      const isLarge = large.has(`${column} ${row}`);
      if (random.even() >= missing) dots.push({ ...place, r: isLarge ? 1.5 * r : r });
    }
  for (let i = 0; i < specks; i++)
    dots.push({ x: random.between(0, side), y: random.between(0, side), r: random.between(0.8, 2.4) });
  const look: DotLook = { width: side, height: side, blurPx: 0.9, grain: 3, noise: NOISE, light: 0.25 };
  return { dots, at, look };
}

/** A picture of 35 megapixels, on one thread. */
async function times(): Promise<Line[]> {
  const { cv } = await openCv();
  const random = seeded(7);
  const [across, pitch, r] = [25, 236, 23.6];
  const side = 5920;
  const large = new Set(LARGE_NODES.map((n) => `${n.column} ${n.row}`));
  const dots = Array.from({ length: across * across }, (_, i): DrawnDot => {
    const [column, row] = [(i % across) - 12, Math.floor(i / across) - 12];
    return {
      x: side / 2 + pitch * 0.98 * column + random.between(-2, 2),
      y: side / 2 - pitch * 0.98 * row + random.between(-2, 2),
      r: large.has(`${column} ${row}`) ? 1.5 * r : r,
    };
  });
  const picture = dotPicture(
    dots,
    { width: side, height: side, blurPx: 1.6, grain: 5, noise: NOISE, light: LIT },
    random,
  );
  const [ours, theirs, whole]: [number[], number[], number[]] = [[], [], []];
  for (let k = 0; k < 5; k++) {
    let began = performance.now();
    piecesIn(picture, lightOf(picture, false));
    ours.push(performance.now() - began);
    theirs.push(componentsTime(cv, picture));
    began = performance.now();
    const read = readGrid(picture, across, false);
    if (!read.ok) throw new Error(read.why);
    fitPlaneMap(
      read.dots.map((d) => ({ from: { x: (d.index % across) - 12, y: Math.floor(d.index / across) - 12 }, to: d })),
      5,
      12,
    );
    whole.push(performance.now() - began);
  }
  const median = (values: readonly number[]) => quantile(values, 0.5);
  return [
    {
      what: "threshold and pieces of 35 megapixels, as a share of the time of Otsu and connected components in OpenCV 4.12 (WebAssembly), one thread",
      ...below(median(ours) / median(theirs), 1, "times"),
    },
    { what: "the same with centres, indices and the map, from decoded", ...below(median(whole), 1000, "ms") },
  ];
}

/** A scan of a burned grid, dropped on the page of its trial. */
async function inTheBrowser(): Promise<Line[]> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-grid-"));
  try {
    const file = path.join(folder, "bench.sqlite");
    const db = openDatabase(file);
    const now = Date.now();
    addDemoBench(db, now);
    const trialId = beginTrial(db, "cinder", "field", now);
    keepDraft(db, trialId, 1, { ...roundOf(fullTrial(db, trialId), 1).draft, how: "grid", takes: "table" });
    burnOnPractice(db, trialId, 1, null, now + 1);
    const full = fullTrial(db, trialId);
    const round = roundOf(full, 1);
    const burn = practiceBurnOf(db, full, round);
    const dots = round.spec?.sites.map((s) => s.measurand).find((m) => m.kind === "dots");
    if (!burn || !dots) throw new Error("no grid is burned");
    db.$client.close();
    const drawn = scanOfDots(burn.marks, dots, burn.seed, 1310, 3);
    const scanFile = path.join(folder, "scan.png");
    writeFileSync(scanFile, await greyPng(drawn));
    const seen = { read: "[aria-label='What the picture shows']" };
    const { first, longestTaskMs, memoryMb } = await droppedPicture(file, trialId, scanFile, seen, "read");
    const mega = (drawn.width * drawn.height) / 1e6;
    const what = `scan of a grid, ${mega.toFixed(0)} megapixels, in Chromium`;
    return [
      { what: `${what}: all dots found, indexed and drawn, from decoded`, ...below(first("read"), 1000, "ms") },
      { what: `${what}: memory of the page beyond the picture itself, at most`, ...below(memoryMb - mega, 150, "MB") },
      {
        what: `${what}: longest task of the page meanwhile (0 = none of 50 ms)`,
        ...below(longestTaskMs, 50, "ms"),
      },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function tableTime(): Line {
  const table: FieldTable = {
    shape: "map",
    undone: [
      {
        map: {
          degree: 5,
          half: 55,
          x: [0, 55.3, 0.1, 0.05, 0.1, 0.02, 0.2, 0.03, 1.1, 0.02, 0, 0, 0, 0, 0, 0.05, 0, 0.02, 0, 0.01, 0],
          y: [0, 0, 54.8, 0.03, 0.1, 0.04, 0.02, -2.1, 0.01, 0.2, 0, 0, 0, 0, 0, 0, 0.03, 0, 0.02, 0, 0.04],
        },
        reachMm: 52,
      },
    ],
    form: null,
  };
  const once = () => {
    const began = performance.now();
    if (tableNodes(table, 257, 110).length !== 257 * 257) throw new Error("no table");
    return performance.now() - began;
  };
  once();
  const spent = Array.from({ length: 5 }, once);
  return {
    what: "table of 257 × 257 nodes, each undone by iteration, degree 5, warm",
    ...below(quantile(spent, 0.5), 150, "ms"),
  };
}

function quantile(values: readonly number[], share: number): number {
  return (
    [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? Number.NaN
  );
}
