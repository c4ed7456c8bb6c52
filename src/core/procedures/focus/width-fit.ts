/**
 * Focus from the widths of lines burned at several heights: the mark width law, fitted by least squares.
 *
 * The scatter of a width grows with the width, so each is weighted by its own uncertainty. A cell that did not mark is evidence too:
 * its width lies below what can be seen. Spot, strength and focal depth have wide limits of what is met in practice beside them
 * (Gaussian in their logarithms), so that a ladder that does not show them still gives its focus height; where the readings narrow
 * them little they are not reported.
 *
 * The size of the scatter is judged from the residuals together with what the gauge promises, worth `GAUGE_FREEDOM` readings.
 */
import { minimiseFromSeveral, type NonlinearFit } from "../../fitting/nonlinear-least-squares";
import { median } from "../../fitting/robust-line";
import { type Measured, measured } from "../../metrology/measured";
import { type DosePower, markWidth, type Spot, signedWidth, widthSlopes } from "./mark-width-law";

export type LadderCell =
  | { zMm: number; status: "marked"; widthMm: number; u: number }
  /** Nothing to be seen there. */
  | { zMm: number; status: "unmarked" };

export type WidthFit =
  | {
      status: "solved";
      z0: Measured;
      /** As fitted, for the drawing. */
      spot: Spot;
      /** Radius at focus and focal depth, where the readings show them. */
      known: { w0: Measured; zR: Measured } | null;
      /** How much more the widths scatter than their uncertainties say. */
      scatter: number;
    }
  | { status: "cannot tell"; reason: "few cells" | "focus beyond the first" | "focus beyond the last" | "no turn" };

/** A width scatters by this share of itself, besides what the gauge does. (common practice, no source) */
export const WIDTH_SCATTER = 0.03;
/** With fewer marked cells the law is not fitted: first, last and sharpest say more. */
export const FEWEST_CELLS = 6;
const GAUGE_FREEDOM = 4;
/** A line this much thinner than the thinnest that was read would not have been seen. */
const VISIBLE_SHARE = 0.5;
/** Limits of practice: middle of ln R and sd of its logarithm; the same of the ratio of focal depth to length of ladder. (from memory) */
const STRENGTH = { middle: 1.2, sd: 0.9 };
const DEPTH = { middle: Math.log(0.25), sd: 1.1 };
/**
 * Lines along one axis show the focus of the other, and few beams have both at one height: SD of that, as a share of the focal
 * depth. (from memory, no source)
 */
const AXES_APART = 0.01;
/** A focus outside the ladder must fit worse by this chi-squared: three standard deviations. */
const SURELY_INSIDE = 9;
/** Known to better than this share, or not reported. */
const SPOT_KNOWN = 0.25;

/** Far below what any of the results is known to. */
const SMALL_SAVING = 1e-9;

const [Z0, LN_ZR, LN_W0, LN_LNR] = [0, 1, 2, 3] as const;

/** @param cells of one ladder, in any order; lost ones left out */
export function fitWidths(cells: readonly LadderCell[], p: DosePower): WidthFit {
  const marked = cells.flatMap((c) => (c.status === "marked" ? [c] : []));
  if (marked.length < FEWEST_CELLS) return { status: "cannot tell", reason: "few cells" };
  const heights = cells.map((c) => c.zMm).sort((a, b) => a - b);
  const [low, high] = [heights[0] as number, heights[heights.length - 1] as number];
  const range = high - low;
  const visible = VISIBLE_SHARE * Math.min(...marked.map((c) => c.widthMm));
  const residuals = (x: readonly number[]) => {
    const spot = spotOf(x);
    const all = cells.map((c) => {
      const width = signedWidth(c.zMm, spot, p);
      if (c.status === "marked") return (c.widthMm - width) / c.u;
      return Math.max(0, width - visible) / visible;
    });
    all.push(
      (Math.log(spot.lnR) - Math.log(STRENGTH.middle)) / STRENGTH.sd,
      (Math.log(spot.zR / range) - DEPTH.middle) / DEPTH.sd,
    );
    return all;
  };
  const jacobian = (x: readonly number[]) => {
    const spot = spotOf(x);
    const columns: [number[], number[], number[], number[]] = [[], [], [], []];
    for (const c of cells) {
      const slopes = widthSlopes(c.zMm, spot, p);
      const isHidden = c.status === "unmarked" && signedWidth(c.zMm, spot, p) <= visible;
      const share = c.status === "marked" ? -1 / c.u : isHidden ? 0 : 1 / visible;
      for (const k of [Z0, LN_ZR, LN_W0, LN_LNR]) columns[k].push(share * slopes[k]);
    }
    for (const k of [Z0, LN_ZR, LN_W0, LN_LNR])
      columns[k].push(k === LN_LNR ? 1 / STRENGTH.sd : 0, k === LN_ZR ? 1 / DEPTH.sd : 0);
    return columns;
  };
  // The median: one width with a misplaced decimal point does not move the bounds.
  const usual = median(marked.map((c) => c.widthMm));
  const step = range / (cells.length - 1);
  const fitWithin = (fromMm: number, toMm: number) =>
    minimiseFromSeveral(
      {
        residuals,
        jacobian,
        smallSaving: SMALL_SAVING,
        low: [fromMm, Math.log(range / 500), Math.log(usual / 50), Math.log(0.02)],
        high: [toMm, Math.log(range * 20), Math.log(usual * 20), Math.log(6)],
      },
      startsFor(marked, p, low, range),
    );
  const fit = fitWithin(low - range, high + range);
  const found = judged(fit, cells, p);
  if (found.status !== "solved") return found;
  // Widths that only grow, or only shrink, also fit a focus outside the ladder. Then only the side is reported. Every height between
  // the focus and a mark also marks, so there is no focus beyond an end without a mark.
  const marksAt = (zMm: number) => cells.some((c) => c.zMm === zMm && c.status === "marked");
  const most = fit.chiSquared + SURELY_INSIDE * Math.max(1, found.scatter ** 2);
  if (marksAt(low) && fitWithin(low - range, low + step).chiSquared < most)
    return { status: "cannot tell", reason: "focus beyond the first" };
  if (marksAt(high) && fitWithin(high - step, high + range).chiSquared < most)
    return { status: "cannot tell", reason: "focus beyond the last" };
  return found;
}

