/**
 * Focus from widths of the beam itself, four times its second moment: a parabola in the square of the width.
 *
 *   d^2 = a + b z + c z^2;   z0 = -b / 2c,   zR = sqrt(4ac - b^2) / 2c,   d0^2 = a - b^2 / 4c,   M^2 = pi sqrt(4ac - b^2) / (8 lambda)
 *
 * [ISO 11146-1:2005, 9, from memory]. Fitted about the middle of the heights; u(d^2) = 2 d u(d). The uncertainties are carried by
 * the derivatives of these, and the size of the scatter is judged from the residuals together with the gauge's promise.
 */
import { type Adjustment, adjust, combine, combinedValue } from "../estimate/adjustment";
import type { Model, Observation } from "../estimate/model";
import { median } from "../fitting/median";
import type { Measured } from "../metrology/measured";

export type BeamWidth = { zMm: number; widthMm: number; u: number };

/** Focus, height in which the area of the beam doubles, and width at focus, mm. */
export type Beam = { z0: number; zR: number; d0: number };

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
const BEYOND_U = 3;
const GROUP = "widths";

/** @param wavelengthMm of the laser */
export function fitBeam(widths: readonly BeamWidth[], wavelengthMm: number): BeamFit {
  if (widths.length < FEWEST_WIDTHS) return { status: "cannot tell", reason: "few cells" };
  const heights = widths.map((w) => w.zMm).sort((x, y) => x - y);
  const [first, last] = [heights[0] ?? Number.NaN, heights[heights.length - 1] ?? Number.NaN];
  const middle = (first + last) / 2;
  const adjustment = adjust(parabola(widths, middle));
  if (!adjustment) return { status: "cannot tell", reason: "no turn" };
  const [a, b, c] = coefficients(adjustment);
  const discriminant = 4 * a * c - b * b;
  if (!(discriminant > 0) || !(c > BEYOND_U * combine(adjustment, { c: 1 }).quantity.standardUncertainty))
    return { status: "cannot tell", reason: "no turn" };
  const { z0, zR, d0 } = beamOf(adjustment);
  const step = (last - first) / (heights.length - 1);
  if (z0 + middle < first + step) return { status: "cannot tell", reason: "focus beyond the first" };
  if (z0 + middle > last - step) return { status: "cannot tell", reason: "focus beyond the last" };
  /** By the derivatives by a, b, c. */
  const known = (value: number, [byA, byB, byC]: readonly [number, number, number]): Measured => ({
    ...combine(adjustment, { a: byA, b: byB, c: byC }).quantity,
    value,
  });
  const root = Math.sqrt(discriminant);
  const byRoot: [number, number, number] = [(2 * c) / root, -b / root, (2 * a) / root];
  const quality = Math.PI / (8 * wavelengthMm);
  return {
    status: "solved",
    z0: known(z0 + middle, [0, -1 / (2 * c), b / (2 * c * c)]),
    zR: known(zR, [byRoot[0] / (2 * c), byRoot[1] / (2 * c), byRoot[2] / (2 * c) - zR / c]),
    d0: known(d0, [1 / (2 * d0), -b / (4 * c * d0), (b * b) / (8 * c * c * d0)]),
    m2: known(quality * root, [quality * byRoot[0], quality * byRoot[1], quality * byRoot[2]]),
    widthAt: (zMm) => Math.sqrt(a + b * (zMm - middle) + c * (zMm - middle) ** 2),
  };
}

function parabola(widths: readonly BeamWidth[], middleMm: number): Model {
  return {
    observations: widths.map(({ zMm, widthMm, u }, i): Observation => {
      const z = zMm - middleMm;
      return {
        id: `width ${i}`,
        label: "a width",
        group: GROUP,
        reading: null,
        canBeWrong: false,
        row: { a: 1, b: z, c: z * z },
        y: widthMm ** 2,
        u: 2 * widthMm * u,
        source: { id: GROUP, label: "Widths and how they scatter", kind: "A" },
      };
    }),
    groups: [{ id: GROUP, priorFreedom: GAUGE_FREEDOM, leastFactor: 0 }],
    wanted: [],
  };
}

function coefficients(adjustment: Adjustment): [number, number, number] {
  return [
    combinedValue(adjustment, { a: 1 }),
    combinedValue(adjustment, { b: 1 }),
    combinedValue(adjustment, { c: 1 }),
  ];
}

/** Where 4ac > b^2 and c > 0; not a number elsewhere. */
function beamOf(adjustment: Adjustment): Beam {
  const [a, b, c] = coefficients(adjustment);
  return { z0: -b / (2 * c), zR: Math.sqrt(4 * a * c - b * b) / (2 * c), d0: Math.sqrt(a - (b * b) / (4 * c)) };
}

/**
 * The beam by which widths are looked at one by one: of all beams through three of them the one with the least middle residual, so that
 * a width far from the others does not move it. [Rousseeuw, J. Am. Stat. Assoc. 79 (1984) 871, from memory]
 *
 * @returns `null` with too few widths, or where no three of them turn
 */
export function beamAround(widths: readonly BeamWidth[]): Beam | null {
  if (widths.length < FEWEST_WIDTHS) return null;
  let best: { beam: Beam; off: number } | null = null;
  for (const three of threesOf(widths)) {
    const middle = three.reduce((sum, w) => sum + w.zMm / 3, 0);
    const adjustment = adjust(parabola(three, middle));
    const around = adjustment && beamOf(adjustment);
    if (!around || !(around.zR > 0) || !(around.d0 > 0)) continue;
    const beam = { ...around, z0: around.z0 + middle };
    const off = median(widths.map((w) => Math.abs(w.widthMm - beamWidth(w.zMm, beam)) / w.u));
    if (!best || off < best.off) best = { beam, off };
  }
  return best?.beam ?? null;
}

/** First, middle and last of every run of widths: enough of them that most hold no wrong one. */
function threesOf(widths: readonly BeamWidth[]): BeamWidth[][] {
  const sorted = widths.toSorted((a, b) => a.zMm - b.zMm);
  const threes: BeamWidth[][] = [];
  for (let i = 0; i < sorted.length; i++)
    for (let k = i + 2; k < sorted.length; k++) {
      const three = [sorted[i], sorted[(i + k) >> 1], sorted[k]];
      threes.push(three.flatMap((w) => (w ? [w] : [])));
    }
  return threes;
}

/** d at a height, mm. */
export function beamWidth(zMm: number, { z0, zR, d0 }: Beam): number {
  return d0 * Math.hypot(1, (zMm - z0) / zR);
}

/** Derivatives of d by z0, ln zR and ln d0. */
export function beamSlopes(zMm: number, beam: Beam): { z0: number; "ln zR": number; "ln d0": number } {
  const s = (zMm - beam.z0) / beam.zR;
  const stretched = beam.d0 / Math.hypot(1, s);
  return { z0: (-stretched * s) / beam.zR, "ln zR": -stretched * s * s, "ln d0": beamWidth(zMm, beam) };
}
