"use client";
import clsx from "clsx";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { Affine } from "../../core/geometry/affine";
import type { PicturePoint } from "../../core/picture/place-coupon";
import type { SiteMark, SiteRead } from "../../core/picture/read-picture";
import type { MarkSet, Shift } from "./shifts";

/** On screen, pixels. */
const [DOT, HANDLE, LINE] = [3.2, 9, 1.6];
const NUDGE_PX = 0.25;
const LONG_NUDGE_PX = 2;

type Props = {
  read: SiteRead;
  label: string;
  pose: Affine;
  zoom: number;
  selected: boolean;
  shift: Shift;
  onShift: (set: MarkSet, mm: number) => void;
};

const TONES: Record<MarkSet, string> = { first: "var(--color-steel)", second: "var(--color-ember)" };

/** What was found at a site, drawn over the picture; at the site in hand each set of it can be moved along what is measured. */
export function FoundMarks({ read, label, pose, zoom, selected, shift, onShift }: Props) {
  const along = axisOf(read.marks, pose);
  const sets = (["first", "second"] as const).map((set) => {
    const marks = read.marks.filter((m) => m.set === set);
    return { set, marks, by: { x: along.x * shift[set], y: along.y * shift[set] } };
  });
  return (
    <g opacity={selected ? 1 : 0.6} aria-hidden={!selected}>
      {sets.map(({ set, marks, by }) => (
        <g key={set} transform={`translate(${by.x} ${by.y})`} stroke={TONES[set]} fill="none">
          {marks.map((mark, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: marks of a set have no other identity
            <MarkShape key={i} mark={mark} zoom={zoom} />
          ))}
          {selected && marks.length > 0 && (
            <Handle
              at={middleOf(marks)}
              label={`${label}: ${marks[0]?.kind === "line" ? "edge" : "ends"}, ${set} set`}
              along={along}
              value={shift[set]}
              zoom={zoom}
              tone={TONES[set]}
              onMove={(mm) => onShift(set, mm)}
            />
          )}
        </g>
      ))}
    </g>
  );
}

/** Pixels of the picture to a mm along what is measured: ends of rows along them, widths across. */
function axisOf(marks: readonly SiteMark[], { a, b, c, d }: Affine): PicturePoint {
  return marks[0]?.kind === "line" ? { x: c, y: d } : { x: a, y: b };
}

function middleOf(marks: readonly SiteMark[]): PicturePoint {
  const points = marks.map((m) =>
    m.kind === "point" ? m.at : { x: (m.from.x + m.to.x) / 2, y: (m.from.y + m.to.y) / 2 },
  );
  const sum = points.reduce((s, p) => ({ x: s.x + p.x, y: s.y + p.y }), { x: 0, y: 0 });
  return { x: sum.x / points.length, y: sum.y / points.length };
}

/** Circles for one set, squares for the other; what was left out is crossed. */
function MarkShape({ mark, zoom }: { mark: SiteMark; zoom: number }) {
  const stroke = { strokeWidth: LINE, vectorEffect: "non-scaling-stroke" } as const;
  if (mark.kind === "line")
    return (
      <line
        x1={mark.from.x}
        y1={mark.from.y}
        x2={mark.to.x}
        y2={mark.to.y}
        {...stroke}
        strokeDasharray={mark.set === "first" ? undefined : "4 3"}
      />
    );
  const r = DOT / zoom;
  const { x, y } = mark.at;
  if (!mark.kept)
    return <path d={`M${x - r} ${y - r}L${x + r} ${y + r}M${x - r} ${y + r}L${x + r} ${y - r}`} {...stroke} />;
  if (mark.set === "first") return <circle cx={x} cy={y} r={r} {...stroke} />;
  return <rect x={x - r} y={y - r} width={2 * r} height={2 * r} {...stroke} />;
}

function Handle({
  at,
  label,
  along,
  value,
  zoom,
  tone,
  onMove,
}: {
  at: PicturePoint;
  label: string;
  along: PicturePoint;
  value: number;
  zoom: number;
  tone: string;
  onMove: (mm: number) => void;
}) {
  const from = useRef<{ x: number; y: number; value: number } | null>(null);
  const perMm = Math.hypot(along.x, along.y);
  const unit = { x: along.x / perMm, y: along.y / perMm };
  const drag = (e: PointerEvent<SVGGElement>) => {
    if (!from.current) return;
    const screen = (e.clientX - from.current.x) * unit.x + (e.clientY - from.current.y) * unit.y;
    onMove(from.current.value + screen / zoom / perMm);
  };
  const nudge = (e: KeyboardEvent) => {
    const isForth = e.key === "ArrowRight" || e.key === "ArrowUp";
    if (!isForth && e.key !== "ArrowLeft" && e.key !== "ArrowDown") return;
    e.preventDefault();
    const pixels = (e.shiftKey ? LONG_NUDGE_PX : NUDGE_PX) * (isForth ? 1 : -1);
    onMove(value + pixels / perMm);
  };
  const half = HANDLE / zoom;
  return (
    <g
      data-handle
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Math.round(value * 1e6) / 1e6}
      aria-valuetext={`${(1000 * value).toFixed(1)} µm from where it was found`}
      className={clsx("cursor-move outline-offset-4")}
      onKeyDown={nudge}
      onPointerDown={(e) => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { x: e.clientX, y: e.clientY, value };
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        from.current = null;
      }}
    >
      <circle cx={at.x} cy={at.y} r={1.6 * half} fill={tone} fillOpacity={0.18} stroke="none" />
      <path
        d={`M${at.x - unit.x * 2.4 * half} ${at.y - unit.y * 2.4 * half}L${at.x + unit.x * 2.4 * half} ${at.y + unit.y * 2.4 * half}`}
        stroke={tone}
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
      <circle
        cx={at.x}
        cy={at.y}
        r={half * 0.7}
        fill="var(--color-sheet)"
        stroke={tone}
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
}
