/** A scan of the practice piece of a round, as a flatbed scanner would give it. */

import { scanOfDots } from "../../burning/scanned-dots";
import type { Piece } from "../../core/coupon/piece";
import type { Rect } from "../../core/geometry/rect";
import { MM_PER_INCH } from "../../core/metrology/units";
import type { Db } from "../../data/database";
import { greyPng } from "../../formats/png-writer";
import { cellLooks } from "../../practice/cell-look";
import { seeded, seedOf } from "../../practice/random";
import { SCAN_LOOK, scanPicture } from "../../practice/scan-picture";
import { shadedMarks } from "../../practice/shaded-marks";
import { Refusal } from "../refusal";
import { practiceBurnOf } from "./burn-on-practice";
import { type FullTrial, roundOf } from "./trial-record";

/** Dots per inch that practice scanners have. */
export const SCAN_DPI = [300, 600, 1200] as const;
const MOST_TURN_DEG = 1.5;

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
  const marks = look?.kind === "cell look" ? shadedIn(burn, look.cells, piece, full.machine, seed) : burn.marks;
  const turnDeg = seeded(seed).between(-MOST_TURN_DEG, MOST_TURN_DEG);
  const picture = scanPicture(marks, burn.corner, piece, { ...SCAN_LOOK, dpi, turnDeg }, seed);
  return greyPng({ ...picture, pixelsPerMm: dpi / MM_PER_INCH });
}

/** Cells of an array with the shade that the stock gave them. */
function shadedIn(
  burn: NonNullable<ReturnType<typeof practiceBurnOf>>,
  cells: readonly Rect[],
  { stockKey = "" }: Piece,
  { topSpeedMmPerS }: FullTrial["machine"],
  seed: number,
) {
  const looks = cellLooks(cells, burn.marks, burn.corner, { seed: burn.seed, stock: stockKey, topSpeedMmPerS });
  return shadedMarks(burn.marks, cells, looks, burn.corner, SCAN_LOOK.shades.stock, seed);
}
