/**
 * How far apart marks must lie, so that a gauge can tell the scale well enough.
 *
 *   U(scale) = 2 hypot(a / sqrt(3), s / sqrt(n)) / L        a limit of error, s scatter of one reading, n readings, L length
 *
 * Two is near enough to t before anything is read.
 */
import { commonUncertaintyMm, type Gauge, readingUncertaintyMm } from "../metrology/gauge";

const COVERAGE = 2;

/** Expanded uncertainty of a length between two marks, mm. */
export function expandedMm(gauge: Gauge, repeats: number): number {
  return COVERAGE * Math.hypot(commonUncertaintyMm(gauge), readingUncertaintyMm(gauge) / Math.sqrt(repeats));
}

/** The shortest length over which the gauge tells the scale to within `tolerance`, a share; mm. */
export function neededMm(gauge: Gauge, repeats: number, tolerance: number): number {
  return expandedMm(gauge, repeats) / tolerance;
}
