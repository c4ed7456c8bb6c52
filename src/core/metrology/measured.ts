/**
 * A quantity with its uncertainty.
 *
 * `standardUncertainty` is one standard deviation (u of JCGM 100:2008); `degreesOfFreedom` says how well that is
 * itself known (`Infinity` for stated limits). A coverage factor is applied only where a person reads the number.
 */
import { coverageFactor } from "../fitting/student-t";

export type Measured = {
  value: number;
  standardUncertainty: number;
  /** `Infinity` does not survive JSON, so it is kept as the word. */
  degreesOfFreedom: number | "infinite";
};

/** Builds a {@link Measured}, writing endless degrees of freedom as the word that JSON can keep. */
export function measured(value: number, standardUncertainty: number, degreesOfFreedom: number): Measured {
  return {
    value,
    standardUncertainty,
    degreesOfFreedom: Number.isFinite(degreesOfFreedom) ? degreesOfFreedom : "infinite",
  };
}

/** Degrees of freedom as a number, `Infinity` where they are endless. */
export function freedomOf(m: Measured): number {
  return m.degreesOfFreedom === "infinite" ? Infinity : m.degreesOfFreedom;
}

/** Half width of the 95 % interval: t(nu_eff) u. */
export function expandedUncertainty(m: Measured): number {
  return coverageFactor(freedomOf(m)) * m.standardUncertainty;
}
