/**
 * Focus from widths of the beam itself, four times its second moment: a parabola in the square of the width.
 *
 *   d^2 = a + b z + c z^2;   z0 = -b / 2c,   zR = sqrt(4ac - b^2) / 2c,   d0^2 = a - b^2 / 4c,   M^2 = pi sqrt(4ac - b^2) / (8 lambda)
 *
 * [ISO 11146-1:2005, 9, from memory]. Fitted about the middle of the heights; u(d^2) = 2 d u(d). The uncertainties are carried by
 * the derivatives of these, and the size of the scatter is judged from the residuals together with the gauge's promise.
 */
import { fitPolynomial } from "../../fitting/polynomial";
import { type Measured, measured } from "../../metrology/measured";

export type BeamWidth = { zMm: number; widthMm: number; u: number };

export type BeamFit =
  | {
      status: "solved";
      z0: Measured;
      zR: Measured;
      /** Width at focus, mm. */
      d0: Measured;
      m2: Measured;
      /** d at a height, for the drawing, mm. */
      widthAt: (zMm: number) => number;
    }
  | { status: "cannot tell"; reason: "few cells" | "focus beyond the first" | "focus beyond the last" | "no turn" };

/** The standard asks for ten, half of them near focus; five fix a parabola with something left to check it. */
export const FEWEST_WIDTHS = 5;
const GAUGE_FREEDOM = 4;
/** Widths turn where their curvature is so many times its uncertainty. */
const BEYOND_DOUBT = 3;

/** @param wavelengthMm of the laser */
export function fitBeam(widths: readonly BeamWidth[], wavelengthMm: number): BeamFit {
  if (widths.length < FEWEST_WIDTHS) return { status: "cannot tell", reason: "few cells" };
  const heights = widths.map((w) => w.zMm).sort((x, y) => x - y);
  const [first, last] = [heights[0] as number, heights[heights.length - 1] as number];
  const middle = (first + last) / 2;
  const fit = fitPolynomial(
    widths.map(({ zMm, widthMm, u }) => ({ x: zMm - middle, y: widthMm ** 2, u: 2 * widthMm * u })),
    2,
  );
  if (!fit) return { status: "cannot tell", reason: "no turn" };
  const [a, b, c] = fit.coefficients as [number, number, number];
  const discriminant = 4 * a * c - b * b;
  if (!(discriminant > 0) || !(c > BEYOND_DOUBT * Math.sqrt(fit.covariance[2]?.[2] as number)))
    return { status: "cannot tell", reason: "no turn" };
  const z0 = -b / (2 * c);
  const step = (last - first) / (heights.length - 1);
  if (z0 + middle < first + step) return { status: "cannot tell", reason: "focus beyond the first" };
  if (z0 + middle > last - step) return { status: "cannot tell", reason: "focus beyond the last" };
  const freedom = fit.degreesOfFreedom + GAUGE_FREEDOM;
  const variance = (fit.chiSquared + GAUGE_FREEDOM) / freedom;
  /** @param slopes derivatives by a, b, c */
  const known = (value: number, slopes: readonly [number, number, number]): Measured => {
    const square = slopes.reduce(
      (sum, si, i) => sum + slopes.reduce((s, sj, j) => s + si * sj * (fit.covariance[i]?.[j] as number), 0),
      0,
    );
    return measured(value, Math.sqrt(variance * square), freedom);
  };
  const root = Math.sqrt(discriminant);
  const d0 = Math.sqrt(a - (b * b) / (4 * c));
  const byRoot: [number, number, number] = [(2 * c) / root, -b / root, (2 * a) / root];
  return {
    status: "solved",
    z0: known(z0 + middle, [0, -1 / (2 * c), b / (2 * c * c)]),
    zR: known(root / (2 * c), [byRoot[0] / (2 * c), byRoot[1] / (2 * c), byRoot[2] / (2 * c) - root / (2 * c * c)]),
    d0: known(d0, [1 / (2 * d0), -b / (4 * c * d0), (b * b) / (8 * c * c * d0)]),
    m2: known((Math.PI * root) / (8 * wavelengthMm), [
      (Math.PI * byRoot[0]) / (8 * wavelengthMm),
      (Math.PI * byRoot[1]) / (8 * wavelengthMm),
      (Math.PI * byRoot[2]) / (8 * wavelengthMm),
    ]),
    widthAt: (zMm) => Math.sqrt(a + b * (zMm - middle) + c * (zMm - middle) ** 2),
  };
}
