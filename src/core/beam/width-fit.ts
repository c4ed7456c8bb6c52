/**
 * Focus from the widths of lines burned at several heights: the mark width law, fitted by least squares.
 *
 * The scatter of a width grows with the width, so each is weighted by its own uncertainty. A cell that did not mark is evidence too:
 * its width lies below what can be seen. Spot, strength and focal depth have wide limits of what is met in practice beside them
 * (Gaussian in their logarithms), so that a ladder that does not show them still gives its focus height; where the readings narrow
 * them little they are not reported. Lines that run both ways share the spot, and each direction has a waist of its own.
 *
 * The uncertainties come from the adjustment of the law around the fitted spot: the size of the scatter is judged from the
 * residuals together with what the gauge promises, worth `GAUGE_FREEDOM` readings.
 */
import { adjust, combine } from "../estimate/adjustment";
import type { Observation, Row } from "../estimate/model";
import { median } from "../fitting/median";
import { minimiseFromSeveral, type NonlinearFit } from "../fitting/nonlinear-least-squares";
import type { Measured } from "../metrology/measured";
import { type DosePower, markWidth, type Spot, signedWidth, widthSlopes } from "./mark-width-law";
import {
  type Around,
  apartShare,
  DEPTH,
  focusRow,
  knownOfCells,
  knownOfLaw,
  type LineRun,
  lawWidth,
  STRENGTH,
  textureMm,
  unmarkedRow,
  widthRow,
} from "./width-model";

/** `run`: direction of the line; left out: along X. */
export type LadderCell = { zMm: number; run?: LineRun } & (
  | { status: "marked"; widthMm: number; u: number }
  /** Nothing to be seen there. */
  | { status: "unmarked" }
);
type Marked = Extract<LadderCell, { status: "marked" }>;

export type WidthFit =
  | {
      status: "solved";
      /** The middle of both waists where lines run both ways. */
      z0: Measured;
      /** As fitted, for the drawing. */
      spot: Spot;
      /** Radius at focus and focal depth, where the readings show them. */
      known: { w0: Measured; zR: Measured } | null;
      /** Where lines run both ways: the waist of each direction, and that of X above that of Y. */
      waists: { x: Measured; y: Measured; apart: Measured } | null;
      /** How much more the widths scatter than their uncertainties say. */
      scatter: number;
    }
  | { status: "cannot tell"; reason: "few cells" | "focus beyond the first" | "focus beyond the last" | "no turn" };

/** A width scatters by this share of itself, besides what the gauge does. (common practice, no source) */
export const WIDTH_SCATTER = 0.03;
/** With fewer marked cells the law is not fitted: first, last and sharpest say more. */
export const FEWEST_CELLS = 6;
const GAUGE_FREEDOM = 4;
/** Setting the height of a cell where nothing is said of it, mm. (common practice, no source) */
const USUAL_SETTING_MM = 0.03;
/** A line this much thinner than the thinnest that was read would not have been seen. */
const VISIBLE_SHARE = 0.5;
/** A focus outside the ladder must fit worse by this chi-squared: three standard deviations. */
const SURELY_INSIDE = 9;
/** Known to better than this share, or not reported. */
const SPOT_KNOWN = 0.25;
/** Each direction needs so many marked cells for a waist of its own. */
const FEWEST_EACH_WAY = 4;
/** Residuals beyond so many standard deviations count less and less where readings may be wrong. [Cauchy weight; constant from memory] */
const SOFT_BEYOND = 2.4;

/** Far below what any of the results is known to. */
const SMALL_SAVING = 1e-9;

const [Z0, LN_ZR, LN_W0, LN_LNR, APART] = [0, 1, 2, 3, 4] as const;

const runOf = ({ run = "x" }: LadderCell): LineRun => run;

/** The widths of one ladder, ready to be fitted. */
type Ladder = {
  cells: readonly LadderCell[];
  marked: Marked[];
  p: DosePower;
  bothWays: boolean;
  /** Standard uncertainty of setting the height of a cell, mm. */
  settingMm: number;
} & Pick<Around, "rangeMm" | "visibleMm"> & { low: number; high: number };

