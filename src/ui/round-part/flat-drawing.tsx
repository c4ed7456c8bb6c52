import type { Point } from "../../artwork/contour";
import type { Developed } from "../../artwork/develop";
import { boundsOf } from "../../core/geometry/rect";

/** Around all of it, as a share of its size. */
const MARGIN = 0.05;

/** Artwork as it is drawn, and as it is sent; the seam where the part has come round. */
export function FlatDrawing({ made, around }: { made: Developed; around: "x" | "y" }) {
  const before = centred(made.before, around);
  const after = centred(made.after, around);
  const box = boundsOf([...before, ...after].flatMap((p) => p.points));
  if (!box) return null;
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const size = Math.max(width, height);
  const margin = MARGIN * size;
  // Y is drawn downward: each place is turned over in the box.
  const d = (points: readonly Point[], closed: boolean) =>
    points.map((p, i) => `${i === 0 ? "M" : "L"}${(p.x - box.x0).toFixed(3)} ${(box.y1 - p.y).toFixed(3)}`).join("") +
    (closed ? "Z" : "");
  const seams = seamsOf(after, around);
  return (
    <svg
      role="img"
      aria-label={`Artwork as drawn and as sent, ${made.before.length} lines`}
      viewBox={`${-margin} ${-margin} ${width + 2 * margin} ${height + 2 * margin}`}
      className="h-full max-h-[52vh] w-full"
      fill="none"
      strokeLinejoin="round"
    >
      {seams.map((at) => (
        <path
          key={at}
          d={
            around === "y"
              ? `M${-margin} ${box.y1 - at}H${width + margin}`
              : `M${at - box.x0} ${-margin}V${height + margin}`
          }
          stroke="var(--color-line)"
          strokeDasharray="2 5"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <path
        d={before.map((p) => d(p.points, p.closed)).join("")}
        stroke="var(--color-ink3)"
        strokeDasharray="4 3"
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={after.map((p) => d(p.points, p.closed)).join("")}
        stroke="var(--color-steel)"
        strokeWidth={1.6}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}

type Path = Developed["after"][number];

/** Both begin at the same place along the part, with their middle on the same line around it. */
function centred(paths: readonly Path[], around: "x" | "y"): Path[] {
  const box = boundsOf(paths.flatMap((p) => p.points)) ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  const [dx, dy] = around === "y" ? [box.x0, (box.y0 + box.y1) / 2] : [(box.x0 + box.x1) / 2, box.y0];
  return paths.map((p) => ({ ...p, points: p.points.map(({ x, y }) => ({ x: x - dx, y: y - dy })) }));
}

/** The two ends of what is sent, where its beginning and its end come to meet. */
function seamsOf(after: readonly Path[], around: "x" | "y"): number[] {
  const values = after.flatMap((p) => p.points.map((q) => q[around]));
  return values.length === 0 ? [] : [Math.min(...values), Math.max(...values)];
}
