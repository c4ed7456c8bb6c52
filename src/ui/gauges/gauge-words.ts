import { isShownAtMachine } from "../../core/coupon/ask";
import type { Site } from "../../core/coupon/site";
import { type Gauge, type GaugeKind, hasJaws, PICTURE_READER } from "../../core/metrology/gauge";
import { decimalsFor, inUnit } from "../../core/metrology/quantity-text";
import { fromInternal, UNITS } from "../../core/metrology/units";
import type { Session } from "../../server/trial/trial-view";

export const GAUGE_KIND_WORDS: Record<GaugeKind, string> = {
  rule: "steel rule",
  calipers: "calipers",
  microscope: "microscope picture",
  scan: "flatbed scan",
  eye: "eye",
};

/** `step 0.01 mm · limit ±0.02 mm`. */
export function gaugeFacts(gauge: Gauge): string {
  const limit = gauge.limitMm > 0 ? ` · limit ±${inUnit(gauge.limitMm, gauge.unit, 5)}` : "";
  return `step ${inUnit(gauge.resolutionMm, gauge.unit, 5)}${limit}`;
}

/** `Calipers 0.01 mm · closed jaws read 0.00`. @param sites what is read in it */
export function sessionText({ gauge, zero }: Session, sites: readonly Site[]): string {
  // No resolution: each of its readings has an uncertainty, and scores have no length.
  if (gauge.id === PICTURE_READER) return gauge.name;
  if (gauge.kind === "eye") return sites.some(isShownAtMachine) ? "no gauge" : "by eye";
  const decimals = Math.max(2, decimalsFor(fromInternal(gauge.resolutionMm, gauge.unit)) - 1);
  const shown = (mm: number) => fromInternal(mm, gauge.unit).toFixed(decimals);
  const inside = zero.inside === null ? "" : `, inside ${shown(zero.inside)}`;
  const jaws = hasJaws(gauge.kind)
    ? ` · closed jaws read ${shown(zero.outside)}${inside} ${UNITS[gauge.unit].symbol}`
    : "";
  return `${gauge.name} ${inUnit(gauge.resolutionMm, gauge.unit, 5)}${jaws}`;
}
