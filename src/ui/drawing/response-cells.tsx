"use client";
import { type KeyboardEvent, useRef } from "react";
import type { ResponseFigure } from "../../core/drawing/figure";
import { SHEET_CELL_PX, SHEET_COLUMNS } from "../../core/picture/array/cell-sheet";

export type ResponseCell = ResponseFigure["cells"][number];

type Props = {
  cells: readonly ResponseCell[];
  placeOf: (cell: ResponseCell) => { x: number; y: number };
  /** Side of a cell, in units of the drawing. */
  size: number;
  /** Index of the cell in hand. */
  at: number;
  onPoint: (index: number) => void;
  /** Address of the picture of all cells of a burn. Left out: cells are drawn without their pictures. */
  pictureOf?: (burn: number) => string;
};

/** Steps of the arrow keys on the drawing, y downwards. */
const BY_KEY: Partial<Record<string, { x: number; y: number }>> = {
  ArrowRight: { x: 1, y: 0 },
  ArrowLeft: { x: -1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** Cells on a response map. Pointer, tap or arrow keys select a cell. */
export function ResponseCells({ cells, placeOf, size, at, onPoint, pictureOf }: Props) {
  const group = useRef<SVGGElement>(null);
  const places = cells.map(placeOf);
  const onKey = (e: KeyboardEvent, i: number) => {
    const by = BY_KEY[e.key];
    const next = by && nextIn(places, i, by);
    if (next === undefined) return;
    e.preventDefault();
    const mark = group.current?.querySelector(`[data-cell="${next}"]`);
    if (mark instanceof SVGElement) mark.focus();
  };
  return (
    <g ref={group}>
      {cells.map((cell, i) => (
        // biome-ignore lint/a11y/useSemanticElements: it lies in a drawing
        <g
          key={`${cell.label} ${cell.x} ${cell.y}`}
          data-cell={i}
          role="button"
          tabIndex={i === at ? 0 : -1}
          aria-label={`Cell ${cell.label}: ${cell.lines.join(", ")}`}
          onPointerEnter={() => onPoint(i)}
          onPointerDown={() => onPoint(i)}
          onFocus={() => onPoint(i)}
          onKeyDown={(e) => onKey(e, i)}
        >
          {pictureOf && (
            <CellScan cell={cell} cx={places[i]?.x ?? 0} cy={places[i]?.y ?? 0} size={size} pictureOf={pictureOf} />
          )}
          <CellMark cell={cell} cx={places[i]?.x ?? 0} cy={places[i]?.y ?? 0} size={size} />
        </g>
      ))}
    </g>
  );
}

/** The nearest place in a direction, within 45 degrees of it. */
function nextIn(
  places: readonly { x: number; y: number }[],
  from: number,
  by: { x: number; y: number },
): number | undefined {
  const here = places[from];
  if (!here) return undefined;
  const ahead = places.flatMap((p, index) => {
    const along = (p.x - here.x) * by.x + (p.y - here.y) * by.y;
    const beside = Math.abs((p.x - here.x) * by.y) + Math.abs((p.y - here.y) * by.x);
    return along > 0 && beside < along ? [{ index, far: along + 2 * beside }] : [];
  });
  return ahead.sort((a, b) => a.far - b.far)[0]?.index;
}

/** The cell as the scan shows it: its part of the picture of all cells. */
function CellScan({ cell: { picture }, cx, cy, size, pictureOf }: MarkProps & { pictureOf: (burn: number) => string }) {
  if (!picture) return null;
  const [column, row] = [picture.index % SHEET_COLUMNS, Math.floor(picture.index / SHEET_COLUMNS)];
  const side = SHEET_CELL_PX;
  return (
    <svg
      x={cx - size / 2}
      y={cy - size / 2}
      width={size}
      height={size}
      viewBox={`${column * side} ${row * side} ${side} ${side}`}
      aria-hidden="true"
    >
      <image
        href={pictureOf(picture.burn)}
        width={SHEET_COLUMNS * side}
        height={Math.ceil(picture.of / SHEET_COLUMNS) * side}
      />
    </svg>
  );
}

type MarkProps = { cell: ResponseCell; cx: number; cy: number; size: number };

function CellMark({ cell, cx, cy, size }: MarkProps) {
  const half = size / 2;
  const isChosen = cell.state === "chosen";
  const ink = isChosen
    ? "var(--color-ember)"
    : cell.state === "as good"
      ? "var(--color-verdigris)"
      : "var(--color-ink2)";
  return (
    <>
      <rect
        x={cx - half}
        y={cy - half}
        width={size}
        height={size}
        fill={cell.colour ?? "transparent"}
        stroke={ink}
        strokeWidth={isChosen ? 2.5 : cell.state === "as good" ? 2 : 0.7}
        strokeDasharray={cell.state === "left out" ? "2 2" : undefined}
      />
      {(cell.state === "no good" || cell.state === "odd") && (
        <path
          d={`M${cx - half} ${cy - half}l${size} ${size}M${cx + half} ${cy - half}l${-size} ${size}`}
          stroke={cell.state === "odd" ? "var(--color-ember)" : "var(--color-ink2)"}
          strokeWidth={1}
        />
      )}
      <title>{cell.lines.join(", ")}</title>
    </>
  );
}
