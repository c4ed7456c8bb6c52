/**
 * How thick a batch is, from its thickness squeezed at several places.
 *
 *   u^2 = s^2/n + a^2/3 + z^2       s from place to place, no less than the gauge scatters; a its limit of error, z the zero of its jaws
 *
 * Limit and zero are common to all readings: more places do not shrink them. [JCGM 100:2008 4.2.3, 4.3.7]
 */
import { mean } from "../fitting/repeats";
import { commonUncertaintyMm, type Gauge, readingUncertaintyMm, zeroUncertaintyMm } from "../metrology/gauge";
import type { Thickness } from "./stock-at-hand";

/** @param gauge with which the last was read; `null` = not known @returns `null` where nothing was measured */
export function thicknessOf(valuesMm: readonly number[], gauge: Gauge | null): Thickness | null {
  if (valuesMm.length === 0) return null;
  const count = valuesMm.length;
  const middle = mean(valuesMm);
  const spread = count > 1 ? Math.sqrt(valuesMm.reduce((s, v) => s + (v - middle) ** 2, 0) / (count - 1)) : 0;
  const own = gauge ? Math.max(spread, readingUncertaintyMm(gauge)) : spread;
  const common = gauge ? Math.hypot(commonUncertaintyMm(gauge), zeroUncertaintyMm(gauge)) : 0;
  return {
    meanMm: middle,
    leastMm: Math.min(...valuesMm),
    mostMm: Math.max(...valuesMm),
    count,
    sdMm: spread,
    uMm: Math.hypot(own / Math.sqrt(count), common),
  };
}
