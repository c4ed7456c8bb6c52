import { memo } from "react";
import type { MarkingSettings, Piece } from "../../core/coupon/piece";
import { scanRows } from "../../core/coupon/scan-rows";
import { type Stroke, strokesOf } from "../../core/coupon/strokes";
import { INK, pathOf, type View } from "./primitive-view";

/** A coupon as it will be burned: rows as rows, areas to scan as the rows they will become. Parts off the stock in ember. */
export const PieceView = memo(function PieceView({ piece, view }: { piece: Piece; view: View }) {
  return (
    <g fill="none">
      {[...strokesOf(piece)].map((stroke, i) => {
        const off = stroke.points.some((p) => p.x < 0 || p.y < 0 || p.x > piece.widthMm || p.y > piece.heightMm);
        const ink = off ? INK["needs you"] : INK.ink;
        // biome-ignore lint/suspicious/noArrayIndexKey: strokes have no other identity and never change order
        return <path key={i} d={shapeOf(stroke, view)} stroke={ink} strokeWidth={penOf(stroke.settings, view)} />;
      })}
    </g>
  );
});

function shapeOf({ settings, points, closed }: Stroke, view: View): string {
  if (!settings.scan) return pathOf(points, closed, view);
  return scanRows(points, settings.scan.rowPitchMm)
    .map(({ y, x0, x1 }) => `M${view.x(x0).toFixed(2)} ${view.y(y).toFixed(2)}H${view.x(x1).toFixed(2)}`)
    .join("");
}

function penOf(settings: MarkingSettings, view: View): number {
  return settings.use === "line" ? 1 : Math.max(1.4, 0.25 * view.scale);
}