function ladderFrom(cells: readonly LadderCell[], p: DosePower, settingMm: number): Ladder {
  const marked = cells.flatMap((c) => (c.status === "marked" ? [c] : []));
  const heights = cells.map((c) => c.zMm);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const each = (run: LineRun) => marked.filter((c) => runOf(c) === run).length;
  return {
    cells,
    marked,
    p,
    settingMm,
    low,
    high,
    rangeMm: high - low,
    bothWays: Math.min(each("x"), each("y")) >= FEWEST_EACH_WAY,
    visibleMm: VISIBLE_SHARE * Math.min(...marked.map((c) => c.widthMm)),
  };
}

/** The last ones: solving, judging, drawing and predicting ask for the same. */
class Recent<T> {
  private readonly kept: { key: string; value: T }[] = [];

  of(key: string, make: () => T): T {
    const before = this.kept.find((k) => k.key === key);
    if (before) return before.value;
    const value = make();
    this.kept.unshift({ key, value });
    this.kept.splice(MOST_RECENT);
    return value;
  }
}

const MOST_RECENT = 8;
const recentFits = new Recent<WidthFit>();
const recentSpots = new Recent<Around | null>();

/**
 * @param cells of one ladder, in any order; lost ones left out
 * @param settingMm standard uncertainty of setting the height of a cell, mm
 */
export function fitWidths(cells: readonly LadderCell[], p: DosePower, settingMm = USUAL_SETTING_MM): WidthFit {
  return recentFits.of(JSON.stringify([p, settingMm, cells]), () => fitted(cells, p, settingMm));
}

function fitted(cells: readonly LadderCell[], p: DosePower, settingMm: number): WidthFit {
  const ladder = ladderFrom(cells, p, settingMm);
  const { low, high, rangeMm, marked } = ladder;
  if (marked.length < FEWEST_CELLS) return { status: "cannot tell", reason: "few cells" };
  const step = stepOf(ladder);
  const fit = fitWithin(ladder, low - rangeMm, high + rangeMm, false);
  const found = judged(fit, ladder);
  if (found.status !== "solved") return found;
  // Widths that only grow, or only shrink, also fit a focus outside the ladder. Then only the side is reported. Every height between
  // the focus and a mark also marks, so there is no focus beyond an end without a mark.
  const marksAt = (zMm: number) => cells.some((c) => c.zMm === zMm && c.status === "marked");
  const most = fit.chiSquared + SURELY_INSIDE * Math.max(1, found.scatter ** 2);
  if (marksAt(low) && fitWithin(ladder, low - rangeMm, low + step, false).chiSquared < most)
    return { status: "cannot tell", reason: "focus beyond the first" };
  if (marksAt(high) && fitWithin(ladder, high - step, high + rangeMm, false).chiSquared < most)
    return { status: "cannot tell", reason: "focus beyond the last" };
  return found;
}

/**
 * The spot by which widths are looked at one by one: a width that lies far from the law hardly moves it.
 *
 * @returns `null` with too few marked cells
 */
export function spotAround(cells: readonly LadderCell[], p: DosePower): Around | null {
  return recentSpots.of(JSON.stringify([p, cells]), () => softSpot(cells, p));
}

function softSpot(cells: readonly LadderCell[], p: DosePower): Around | null {
  const ladder = ladderFrom(cells, p, USUAL_SETTING_MM);
  if (ladder.marked.length < FEWEST_CELLS) return null;
  const { x } = fitWithin(ladder, ladder.low, ladder.high, true);
  return aroundOf(x, ladder);
}

function aroundOf(x: readonly number[], { p, rangeMm, visibleMm, bothWays, low, high }: Ladder): Around {
  return {
    p,
    rangeMm,
    middleMm: (low + high) / 2,
    visibleMm,
    spot: spotOf(x),
    apartMm: bothWays ? (x[APART] ?? Number.NaN) : null,
  };
}

/** Between neighbouring heights, mm. */
function stepOf({ cells, rangeMm }: Ladder): number {
  return rangeMm / (new Set(cells.map((c) => c.zMm)).size - 1);
}

type Problem = { residuals: (x: readonly number[]) => number[]; jacobian: (x: readonly number[]) => number[][] };

/**
 * What is minimised, and its derivatives.
 *
 * @param cells at least one that marked, heights in mm
 * @param soft whether a width far from the law counts less
 * @returns residuals in units of their uncertainty, of z0, ln zR, ln w0, ln lnR, and where lines run both ways how far their waists are apart
 */
