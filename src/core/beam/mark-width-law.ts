/**
 * How wide a mark is that a Gaussian beam leaves, by the height of the lens above the work.
 *
 *   D^2 = 2 w^2 ln(R (w0/w)^p),   w = w0 sqrt(1 + ((z - z0)/zR)^2)
 *
 * w radius of the beam (1/e^2), R what reaches the work at focus over what is needed to mark it. p = 2 where single pulses mark: what
 * counts is the peak of each [Liu, Opt. Lett. 7 (1982) 196]. p = 1 where the energy along a line adds up, a continuous beam or
 * pulses that overlap: R = sqrt(2/pi) P/(v w0 H). p is known by what was burned; widths cannot tell it: (w0, R, p) looks as
 * (w0 sqrt(p/2), R^(2/p), 2) does.
 *
 * With q = (w/w0)^2 it is D^2 = 2 w0^2 q (ln R - p/2 ln q): it grows on either side of focus, is widest at ln q = 2/p ln R - 1, and
 * vanishes at ln q = 2/p ln R. Where R <= e^(p/2) it is widest at focus.
 */

/** 1: lines whose energy adds up. 2: single pulses. */
export type DosePower = 1 | 2;

/** By what was burned: it decides how widths go with the height. */
export function dosePower({ doses }: { doses: string }): DosePower {
  return doses === "pulses" ? 2 : 1;
}

export type Spot = {
  /** Height of focus, mm. */
  z0: number;
  /** Height in which the area of the beam doubles, mm. */
  zR: number;
  /** Radius at focus, mm. */
  w0: number;
  /** ln R, > 0: R = how many times the energy at focus is what marks at all. */
  lnR: number;
};

/** (w/w0)^2 at a height. */
function spread(z: number, { z0, zR }: Pick<Spot, "z0" | "zR">): number {
  return 1 + ((z - z0) / zR) ** 2;
}

/** Width of the mark, mm; 0 where there is none. */
export function markWidth(z: number, spot: Spot, p: DosePower): number {
  return Math.max(0, signedWidth(z, spot, p));
}

/** The same, below 0 where there is no mark, the further the more is lacking: it tells a fit the way back. */
export function signedWidth(z: number, spot: Spot, p: DosePower): number {
  const q = spread(z, spot);
  const squared = 2 * spot.w0 ** 2 * q * (spot.lnR - (p / 2) * Math.log(q));
  return Math.sign(squared) * Math.sqrt(Math.abs(squared));
}

/** Narrower than this share of the beam at focus the slopes are taken as there: the law has an upright tangent where it vanishes. */
const STEEPEST = 0.05;

/** Derivatives of {@link signedWidth} by z0, ln zR, ln w0, ln ln R. */
export function widthSlopes(z: number, spot: Spot, p: DosePower): [number, number, number, number] {
  const { z0, zR, w0, lnR } = spot;
  const q = spread(z, spot);
  const twice = 2 * w0 ** 2;
  const logs = lnR - (p / 2) * Math.log(q);
  const half = 2 * Math.max(STEEPEST * w0, Math.sqrt(Math.abs(twice * q * logs)));
  const byQ = (twice * (logs - p / 2)) / half;
  return [(byQ * -2 * (z - z0)) / zR ** 2, byQ * -2 * (q - 1), (2 * twice * q * logs) / half, (twice * q * lnR) / half];
}

/** How far on either side of focus the mark is widest, mm; 0 where that is at focus: there the thinnest mark says nothing. */
export function widestAside({ zR, lnR }: Spot, p: DosePower): number {
  return asideAt((2 / p) * lnR - 1, zR);
}

/** How far on either side of focus the mark vanishes, mm. */
export function vanishesAside({ zR, lnR }: Spot, p: DosePower): number {
  return asideAt((2 / p) * lnR, zR);
}

/** How far on either side of focus the beam is `share` wider than at focus, mm. */
export function depthOfFocus({ zR }: Pick<Spot, "zR">, share: number): number {
  return zR * Math.sqrt((1 + share) ** 2 - 1);
}

function asideAt(lnQ: number, zR: number): number {
  return zR * Math.sqrt(Math.max(0, Math.exp(lnQ) - 1));
}
