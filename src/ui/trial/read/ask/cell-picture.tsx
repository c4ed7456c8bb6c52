import { memo } from "react";
import type { Piece } from "../../../../core/coupon/piece";
import { strokesOf } from "../../../../core/coupon/strokes";
import type { Rect } from "../../../../core/geometry/rect";

/** How far a line of a cell may reach beyond its place, mm. */
const BEYOND_MM = 0.2;

/** One cell of the coupon as it was burned, in the ink of its key. */
export const CellPicture = memo(function CellPicture({ piece, area }: { piece: Piece; area: Rect }) {
  const strokes = [...strokesOf(piece)].filter(({ points }) =>
    points.every(
      (p) =>
        p.x > area.x0 - BEYOND_MM &&
        p.x < area.x1 + BEYOND_MM &&
        p.y > area.y0 - BEYOND_MM &&
        p.y < area.y1 + BEYOND_MM,
    ),
  );
  const d = strokes
    .map(({ points }) =>
      [...points]
        .map((p, i) => `${i === 0 ? "M" : "L"}${(p.x - area.x0).toFixed(2)} ${(area.y1 - p.y).toFixed(2)}`)
        .join(""),
    )
    .join("");
  return (
    <svg viewBox={`0 0 ${area.x1 - area.x0} ${area.y1 - area.y0}`} className="h-6 w-full" aria-hidden="true">
      <path d={d} fill="none" stroke="currentColor" strokeWidth={0.28} />
    </svg>
  );
});
