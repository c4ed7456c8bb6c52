/** An enlarged picture of one point of a practice coupon, from above, with the grain of the stock. */
import { type CouponPoint, onCoupon } from "../../core/geometry/frames";
import { MM_PER_INCH } from "../../core/metrology/units";
import type { Db } from "../../data/database";
import { greyPng } from "../../formats/png-writer";
import type { Mark } from "../../practice/gantry";
import { seedOf } from "../../practice/random";
import { SCAN_LOOK, scanPicture } from "../../practice/scan-picture";
import { Refusal } from "../refusal";
import { practiceBurnOf } from "./burn-on-practice";
import { type FullTrial, roundOf } from "./trial-record";

/** Width of the picture, pixels. */
const ACROSS_PX = 640;
export const LOOK_MM = { least: 0.5, most: 60 } as const;

/**
 * @param at middle of the picture, mm on the coupon
 * @param acrossMm width and height of the picture, mm
 * @throws Refusal if the coupon was not burned on the practice machine, or if point or width cannot be shown
 */
export async function practiceLook(
  db: Db,
  full: FullTrial,
  n: number,
  at: CouponPoint,
  acrossMm: number,
): Promise<Buffer> {
  if (!(Number.isFinite(at.x) && Number.isFinite(at.y)))
    throw new Refusal("at", "The point is not a number. Enter x and y in mm.");
  if (!(acrossMm >= LOOK_MM.least && acrossMm <= LOOK_MM.most))
    throw new Refusal(
      "across",
      `The width cannot be shown. Enter a width between ${LOOK_MM.least} and ${LOOK_MM.most} mm.`,
    );
  const burn = practiceBurnOf(db, full, roundOf(full, n));
  if (!burn) throw new Refusal("file", "This coupon was not burned on the practice machine.");
  const corner = { x: at.x - acrossMm / 2, y: at.y - acrossMm / 2 };
  const isSeen = ({ x0, y0, x1, y1, widthMm }: Mark) =>
    Math.max(x0, x1) > -widthMm &&
    Math.min(x0, x1) < acrossMm + widthMm &&
    Math.max(y0, y1) > -widthMm &&
    Math.min(y0, y1) < acrossMm + widthMm;
  const marks = burn.marks
    .map((mark): Mark => {
      const [from, to] = [
        onCoupon({ x: mark.x0, y: mark.y0 }, burn.corner),
        onCoupon({ x: mark.x1, y: mark.y1 }, burn.corner),
      ];
      return { ...mark, x0: from.x - corner.x, y0: from.y - corner.y, x1: to.x - corner.x, y1: to.y - corner.y };
    })
    .filter(isSeen);
  const dpi = (ACROSS_PX / acrossMm) * MM_PER_INCH;
  const look = { ...SCAN_LOOK, dpi, turnDeg: 0, marginMm: 0, specks: 2 };
  const area = { widthMm: acrossMm, heightMm: acrossMm };
  const seed = seedOf(burn.seed, full.trial.code, n, "look", at.x.toFixed(1), at.y.toFixed(1));
  return greyPng({ ...scanPicture(marks, { xMm: 0, yMm: 0 }, area, look, seed), pixelsPerMm: ACROSS_PX / acrossMm });
}