export function widthProblem(cells: readonly LadderCell[], p: DosePower, soft: boolean): Problem {
  return problemOf(ladderFrom(cells, p, USUAL_SETTING_MM), soft);
}

function problemOf(ladder: Ladder, soft: boolean): Problem {
  const { cells, p, rangeMm, visibleMm, bothWays } = ladder;
  const spotAt = (spot: Spot, x: readonly number[], c: LadderCell): Spot =>
    bothWays ? { ...spot, z0: spot.z0 + apartShare(runOf(c)) * (x[APART] ?? Number.NaN) } : spot;
  const residuals = (x: readonly number[]) => {
    const spot = spotOf(x);
    const all = cells.map((c) => {
      const width = signedWidth(c.zMm, spotAt(spot, x, c), p);
      if (c.status === "marked") return soft ? softened((c.widthMm - width) / c.u) : (c.widthMm - width) / c.u;
      return Math.max(0, width - visibleMm) / visibleMm;
    });
    all.push(
      (Math.log(spot.lnR) - Math.log(STRENGTH.middle)) / STRENGTH.sd,
      (Math.log(spot.zR / rangeMm) - DEPTH.middle) / DEPTH.sd,
    );
    if (bothWays) all.push((x[APART] ?? Number.NaN) / rangeMm);
    return all;
  };
  const parameters = bothWays ? [Z0, LN_ZR, LN_W0, LN_LNR, APART] : [Z0, LN_ZR, LN_W0, LN_LNR];
  const jacobian = (x: readonly number[]) => {
    const columns: number[][] = parameters.map(() => []);
    const middle = spotOf(x);
    for (const c of cells) {
      const spot = spotAt(middle, x, c);
      const slopes = widthSlopes(c.zMm, spot, p);
      const width = signedWidth(c.zMm, spot, p);
      const isHidden = c.status === "unmarked" && width <= visibleMm;
      const share =
        c.status === "marked"
          ? (-1 / c.u) * (soft ? softenedSlope((c.widthMm - width) / c.u) : 1)
          : isHidden
            ? 0
            : 1 / visibleMm;
      parameters.forEach((k, j) => {
        const slope = k === APART ? apartShare(runOf(c)) * slopes[Z0] : slopes[k];
        columns[j]?.push(share * slope);
      });
    }
    parameters.forEach((k, j) => {
      columns[j]?.push(k === LN_LNR ? 1 / STRENGTH.sd : 0, k === LN_ZR ? 1 / DEPTH.sd : 0);
      if (bothWays) columns[j]?.push(k === APART ? 1 / rangeMm : 0);
    });
    return columns;
  };
  return { residuals, jacobian };
}

/** @param soft whether a width far from the law counts less */
function fitWithin(ladder: Ladder, fromMm: number, toMm: number, soft: boolean): NonlinearFit {
  const { marked, rangeMm, bothWays, low, p } = ladder;
  // The median: one width with a misplaced decimal point does not move the bounds.
  const usual = median(marked.map((c) => c.widthMm));
  const apart = bothWays ? [0] : [];
  return minimiseFromSeveral(
    {
      ...problemOf(ladder, soft),
      smallSaving: SMALL_SAVING,
      low: [fromMm, Math.log(rangeMm / 500), Math.log(usual / 50), Math.log(0.02), ...apart.map(() => -rangeMm)],
      high: [toMm, Math.log(rangeMm * 20), Math.log(usual * 20), Math.log(6), ...apart.map(() => rangeMm)],
    },
    startsFor(marked, p, low, rangeMm).map((start) => [...start, ...apart]),
  );
}

/** As it is near 0, and growing only as the root of its logarithm far away. */
function softened(r: number): number {
  return Math.sign(r) * SOFT_BEYOND * Math.sqrt(Math.log1p((r / SOFT_BEYOND) ** 2));
}

/** Derivative of {@link softened}. */
function softenedSlope(r: number): number {
  const soft = softened(r);
  return soft === 0 ? 1 : r / (soft * (1 + (r / SOFT_BEYOND) ** 2));
}

