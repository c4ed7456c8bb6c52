/** Widths against height with what was fitted, the cells that did not mark, and the depth of focus. */

import type { XyFigure } from "../drawing/figure";
import { fromInternal, type LengthUnit } from "../metrology/units";
import type { BeamFit } from "./beam-widths";
import type { Doses } from "./doses";
import { depthOfFocus, dosePower, markWidth } from "./mark-width-law";
import type { LadderCell, WidthFit } from "./width-fit";

const CURVE_POINTS = 61;
/** Half width of a 95 % interval of a normal scatter, in u. */
const TWO_SIGMA = 1.96;

type Fits = { fit: WidthFit | null; beam: BeamFit | null };
type Burned = {
  /** Heights that were burned, rising, mm. */
  heights: readonly number[];
  widths: readonly LadderCell[];
  doses: Doses;
};

/** @param share depth of focus is where the beam is no more than this share wider */
export function widthFigure(
  fits: Fits,
  { heights, widths, doses }: Burned,
  unit: LengthUnit,
  share: number,
): XyFigure[] {
  const read = widths.flatMap((w) => (w.status === "marked" ? [w] : []));
  const [low, high] = [heights[0], heights[heights.length - 1]];
  if (read.length === 0 || low === undefined || high === undefined) return [];
  const shown = (mm: number) => fromInternal(mm, unit);
  const fitted = fittedOf(fits, doses);
  const aside = fitted ? depthOfFocus({ zR: fitted.zR }, share) : 0;
  const blank = widths.flatMap((w) => (w.status === "unmarked" ? [shown(w.zMm)] : []));
  return [
    {
      kind: "xy",
      id: "widths",
      title: doses === "beam" ? "Width of the beam" : "Width of a line",
      x: { label: "height", unit },
      y: { label: "width", unit },
      points: read.map((w) => ({
        x: shown(w.zMm),
        y: shown(w.widthMm),
        expanded: shown(TWO_SIGMA * w.u),
        state: "good" as const,
      })),
      line: fitted ? curve(fitted.widthAt, low, high).map(([z, d]) => lineAt(shown(z), shown(d))) : [],
      span: fitted ? { from: shown(fitted.z0 - aside), to: shown(fitted.z0 + aside), label: "depth of focus" } : null,
      absent: blank.length > 0 ? { label: "no mark", xs: blank } : null,
    },
  ];
}

/** Only where there is a mark, down to nothing at its ends. */
function curve(widthAt: (z: number) => number, low: number, high: number): [z: number, width: number][] {
  const at = Array.from({ length: CURVE_POINTS }, (_, i) => low + ((high - low) * i) / (CURVE_POINTS - 1));
  const all = at.map((z): [number, number] => [z, widthAt(z)]);
  return all.filter(([, width], i) => width > 0 || (all[i - 1]?.[1] ?? 0) > 0 || (all[i + 1]?.[1] ?? 0) > 0);
}

function lineAt(x: number, y: number) {
  return { x, y, low: y, high: y };
}

function fittedOf({ fit, beam }: Fits, doses: Doses) {
  if (beam?.status === "solved") return { z0: beam.z0.value, zR: beam.zR.value, widthAt: beam.widthAt };
  if (fit?.status !== "solved") return null;
  const { spot } = fit;
  return { z0: spot.z0, zR: spot.zR, widthAt: (z: number) => markWidth(z, spot, dosePower({ doses })) };
}
