/** Pictures of 35 megapixels: how soon the coupon is found and read in Chromium, whether the page stays free meanwhile, and how well. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { MM_PER_INCH } from "../../src/core/metrology/units";
import { openDatabase } from "../../src/data/database";
import { greyPng } from "../../src/formats/png-writer";
import { SCAN_LOOK, scanPicture } from "../../src/practice/scan-picture";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { burnOnPractice, practiceBurnOf } from "../../src/server/trial/burn-on-practice";
import { fullTrial, roundOf } from "../../src/server/trial/trial-record";
import { beginTrial } from "../../src/server/trial/trial-steps";
import {
  burnedLadder,
  burnedRows,
  pictureOf,
  readOf,
  rms,
  siteErrors,
} from "../../src/testing/rehearsal/picture-accuracy";
import { droppedPicture } from "./dropped-picture";
import { below, type Line } from "./line";

const MEGA = 1e6;

export async function pictures(): Promise<Line[]> {
  return [...(await inTheBrowser()), ...accuracy()];
}

async function inTheBrowser(): Promise<Line[]> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-pictures-"));
  const file = path.join(folder, "bench.sqlite");
  const db = openDatabase(file);
  const now = Date.now();
  addDemoBench(db, now);
  const trialId = beginTrial(db, "alder", "scan-offset", now);
  burnOnPractice(db, trialId, 1, null, now + 1);
  const full = fullTrial(db, trialId);
  const round = roundOf(full, 1);
  const burn = practiceBurnOf(db, full, round);
  const [piece] = round.spec?.pieces ?? [];
  if (!burn || !piece || !round.spec) throw new Error("nothing is burned");
  const look = { ...SCAN_LOOK, dpi: 1310, turnDeg: 1.2, marginMm: 4 };
  const drawn = scanPicture(burn.marks, burn.corner, piece, look, 3);
  const scan = await greyPng({ ...drawn, pixelsPerMm: look.dpi / MM_PER_INCH });
  db.$client.close();
  const scanFile = path.join(folder, "scan.png");
  writeFileSync(scanFile, scan);
  try {
    const seen = { found: "polygon", read: "[aria-label='What the picture shows']" };
    const { first, longestTaskMs, memoryMb } = await droppedPicture(file, trialId, scanFile, seen, "read");
    const mega = (drawn.width * drawn.height) / MEGA;
    const what = `picture of ${mega.toFixed(0)} megapixels in Chromium`;
    return [
      // Includes the comparison with all neighbouring places.
      { what: `${what}: coupon found and drawn, from decoded`, ...below(first("found"), 2000, "ms") },
      { what: `${what}: all sites read`, ...below(first("read"), 3000, "ms") },
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

function accuracy(): Line[] {
  const staggers = [21, 22, 23, 24, 25, 26, 27, 28, 29, 30].flatMap((seed) => {
    const coupon = burnedRows(seed, 50 * (seed - 19));
    const turnDeg = seed % 2 ? 5 : -2.5;
    return siteErrors(coupon, readOf(coupon, pictureOf(coupon, { turnDeg }, seed), 1200)).filter((e) =>
      /^v\d/.test(e.site),
    );
  });
  const widths = [11, 12, 13].flatMap((seed) => {
    const coupon = burnedLadder(seed);
    return siteErrors(coupon, readOf(coupon, pictureOf(coupon, {}, seed), 1200)).filter((e) => !/narrow/.test(e.note));
  });
  return [
    {
      what: "stagger of 40 rows from a scan at 1200 dpi (ends scatter by 3 um, turned up to 5 degrees, uneven light, grain, blur, dirt), rms",
      ...below(rms(staggers) * 1000, 0.5, "um"),
    },
    {
      what: "widths above four blurs from a scan at 1200 dpi (light, grain, blur, dirt), rms",
      ...below(rms(widths) * 1000, 1, "um"),
    },
  ];
}