function spotOf(x: readonly number[]): Spot {
  const value = (k: number) => x[k] as number;
  return { z0: value(Z0), zR: Math.exp(value(LN_ZR)), w0: Math.exp(value(LN_W0)), lnR: Math.exp(value(LN_LNR)) };
}

/** Focus at the middle of what marked, or where it is thinnest; weak and strong; shallow and deep: twelve. */
function startsFor(
  marked: readonly Extract<LadderCell, { status: "marked" }>[],
  p: DosePower,
  low: number,
  range: number,
): number[][] {
  const middle = marked.reduce((sum, c) => sum + c.zMm, 0) / marked.length;
  const thinnest = marked.reduce((best, c) => (c.widthMm < best.widthMm ? c : best)).zMm;
  const starts: number[][] = [];
  for (const z0 of [middle, thinnest])
    for (const strength of [2, 6, 18])
      for (const depth of [range / 8, range / 3]) {
        const unit = { z0, zR: depth, w0: 1, lnR: Math.log(strength) };
        const ratios = marked.map((c) => c.widthMm / Math.max(0.1, markWidth(c.zMm, unit, p))).sort((a, b) => a - b);
        const w0 = ratios[Math.floor(ratios.length / 2)] as number;
        starts.push([Math.min(low + range, Math.max(low, z0)), Math.log(depth), Math.log(w0), Math.log(unit.lnR)]);
      }
  return starts;
}

function judged(fit: NonlinearFit, cells: readonly LadderCell[], p: DosePower): WidthFit {
  const spot = spotOf(fit.x);
  const heights = cells.map((c) => c.zMm).sort((a, b) => a - b);
  const [first, last] = [heights[0] as number, heights[heights.length - 1] as number];
  const step = (last - first) / (heights.length - 1);
  if (spot.z0 < first + step) return { status: "cannot tell", reason: "focus beyond the first" };
  if (spot.z0 > last - step) return { status: "cannot tell", reason: "focus beyond the last" };
  if (!fit.covariance) return { status: "cannot tell", reason: "no turn" };
  const marked = cells.flatMap((c) => (c.status === "marked" ? [(c.widthMm - signedWidth(c.zMm, spot, p)) / c.u] : []));
  const squares = marked.reduce((sum, r) => sum + r * r, 0);
  const freedom = marked.length - fit.x.length + GAUGE_FREEDOM;
  const variance = (squares + GAUGE_FREEDOM) / freedom;
  const u = (k: number) => Math.sqrt(variance * (fit.covariance?.[k]?.[k] as number));
  const isKnown = u(LN_W0) < SPOT_KNOWN && u(LN_ZR) < SPOT_KNOWN;
  return {
    status: "solved",
    z0: measured(spot.z0, Math.hypot(u(Z0), AXES_APART * spot.zR), freedom),
    spot,
    known: isKnown
      ? {
          w0: measured(spot.w0, spot.w0 * u(LN_W0), freedom),
          zR: measured(spot.zR, spot.zR * u(LN_ZR), freedom),
        }
      : null,
    scatter: Math.sqrt(squares / Math.max(1, marked.length - fit.x.length)),
  };
}
