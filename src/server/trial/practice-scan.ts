/** A scan of the practice piece of a round, as a flatbed scanner would give it. */

import { MOST_TURN_DEG, scanOfArray } from "../../burning/scanned-array";
import { colourScanOfArray } from "../../burning/scanned-colours";
import { scanOfDots } from "../../burning/scanned-dots";
import { MM_PER_INCH } from "../../core/metrology/units";
import type { Db } from "../../data/database";
import { colourPng, greyPng } from "../../formats/png-writer";
import { seeded, seedOf } from "../../practice/random";
import { SCAN_LOOK, scanPicture } from "../../practice/scan-picture";
import { Refusal } from "../refusal";
import { practiceBurnOf } from "./burn-on-practice";
import { type FullTrial, roundOf } from "./trial-record";

/** Dots per inch that practice scanners have. */
export const SCAN_DPI = [300, 600, 1200] as const;

/**
 * @param site of a grid of dots: as that scan is laid on the glass; else empty
 * @throws Refusal when it was not burned on the practice machine
 */
export async function practiceScan(db: Db, full: FullTrial, n: number, dpi: number, site = ""): Promise<Buffer> {
  const round = roundOf(full, n);
  const [piece] = round.spec?.pieces ?? [];
  const burn = practiceBurnOf(db, full, round);
  if (!burn || !piece) throw new Refusal("file", "This coupon was not burned on the practice machine.");
  const dots = round.spec?.sites.find((s) => s.measurand.kind === "dots" && (site === "" || s.id === site))?.measurand;
  const seed = seedOf(burn.seed, full.trial.code, n, "scan", ...(dots ? [site] : []));
  if (dots?.kind === "dots") return greyPng(scanOfDots(burn.marks, dots, burn.seed, dpi, seed));
  const look = round.spec?.sites.find((s) => s.measurand.kind === "cell look")?.measurand;
  if (look?.kind === "cell look")
    return greyPng(scanOfArray({ ...burn, piece, machine: full.machine }, look, dpi, seed));
  const colour = round.spec?.sites.find((s) => s.measurand.kind === "cell colour")?.measurand;
  if (colour?.kind === "cell colour")
    return colourPng(colourScanOfArray({ ...burn, piece, machine: full.machine }, colour, dpi, seed));
  const turnDeg = seeded(seed).between(-MOST_TURN_DEG, MOST_TURN_DEG);
  const picture = scanPicture(burn.marks, burn.corner, piece, { ...SCAN_LOOK, dpi, turnDeg }, seed);
  return greyPng({ ...picture, pixelsPerMm: dpi / MM_PER_INCH });
}
