import type { Figure } from "../../core/drawing/figure";
import { fixed, plain } from "../../core/metrology/quantity-text";

type Vectors = Extract<Figure, { kind: "vectors" }>;

/** Room around the places, a share of the distance between the outer ones. */
const ROOM = 0.11;
/** Shorter ones are told with two more digits. */
const FINE_MM = 0.1;

/** Arrows over a field: from where each mark is drawn to where it lies, so many times longer. */
export function VectorsView({ figure }: { figure: Vectors }) {
  const { arrows, magnification } = figure;
  const [xs, ys] = [arrows.map((a) => a.x), arrows.map((a) => a.y)];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const side = Math.max(x1 - x0, y1 - y0);
  const room = ROOM * side;
  const largest = arrows.reduce((most, a) => Math.max(most, Math.hypot(a.dx, a.dy)), 0);
  const dot = side / 160;
  const words = `${plain(magnification, 3)} times longer; the longest is ${fixed(largest, largest < FINE_MM ? 4 : 2)} ${figure.unit}`;
  return (
    <figure>
      <figcaption className="flex flex-wrap items-baseline justify-between gap-x-3">
        <span className="text-[14px] font-semibold">{figure.title}</span>
        <span className="text-[13px] text-ink2">Arrows {words}</span>
      </figcaption>
      <svg
        className="mx-auto mt-1 block h-auto w-full max-w-[330px]"
        viewBox={`${x0 - room} ${-y1 - room} ${x1 - x0 + 2 * room} ${y1 - y0 + 2 * room}`}
        role="img"
        aria-label={`${figure.title}. Errors drawn ${words}.`}
      >
        <rect
          x={x0}
          y={-y1}
          width={x1 - x0}
          height={y1 - y0}
          fill="none"
          className="stroke-line"
          strokeDasharray={`${4 * dot} ${3 * dot}`}
          strokeWidth={dot / 2}
        />
        {arrows.map(({ x, y, dx, dy }) => (
          <g key={`${x} ${y}`}>
            <circle cx={x} cy={-y} r={dot} className="fill-line" />
            <line
              x1={x}
              y1={-y}
              x2={x + magnification * dx}
              y2={-(y + magnification * dy)}
              className="stroke-steel"
              strokeWidth={dot}
            />
            <circle cx={x + magnification * dx} cy={-(y + magnification * dy)} r={1.4 * dot} className="fill-steel" />
          </g>
        ))}
      </svg>
    </figure>
  );
}
