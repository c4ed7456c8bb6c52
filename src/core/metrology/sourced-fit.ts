/**
 * A weighted linear fit that knows where each observation's uncertainty comes from.
 *
 * What several readings have in common (a gauge's limit of error, its zero, the scale of an axis) is a parameter of the fit with
 * one observation of its own: value 0, u as stated. So it stays common through everything worked out from the fit: it does
 * not shrink with repeats and cancels in differences. Observations are independent, so the parts of any combination of
 * parameters add up in squares. [JCGM 100:2008 5.2, F.1.2]
 */
import { leastSquares, type Observation } from "../fitting/least-squares";
import type { Budgeted, BudgetPart } from "./budget";
import { joined } from "./budget";

export type Source = Pick<BudgetPart, "id" | "label" | "kind" | "degreesOfFreedom">;
export type SourcedObservation = Observation & { source: Source };

export type SourcedFit = {
  /** Any linear combination of the parameters, with its budget. Missing coefficients are 0. */
  combine: (coefficients: readonly number[]) => Budgeted;
  chiSquared: number;
  degreesOfFreedom: number;
};

/** @returns `null` when the observations cannot tell the parameters apart */
export function sourcedFit(observations: readonly SourcedObservation[]): SourcedFit | null {
  const fit = leastSquares(observations);
  if (fit.status === "singular") return null;
  const sources = new Map(observations.map((o) => [o.source.id, o.source]));
  const ids = [...sources.keys()];
  const sourceOf = observations.map((o) => ids.indexOf(o.source.id));
  return {
    chiSquared: fit.chiSquared,
    degreesOfFreedom: fit.degreesOfFreedom,
    combine: (coefficients) => {
      const variance = new Float64Array(ids.length);
      for (let i = 0; i < observations.length; i++) {
        let sensitivity = 0;
        for (let j = 0; j < coefficients.length; j++)
          sensitivity += (coefficients[j] as number) * ((fit.gain[j] as number[])[i] as number);
        const k = sourceOf[i] as number;
        variance[k] = (variance[k] as number) + (sensitivity * (observations[i] as SourcedObservation).u) ** 2;
      }
      const value = coefficients.reduce((sum, c, j) => sum + c * (fit.x[j] ?? 0), 0);
      const parts = [...sources.values()].map((source, k) => ({
        ...source,
        standardUncertainty: Math.sqrt(variance[k] as number),
      }));
      return joined(
        value,
        parts.filter((p) => p.standardUncertainty > 0),
      );
    },
  };
}
