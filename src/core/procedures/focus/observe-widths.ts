/**
 * Widths of lines as observations around the spot that they agree on: which of them contradicts the others, and what the next one
 * should be. Readings at the machine by eye, of first, last and sharpest, are ordered and no part of it.
 */

import type { DosePower } from "../../beam/mark-width-law";
import { type LadderCell, spotAround, WIDTH_SCATTER } from "../../beam/width-fit";
import {
  type Around,
  focusRow,
  knownOfCells,
  knownOfLaw,
  type LineRun,
  lawWidth,
  STRENGTH,
  textureMm,
  unmarkedRow,
  widthRow,
} from "../../beam/width-model";
import { type Model, usual } from "../../estimate/model";
import { gaugeTerms, type LengthReading, modelOf } from "../../measuring/length-readings";
import { plain } from "../../metrology/quantity-text";
import { knownSetting, SETTING } from "./found";

export type WidthReading = LengthReading & {
  zMm: number;
  run: LineRun;
};

type Widths = {
  readings: readonly WidthReading[];
  /** As they are fitted. */
  cells: readonly LadderCell[];
  /** Of all that is burned, mm. */
  heights: readonly number[];
  p: DosePower;
  /** Lines run both ways, and both are read. */
  bothWays: boolean;
  /** Standard uncertainty of setting and reading a height, mm. */
  settingMm: number;
  /** Id of the estimate of the focus by these widths. */
  focusId: string;
};

/** Before any width is read: radius of the beam, focal depth and what can be seen, mm. (common practice, no source) */
const [USUAL_RADIUS_MM, USUAL_DEPTH_MM, USUAL_VISIBLE_MM] = [0.1, 1.5, 0.02];

/** @returns `null` while too few widths are read */
export function widthsModel(widths: Widths): Model | null {
  const { readings, cells, settingMm } = widths;
  const taken = readings.some((r) => !r.imagined);
  const around = taken ? spotAround(cells, widths.p) : usualAround(widths);
  if (!around) return null;
  const lawOf = (r: WidthReading) => lawWidth(r.zMm, r.run, around);
  const beyondOf = beyondRead(widths, around);
  // An imagined line where none would be seen is no line.
  const used = readings
    .filter((r) => !r.imagined || lawOf(r) > around.visibleMm)
    .map((r) => {
      const scatter = WIDTH_SCATTER * Math.max(around.visibleMm, lawOf(r));
      return { ...r, u: Math.hypot(r.u, scatter, textureMm(r.zMm, r.run, around), beyondOf(r)) };
    });
  if (used.length === 0) return null;
  const focus = focusRow(around, "middle");
  return modelOf(used, {
    row: (r) => widthRow(r.zMm, r.run, around),
    y: (r) => r.value - lawOf(r),
    terms: gaugeTerms(used, { jawsOf: () => "outside", lengthOf: (r) => r.value }),
    facts: (r) => ({
      pointLabel: `the width at ${plain(r.zMm)} mm${widths.bothWays ? `, lines along ${r.run.toUpperCase()}` : ""}`,
      signedByWords: false,
      axis: r.run,
    }),
    known: [
      usual("z0", "usual focus within the ladder", around.rangeMm / 3),
      usual("ln w0", "usual radius of the beam", 1),
      ...cells.flatMap((c, i) =>
        c.status === "unmarked" ? unmarkedRow(`no mark ${i}`, c.zMm, c.run ?? "x", around) : [],
      ),
      ...knownOfLaw(around),
      ...knownOfCells(
        used.map((r) => r.zMm),
        settingMm,
        around,
      ),
      knownSetting(settingMm),
    ],
    wanted: [
      { id: widths.focusId, label: "the focus height", row: { ...focus, [SETTING]: 1 }, proves: 1 },
      { id: "spot", label: "the radius of the spot", row: { "ln w0": around.spot.w0 } },
      { id: "depth", label: "the focal depth", row: { "ln zR": around.spot.zR } },
    ],
  });
}

/**
 * Beyond the cells that are read, lines thin down to nothing within a step or two, and where is hardly known: a width that is not taken
 * yet may be as far off as the law changes within a step, mm.
 */
function beyondRead({ readings, heights }: Widths, around: Around): (r: WidthReading) => number {
  const read = readings.flatMap((r) => (r.imagined ? [] : [r.zMm]));
  const [low, high] = [Math.min(...read), Math.max(...read)];
  const stepMm = around.rangeMm / Math.max(1, new Set(heights).size - 1);
  return ({ zMm, run, imagined }) => {
    if (!imagined || read.length === 0 || (zMm >= low && zMm <= high)) return 0;
    const outward = zMm < low ? -stepMm : stepMm;
    return Math.abs(lawWidth(zMm, run, around) - Math.max(0, lawWidth(zMm + outward, run, around)));
  };
}

/** Focus in the middle of what is burned, marked as most people do. */
function usualAround({ heights, p, bothWays }: Widths): Around | null {
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const rangeMm = high - low;
  if (!(rangeMm > 0)) return null;
  return {
    spot: {
      z0: (low + high) / 2,
      zR: USUAL_DEPTH_MM,
      w0: USUAL_RADIUS_MM,
      lnR: STRENGTH.middle,
    },
    apartMm: bothWays ? 0 : null,
    p,
    rangeMm,
    middleMm: (low + high) / 2,
    visibleMm: USUAL_VISIBLE_MM,
  };
}
