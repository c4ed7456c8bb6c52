/** The cells of a burned array as a practice scanner shows them: each with the shade that the stock gave it. */
import type { Piece } from "../core/coupon/piece";
import type { Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import type { MachineSpec } from "../core/machine/machine-spec";
import { MM_PER_INCH } from "../core/metrology/units";
import { cellLooks } from "../practice/cell-look";
import type { Mark } from "../practice/gantry";
import { seeded } from "../practice/random";
import { SCAN_LOOK, scanPicture } from "../practice/scan-picture";
import { shadedMarks } from "../practice/shaded-marks";

/** A stock lies on the glass turned by up to this. */
export const MOST_TURN_DEG = 1.5;

export type BurnedArray = {
  marks: readonly Mark[];
  /** Where the corner of the stock truly lay. */
  corner: Placement;
  piece: Piece;
  machine: Pick<MachineSpec, "topSpeedMmPerS">;
  /** Of the practice machine. */
  seed: number;
};

/** @param chance of this scan */
export function scanOfArray(
  { marks, corner, piece, machine, seed }: BurnedArray,
  { cells }: Extract<Measurand, { kind: "cell look" }>,
  dpi: number,
  chance: number,
) {
  const surface = { seed, stock: piece.stockKey ?? "", topSpeedMmPerS: machine.topSpeedMmPerS };
  const looks = cellLooks(cells, marks, corner, surface);
  const shaded = shadedMarks(marks, cells, looks, corner, SCAN_LOOK.shades.stock, chance);
  const turnDeg = seeded(chance).between(-MOST_TURN_DEG, MOST_TURN_DEG);
  return {
    ...scanPicture(shaded, corner, piece, { ...SCAN_LOOK, dpi, turnDeg }, chance),
    pixelsPerMm: dpi / MM_PER_INCH,
  };
}
