import { memo } from "react";
import { type CouponPath, type MarkingSettings, type Piece, settingsOf } from "../../core/coupon/piece";
import { boundsOf } from "../../core/geometry/rect";
import { INK, pathOf, type View } from "./primitive-view";

/** A coupon as it will be burned: rows as rows, areas to scan as the rows they will become. Parts off the stock in ember. */
export const PieceView = memo(function PieceView({ piece, view }: { piece: Piece; view: View }) {
  return (
    <g fill="none">
      {piece.paths.map((path, i) => {
        const settings = settingsOf(piece, path.settings);
        const off = path.points.some((p) => p.x < 0 || p.y < 0 || p.x > piece.widthMm || p.y > piece.heightMm);
        const ink = off ? INK["needs you"] : INK.ink;
        // biome-ignore lint/suspicious/noArrayIndexKey: paths have no other identity and never change order
        return <path key={i} d={shapeOf(path, settings, view)} stroke={ink} strokeWidth={penOf(settings, view)} />;
      })}
    </g>
  );
});

function shapeOf(path: CouponPath, settings: MarkingSettings, view: View): string {
  const bounds = boundsOf(path.points);
  if (!settings.scan || !bounds) return pathOf(path.points, path.closed, view);
  const rows: string[] = [];
  for (let y = bounds.y0 + settings.scan.rowPitchMm / 2; y < bounds.y1; y += settings.scan.rowPitchMm)
    rows.push(
      pathOf(
        [
          { x: bounds.x0, y },
          { x: bounds.x1, y },
        ],
        false,
        view,
      ),
    );
  return rows.join("");
}

function penOf(settings: MarkingSettings, view: View): number {
  return settings.use === "line" ? 1 : Math.max(1.4, 0.25 * view.scale);
}
