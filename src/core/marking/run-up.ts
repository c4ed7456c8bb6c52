/** Run-up of a row, v^2 = 2 a L, and the largest speed that the room beside the stock allows. */
import type { MachineSpec } from "../machine/machine-spec";

/** Safety factor of the run-up. */
const RESERVE = 1.2;
/** From the edge of the stock to the first row, mm, at least. */
const EDGE_ROOM_MM = 4;

type Accelerated = Pick<MachineSpec, "kind" | "accelerationMmPerS2" | "widthMm">;

/** Run-up before a row, and run-out after it, mm. */
export function runUpMm(
  speedMmPerS: number,
  { kind, accelerationMmPerS2 }: Pick<MachineSpec, "kind" | "accelerationMmPerS2">,
): number {
  if (kind === "galvo" || accelerationMmPerS2 === null) return 0;
  return Math.ceil((100 * RESERVE * speedMmPerS ** 2) / (2 * accelerationMmPerS2)) / 100;
}

/** Largest speed of rows with room for the run-up beside the stock, mm/s. */
export function fastestRow(
  { stockAtXMm, stockWidthMm }: { stockAtXMm: number; stockWidthMm: number },
  { kind, accelerationMmPerS2, widthMm }: Accelerated,
): number {
  if (kind === "galvo" || accelerationMmPerS2 === null) return Number.POSITIVE_INFINITY;
  const room = Math.min(stockAtXMm, widthMm - stockAtXMm - stockWidthMm);
  return Math.sqrt((2 * accelerationMmPerS2 * Math.max(0, room + EDGE_ROOM_MM)) / RESERVE);
}
