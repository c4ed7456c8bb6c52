/**
 * Repeatability of one reading, pooled over all sites of a round with what is expected of the gauge (type A).
 *
 *   s^2 = (nu0 s0^2 + sum over sites of sum ((x - mean)/share)^2) / (nu0 + sum (n - 1))     [JCGM 100:2008 4.2.4, pooled]
 *
 * Repeats that were rounded already scatter by the rounding; so the gauge's step is a floor, not one more part. With no
 * repeats and nothing known of the gauge, its step is all there is (type B alone), and that is said.
 */
import { degreesOfFreedomFrom, type Gauge, resolutionUncertaintyMm } from "./gauge";

export type Scatter = {
  /** Standard deviation of one plainly measured reading, mm. */
  sdMm: number;
  degreesOfFreedom: number;
  /** What it stands on. */
  basis: "repeats" | "experience" | "both" | "step of the gauge alone";
};

/** One reading at a site; `share` is 1 for a plain one, 1/2 for `1.46/2`. */
export type ScatteredReading = { value: number; share: number };

/**
 * @param sites readings of each site, mm
 * @param gauge supplies the prior and the floor
 */
export function pooledScatter(sites: readonly (readonly ScatteredReading[])[], gauge: Gauge): Scatter {
  const priorFreedom = gauge.placing ? degreesOfFreedomFrom(gauge.placing.relativeDoubt) : 0;
  let sum = gauge.placing ? priorFreedom * gauge.placing.sdMm ** 2 : 0;
  let repeats = 0;
  for (const readings of sites) {
    if (readings.length < 2) continue;
    const mean = readings.reduce((a, r) => a + r.value, 0) / readings.length;
    sum += readings.reduce((a, r) => a + ((r.value - mean) / r.share) ** 2, 0);
    repeats += readings.length - 1;
  }
  const floor = resolutionUncertaintyMm(gauge);
  const freedom = priorFreedom + repeats;
  if (freedom === 0) return { sdMm: floor, degreesOfFreedom: Infinity, basis: "step of the gauge alone" };
  return {
    sdMm: Math.max(Math.sqrt(sum / freedom), floor),
    degreesOfFreedom: freedom,
    basis: repeats === 0 ? "experience" : priorFreedom === 0 ? "repeats" : "both",
  };
}
