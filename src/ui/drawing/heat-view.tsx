import type { Figure } from "../../core/drawing/figure";
import { fixed } from "../../core/metrology/quantity-text";

type Heat = Extract<Figure, { kind: "heat" }>;

/** The palest and the darkest cell. */
const [PALE, DARK] = [0.06, 0.62];
const DECIMALS = 3;

/** Values over a field: darker is larger; the corners, the middles of the sides and the centre have their number. */
export function HeatView({ figure }: { figure: Heat }) {
  const { cells, unit } = figure;
  const xs = [...new Set(cells.map((c) => c.x))].sort((a, b) => a - b);
  const ys = [...new Set(cells.map((c) => c.y))].sort((a, b) => a - b);
  const values = cells.map((c) => c.value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const [left, right, front, back] = [xs[0] ?? 0, xs.at(-1) ?? 1, ys[0] ?? 0, ys.at(-1) ?? 1];
  const [stepX, stepY] = [(right - left) / Math.max(1, xs.length - 1), (back - front) / Math.max(1, ys.length - 1)];
  const named = (all: readonly number[]) => [all[0], all[Math.floor(all.length / 2)], all.at(-1)];
  const [namedX, namedY] = [named(xs), named(ys)];
  const words = `${fixed(low, DECIMALS)} to ${fixed(high, DECIMALS)} ${unit}`;
  const size = (right - left + stepX) / 17;
  return (
    <figure>
      <figcaption className="flex flex-wrap items-baseline justify-between gap-x-3">
        <span className="text-[14px] font-semibold">{figure.title}</span>
        <span className="text-[13px] text-ink2">{words}</span>
      </figcaption>
      <svg
        className="mx-auto mt-1 block h-auto w-full max-w-[330px]"
        viewBox={`${left - stepX / 2} ${-back - stepY / 2} ${right - left + stepX} ${back - front + stepY}`}
        role="img"
        aria-label={`${figure.title}: ${words}`}
      >
        {cells.map(({ x, y, value }) => (
          <rect
            key={`${x} ${y}`}
            x={x - stepX / 2}
            y={-y - stepY / 2}
            width={1.02 * stepX}
            height={1.02 * stepY}
            className="fill-steel"
            fillOpacity={PALE + ((DARK - PALE) * (value - low)) / Math.max(1e-12, high - low)}
          />
        ))}
        {cells
          .filter((c) => namedX.includes(c.x) && namedY.includes(c.y))
          .map(({ x, y, value }) => (
            <text
              key={`${x} ${y}`}
              x={Math.max(left + 1.1 * size, Math.min(right - 1.1 * size, x))}
              y={-Math.max(front + size / 3, Math.min(back - size / 2, y)) + size / 3}
              textAnchor="middle"
              fontSize={size}
              className="num fill-ink"
            >
              {fixed(value, DECIMALS)}
            </text>
          ))}
      </svg>
    </figure>
  );
}
