import type { Adapted } from "../../artwork/adapt";
import type { Point } from "../../artwork/contour";
import { boundsOf } from "../../core/geometry/rect";
import { pathDataIn } from "../artwork/path-data";

/** Around all of it, as a share of its size. */
const MARGIN = 0.04;

/** As it was drawn, as it is to be cut, and where something stands in the way. */
export function ArtworkDrawing({ adapted }: { adapted: Adapted }) {
  const { before, after, left, problems, slots } = adapted;
  const all = [...before, ...left, ...problems].flatMap((drawn) => drawn.points);
  const box = boundsOf(all);
  if (!box) return null;
  const size = Math.max(box.x1 - box.x0, box.y1 - box.y0);
  const margin = MARGIN * size;
  const d = pathDataIn(box);
  const at = ({ x, y }: Point) => ({ cx: x - box.x0, cy: box.y1 - y });
  return (
    <svg
      role="img"
      aria-label={`The drawing, ${before.length} outlines, ${problems.length} problems`}
      viewBox={`${-margin} ${-margin} ${box.x1 - box.x0 + 2 * margin} ${box.y1 - box.y0 + 2 * margin}`}
      className="h-full max-h-[62vh] w-full"
      fill="none"
      strokeLinejoin="round"
    >
      <path
        d={before.map((c) => d({ points: c.points })).join("")}
        stroke="var(--color-ink3)"
        strokeDasharray="4 3"
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      <path d={left.map(d).join("")} stroke="var(--color-ink3)" strokeWidth={1} vectorEffect="non-scaling-stroke" />
      <path
        d={after.map((c) => d({ points: c.points })).join("")}
        stroke="var(--color-steel)"
        strokeWidth={1.6}
        vectorEffect="non-scaling-stroke"
      />
      {slots.map((p) => (
        <circle key={`${p.x} ${p.y}`} {...at(p)} r={size / 90} fill="var(--color-steel)" fillOpacity={0.35} />
      ))}
      {problems.map((p) => (
        <g key={`${p.kind} ${p.at.x} ${p.at.y}`} stroke="var(--color-ember)" strokeWidth={2}>
          <path d={d({ points: p.points, closed: p.kind !== "open" })} vectorEffect="non-scaling-stroke" />
          <circle {...at(p.at)} r={size / 45} vectorEffect="non-scaling-stroke" />
        </g>
      ))}
    </svg>
  );
}
