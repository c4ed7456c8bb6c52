/** Offset against speed: readings, line and its 95 % band. */
import type { XyFigure } from "../../drawing/figure";
import { expandedUncertainty } from "../../metrology/measured";
import { fromInternal } from "../../metrology/units";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Analysis } from "./analysis";
import { holdOf } from "./in-force";
import type { ScanOffsetPlan } from "./plan";

const CURVE_POINTS = 25;

export function figuresOf(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  analysis: Analysis,
): XyFigure[] {
  const unit = lengthUnitOf(history);
  const shown = (staggerMm: number) => fromInternal(staggerMm / 2, unit);
  const { lineAt } = analysis;
  return [
    {
      kind: "xy",
      span: null,
      absent: null,
      id: "offset",
      title:
        round.purpose === "proof" || round.purpose === "check" ? "Offset left against speed" : "Offset against speed",
      x: { label: "speed", unit: "mm/s" },
      y: { label: "offset per direction", unit },
      points: analysis.speeds.map((s) => ({
        x: s.speedMmPerS,
        y: shown(s.byReadings.quantity.value),
        expanded: shown(expandedUncertainty(s.byReadings.quantity)),
        state: "good" as const,
      })),
      line: lineAt
        ? places(history, round, analysis).map((x) => {
            const m = lineAt(x).quantity;
            const half = expandedUncertainty(m);
            return { x, y: shown(m.value), low: shown(m.value - half), high: shown(m.value + half) };
          })
        : [],
    },
  ];
}

/** Where the line is drawn: everywhere, or only at the speeds burned where a table acts at single speeds. */
function places(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>, analysis: Analysis): number[] {
  const fastest = Math.max(...round.plan.speedsMmPerS);
  const everywhere = Array.from({ length: CURVE_POINTS }, (_, i) => (fastest * 1.05 * i) / (CURVE_POINTS - 1));
  const jumps = holdOf(history).tableKind !== "interpolated" && everywhere.some((v) => analysis.compensated(v) !== 0);
  return jumps ? analysis.speeds.filter((s) => s.byLine).map((s) => s.speedMmPerS) : everywhere;
}
