import type { Developed } from "../../artwork/develop";
import { boundsOf, type Rect } from "../../core/geometry/rect";
import { pathDataIn } from "../artwork/path-data";

/** Around all of it, as a share of its size. */
const MARGIN = 0.05;

/** Artwork as it is drawn, and as it is sent; the seam where the part has come round. */
export function FlatDrawing({ made, around }: { made: Developed; around: "x" | "y" }) {
  const before = centred(made.before, around);
  const after = centred(made.after, around);
  // Half a turn either way the part has come round.
  const seams = [-made.turnSentMm / 2, made.turnSentMm / 2];
  const marked = boundsOf([...before, ...after].flatMap((p) => p.points));
  if (!marked) return null;
  const box = reaching(marked, seams, around);
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const size = Math.max(width, height);
  const margin = MARGIN * size;
  const d = pathDataIn(box);
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
          stroke="var(--color-ember)"
          strokeDasharray="2 5"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <path
        d={before.map(d).join("")}
        stroke="var(--color-ink3)"
        strokeDasharray="4 3"
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      <path d={after.map(d).join("")} stroke="var(--color-steel)" strokeWidth={1.6} vectorEffect="non-scaling-stroke" />
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

/** So that both seams are seen. */
function reaching(box: Rect, [low = 0, high = 0]: number[], around: "x" | "y"): Rect {
  return around === "y"
    ? { ...box, y0: Math.min(box.y0, low), y1: Math.max(box.y1, high) }
    : { ...box, x0: Math.min(box.x0, low), x1: Math.max(box.x1, high) };
}
