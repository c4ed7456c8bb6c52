import type { BendResult } from "../../artwork/bend";
import { reachOf } from "../../core/procedures/field/table";
import type { FieldTable } from "../../core/settings/field-table";
import { pathDataIn } from "../artwork/path-data";

type Props = { made: Extract<BendResult, { ok: true }>; table: FieldTable; fieldMm: number };

/** Around the field, as a share of it. */
const MARGIN = 0.03;

/** The drawing in the field, as drawn and as it is sent; the border of what was measured, and what lies outside it. */
export function BentDrawing({ made, table, fieldMm }: Props) {
  const half = fieldMm / 2;
  const reach = reachOf(table) ?? half;
  const size = fieldMm * (1 + 2 * MARGIN);
  const d = pathDataIn({ x0: -half - MARGIN * fieldMm, y0: 0, x1: 0, y1: half + MARGIN * fieldMm });
  const square = (r: number) => ({
    points: [
      { x: -r, y: -r },
      { x: r, y: -r },
      { x: r, y: r },
      { x: -r, y: r },
    ],
    closed: true,
  });
  return (
    <svg
      role="img"
      aria-label={`The drawing in the field, ${made.before.length} lines; measured up to ${reach.toFixed(1)} mm from the middle`}
      viewBox={`0 0 ${size} ${size}`}
      className="h-full max-h-[60vh] w-full"
      fill="none"
      strokeLinejoin="round"
    >
      <path d={d(square(half))} stroke="var(--color-line)" vectorEffect="non-scaling-stroke" />
      <path
        d={d(square(reach))}
        stroke="var(--color-verdigris)"
        strokeDasharray="7 4"
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={made.before.map(d).join("")}
        stroke="var(--color-ink3)"
        strokeDasharray="4 3"
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={made.after.map(d).join("")}
        stroke="var(--color-steel)"
        strokeWidth={1.5}
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={made.beyond.map(d).join("")}
        stroke="var(--color-ember)"
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