function spotOf(x: readonly number[]): Spot {
  const [z0 = Number.NaN, lnZR = Number.NaN, lnW0 = Number.NaN, lnLnR = Number.NaN] = x;
  return { z0, zR: Math.exp(lnZR), w0: Math.exp(lnW0), lnR: Math.exp(lnLnR) };
}

/** Focus at the middle of what marked, or where it is thinnest; weak and strong; shallow and deep: twelve. */
function startsFor(marked: readonly Marked[], p: DosePower, low: number, range: number): number[][] {
  const middle = marked.reduce((sum, c) => sum + c.zMm, 0) / marked.length;
  const thinnest = marked.reduce((best, c) => (c.widthMm < best.widthMm ? c : best)).zMm;
  const starts: number[][] = [];
  for (const z0 of [middle, thinnest])
    for (const strength of [2, 6, 18])
      for (const depth of [range / 8, range / 3]) {
        const unit = { z0, zR: depth, w0: 1, lnR: Math.log(strength) };
        const ratios = marked.map((c) => c.widthMm / Math.max(0.1, markWidth(c.zMm, unit, p))).sort((a, b) => a - b);
        const w0 = ratios[Math.floor(ratios.length / 2)] ?? Number.NaN;
        starts.push([Math.min(low + range, Math.max(low, z0)), Math.log(depth), Math.log(w0), Math.log(unit.lnR)]);
      }
  return starts;
}

function judged(fit: NonlinearFit, ladder: Ladder): WidthFit {
  const { low, high, marked } = ladder;
  const around = aroundOf(fit.x, ladder);
  const { spot } = around;
  const step = stepOf(ladder);
  if (spot.z0 < low + step) return { status: "cannot tell", reason: "focus beyond the first" };
  if (spot.z0 > high - step) return { status: "cannot tell", reason: "focus beyond the last" };
  const adjustment = fit.covariance && adjust(modelAround(ladder, around));
  if (!adjustment) return { status: "cannot tell", reason: "no turn" };
  const at = (row: Row, value: number, scale = 1): Measured => {
    const { quantity } = combine(adjustment, row);
    return {
      ...quantity,
      value,
      standardUncertainty: scale * quantity.standardUncertainty,
    };
  };
  const [w0, zR] = [at({ "ln w0": 1 }, spot.w0, spot.w0), at({ "ln zR": 1 }, spot.zR, spot.zR)];
  const isKnown = [w0, zR].every((m) => m.standardUncertainty < SPOT_KNOWN * m.value);
  const { apartMm } = around;
  const waist = (run: LineRun) => at(focusRow(around, run), spot.z0 + apartShare(run) * (apartMm ?? 0));
  const squares = marked.reduce((sum, c) => sum + ((c.widthMm - lawWidth(c.zMm, runOf(c), around)) / c.u) ** 2, 0);
  return {
    status: "solved",
    z0: at(focusRow(around, "middle"), spot.z0),
    spot,
    known: isKnown ? { w0, zR } : null,
    waists: apartMm === null ? null : { x: waist("x"), y: waist("y"), apart: at({ apart: 1 }, apartMm) },
    scatter: Math.sqrt(squares / Math.max(1, marked.length - fit.x.length)),
  };
}

/** All widths, with nothing of them in common: what a gauge always reads wrong moves no focus. */
function modelAround({ cells, settingMm }: Ladder, around: Around) {
  const group = "widths";
  const source = { id: group, label: "Widths and how they scatter", kind: "A" as const };
  return {
    observations: [
      ...cells.flatMap((c, i): Observation[] => {
        const run = runOf(c);
        if (c.status === "unmarked") return unmarkedRow(`cell ${i}`, c.zMm, run, around);
        return [
          {
            id: `cell ${i}`,
            label: "a width",
            source,
            group,
            reading: null,
            canBeWrong: false,
            u: Math.hypot(c.u, textureMm(c.zMm, run, around)),
            row: widthRow(c.zMm, run, around),
            y: c.widthMm - lawWidth(c.zMm, run, around),
          },
        ];
      }),
      ...knownOfLaw(around),
      ...knownOfCells(
        cells.map((c) => c.zMm),
        settingMm,
        around,
      ),
    ],
    groups: [{ id: group, priorFreedom: GAUGE_FREEDOM, leastFactor: 0 }],
    wanted: [],
  };
}
