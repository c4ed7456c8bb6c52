/**
 * The mark width law around a spot, as a linear model: the parameters are the changes of the spot.
 *
 *   width = law(z) + sum_k slope_k(z) change_k        k: z0, ln zR, ln w0, ln ln R, and where lines run both ways, how far the waists
 *                                                     of the two directions are apart
 *
 * Stock and power differ a little along a ladder, which moves the focus: `drift` is by how much ln R changes from end to end.
 * Strength of marking and focal depth have wide limits of what is met in practice beside them, Gaussian in their logarithms. A cell that
 * left no mark has a width below what can be seen.
 */
import { known, type Observation, type Row } from "../estimate/model";
import { type DosePower, type Spot, signedWidth, widthSlopes } from "./mark-width-law";

/** Direction in which a line runs: it shows the width of the beam across it. */
export type LineRun = "x" | "y";

/** A spot by which widths are looked at. */
export type Around = {
  spot: Spot;
  /** Waist of lines along X above that of lines along Y, mm; `null` where all lines run one way. `spot.z0` is the middle of both. */
  apartMm: number | null;
  p: DosePower;
  /** From the lowest to the highest cell, and the middle of them, mm. */
  rangeMm: number;
  middleMm: number;
  /** Narrower lines are not seen, mm. */
  visibleMm: number;
};

/** Limits of practice: middle of ln R and sd of its logarithm; the same of the ratio of focal depth to length of ladder. (from memory) */
export const STRENGTH = { middle: 1.2, sd: 0.9 };
export const DEPTH = { middle: Math.log(0.25), sd: 1.1 };
/**
 * Lines along one axis show the focus of the other, and few beams have both at one height: SD of that, as a share of the focal
 * depth. (from memory, no source)
 */
const AXES_APART = 0.015;
/** How much ln R changes from one end of a ladder to the other with stock and power, how much more for one direction of lines, and from cell to cell, sd. (common practice, no source) */
const [DRIFT, DRIFT_OF_ONE, CELL_STRENGTH] = [0.08, 0.04, 0.02];
/** The same from line to line. (common practice, no source) */
const TEXTURE = 0.02;

/** How much of the distance of the waists a line shows. */
export function apartShare(run: LineRun): number {
  return run === "x" ? 0.5 : -0.5;
}

function spotOfRun({ spot, apartMm }: Around, run: LineRun): Spot {
  return apartMm === null ? spot : { ...spot, z0: spot.z0 + apartShare(run) * apartMm };
}

/** Width by the law, mm; below 0 where there is no mark. */
export function lawWidth(zMm: number, run: LineRun, around: Around): number {
  return signedWidth(zMm, spotOfRun(around, run), around.p);
}

/** Derivatives of {@link lawWidth}: by z0 and the offset between runs in mm per mm, by the other parameters in mm. */
export function widthRow(zMm: number, run: LineRun, around: Around): Row {
  const [z0, lnZR, lnW0, lnLnR] = widthSlopes(zMm, spotOfRun(around, run), around.p);
  // By ln R itself, of which ln ln R is the parameter.
  const byStrength = lnLnR / around.spot.lnR;
  const along = (zMm - around.middleMm) / around.rangeMm;
  return {
    z0,
    "ln zR": lnZR,
    "ln w0": lnW0,
    "ln ln R": lnLnR,
    drift: byStrength * along,
    ...(around.apartMm === null
      ? {}
      : {
          [driftOf(run)]: byStrength * along,
          apart: apartShare(run) * z0,
          [heightOf(zMm)]: -z0,
          [strengthOf(zMm)]: byStrength,
        }),
  };
}

const driftOf = (run: LineRun) => `drift ${run}`;
const heightOf = (zMm: number) => `height ${zMm}`;
const strengthOf = (zMm: number) => `strength ${zMm}`;

/** What lines of both directions in one cell have in common: how its height was set, and how its stock marks. */
export function knownOfCells(heights: readonly number[], settingMm: number, { apartMm }: Around): Observation[] {
  if (apartMm === null) return [];
  const drifts = (["x", "y"] as const).map((run) => ({
    ...known(driftOf(run), "equal stock along the ladder", { u: DRIFT_OF_ONE, canBeWrong: false }),
    source: { id: "drift", label: "Stock and power along the ladder", kind: "B" as const },
  }));
  const cells = [...new Set(heights)].flatMap((zMm) => [
    {
      ...known(heightOf(zMm), "height of a cell", { u: settingMm, canBeWrong: false }),
      source: { id: "cells", label: "Height and stock of each cell", kind: "B" as const },
    },
    {
      ...known(strengthOf(zMm), "stock of a cell", { u: CELL_STRENGTH, canBeWrong: false }),
      source: { id: "cells", label: "Height and stock of each cell", kind: "B" as const },
    },
  ]);
  return [...drifts, ...cells];
}

/** Scatter of the width of one line with the texture of its stock, mm: most where the law is steep, near the ends of what marks. */
export function textureMm(zMm: number, run: LineRun, around: Around): number {
  const [, , , byLnLnR] = widthSlopes(zMm, spotOfRun(around, run), around.p);
  return (TEXTURE * byLnLnR) / around.spot.lnR;
}

/** Height of the focus: the middle of both waists, or that of lines of one direction. */
export function focusRow({ apartMm }: Pick<Around, "apartMm">, of: LineRun | "middle"): Row {
  if (apartMm === null) return { z0: 1, axes: 1 };
  return of === "middle" ? { z0: 1 } : { z0: 1, apart: apartShare(of) };
}

/** A cell that left no mark, where the law says that it should have left a visible one. */
export function unmarkedRow(id: string, zMm: number, run: LineRun, around: Around): Observation[] {
  const width = lawWidth(zMm, run, around);
  if (width <= around.visibleMm) return [];
  const source = { id: "no mark", label: "Cells without a mark", kind: "B" as const };
  return [
    {
      id,
      label: "a cell without a mark",
      source,
      group: null,
      reading: null,
      canBeWrong: false,
      row: widthRow(zMm, run, around),
      y: around.visibleMm - width,
      u: around.visibleMm,
    },
  ];
}

/** What is known of beams and marking beforehand. */
export function knownOfLaw({ spot, apartMm, rangeMm }: Around): Observation[] {
  const limit = (parameter: string, label: string, value: number, u: number) => ({
    ...known(parameter, label, { value, u, canBeWrong: false }),
    source: { id: "practice", label: "Strength and focal depth met in practice", kind: "B" as const },
  });
  return [
    limit("ln ln R", "usual strength of marking", Math.log(STRENGTH.middle) - Math.log(spot.lnR), STRENGTH.sd),
    {
      ...known("drift", "equal stock and power along the ladder", { u: DRIFT, canBeWrong: false }),
      source: { id: "drift", label: "Stock and power along the ladder", kind: "B" as const },
    },
    limit("ln zR", "usual focal depth", DEPTH.middle - Math.log(spot.zR / rangeMm), DEPTH.sd),
    apartMm === null
      ? known("axes", "one focus for both directions", { u: AXES_APART * spot.zR, canBeWrong: false })
      : limit("apart", "usual distance of the waists", -apartMm, rangeMm),
  ];
}
