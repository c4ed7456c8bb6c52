/** The straight way that a row needs before it, v^2 = 2 a L, and how fast a row may be where the bed leaves so much room. */
import type { MachineSpec } from "../machine/machine-spec";

/** A run-up is longer than the acceleration asks by this factor. */
const RESERVE = 1.2;
/** From the edge of the stock to the first row, mm, at least. */
const EDGE_ROOM_MM = 4;

type Accelerated = Pick<MachineSpec, "kind" | "accelerationMmPerS2" | "widthMm">;

/** Straight way before and after a row, mm. */
export function runUpMm(
  speedMmPerS: number,
  { kind, accelerationMmPerS2 }: Pick<MachineSpec, "kind" | "accelerationMmPerS2">,
): number {
  if (kind === "galvo" || accelerationMmPerS2 === null) return 0;
  return Math.ceil((100 * RESERVE * speedMmPerS ** 2) / (2 * accelerationMmPerS2)) / 100;
}

/** The largest speed of rows for whose run-up the bed has room beside the stock, mm/s. */
export function fastestRow(
  { stockAtXMm, stockWidthMm }: { stockAtXMm: number; stockWidthMm: number },
  { kind, accelerationMmPerS2, widthMm }: Accelerated,
): number {
  if (kind === "galvo" || accelerationMmPerS2 === null) return Number.POSITIVE_INFINITY;
  const room = Math.min(stockAtXMm, widthMm - stockAtXMm - stockWidthMm);
  return Math.sqrt((2 * accelerationMmPerS2 * Math.max(0, room + EDGE_ROOM_MM)) / RESERVE);
}
