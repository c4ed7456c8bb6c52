/** How far each mark lies off its nominal place, with the line of the scale. */
import type { XyFigure } from "../../drawing/figure";
import { mean } from "../../fitting/repeats";
import { coverageFactor } from "../../fitting/student-t";
import { expandedUncertainty } from "../../metrology/measured";
import { fromInternal, type LengthUnit } from "../../metrology/units";
import type { RoundRecord } from "../../trial/history";
import type { AxisRead } from "./observe";
import type { AxisScalePlan } from "./plan";

const CURVE_POINTS = 11;

export function figuresOf(
  { plan }: RoundRecord<AxisScalePlan>,
  axes: readonly AxisRead[],
  unit: LengthUnit,
): XyFigure[] {
  if (plan.way !== "ladder") return [];
  const shown = (mm: number) => fromInternal(mm, unit);
  return axes.map(({ axis, read, ratio, residuals }) => {
    const longest = Math.max(...read.map((r) => r.nominalMm));
    const off = ratio.quantity.value - 1;
    const first = read[0];
    // The line as it lies among the readings, which all begin at the first tick.
    const shift = first ? first.mean - first.nominalMm - (residuals[0]?.mm ?? 0) - off * first.nominalMm : 0;
    const half = expandedUncertainty(ratio.quantity);
    const places = bySide(read, residuals);
    return {
      kind: "xy",
      id: `scale ${axis}`,
      title: `${axis.toUpperCase()}: how far off nominal`,
      span: null,
      absent: null,
      x: { label: "nominal", unit },
      y: { label: "off by", unit },
      points: places.map(({ nominalMm, off, u }) => ({
        x: shown(nominalMm),
        y: shown(off),
        expanded: shown(coverageFactor(Infinity) * u),
        state: "good" as const,
      })),
      line: Array.from({ length: CURVE_POINTS }, (_, i) => {
        const n = (longest * i) / (CURVE_POINTS - 1);
        return {
          x: shown(n),
          y: shown(shift + off * n),
          low: shown(shift + (off - half) * n),
          high: shown(shift + (off + half) * n),
        };
      }),
    };
  });
}

/** Rows that come to a tick from the same side are one point: how far off it is on the whole. */
function bySide(read: AxisRead["read"], residuals: AxisRead["residuals"]) {
  const groups = new Map<string, { nominalMm: number; off: number[]; u: number[] }>();
  for (const [i, { place, nominalMm, mean: at }] of read.entries()) {
    const key = `${nominalMm} ${place.kind === "tick" ? place.side : ""}`;
    const group = groups.get(key) ?? { nominalMm, off: [], u: [] };
    group.off.push(at - nominalMm);
    group.u.push(residuals[i]?.u ?? 0);
    groups.set(key, group);
  }
  return [...groups.values()].map(({ nominalMm, off, u }) => ({
    nominalMm,
    off: mean(off),
    u: Math.hypot(...u) / u.length,
  }));
}
