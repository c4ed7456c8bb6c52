"use client";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { GridReading, ShownDot } from "./use-grid-reading";

type Props = { reading: GridReading; selected: number | null; onSelect: (index: number) => void; zoom: number };

const NUDGE_PX = 0.25;
const LONG_NUDGE_PX = 2;
/** Least size on screen, pixels. */
const LEAST = 3;

/** Every dot that was found, over the picture in its pixels: moved, left out, and what is no dot. */
export function GridOverlay({ reading, selected, onSelect, zoom }: Props) {
  const { dots, state, dirt } = reading;
  const inHand = dots.find((d) => d.index === selected);
  const pen = { strokeWidth: 1.6, vectorEffect: "non-scaling-stroke", fill: "none" } as const;
  return (
    <g>
      <g stroke="var(--color-steel)">
        {dots.map((dot) => {
          const r = Math.max(dot.radiusPx, LEAST / zoom);
          return dot.isLeftOut ? (
            <path key={dot.index} d={crossAt(dot, r)} stroke="var(--color-ember)" {...pen} />
          ) : (
            <circle
              key={dot.index}
              cx={dot.x}
              cy={dot.y}
              r={r}
              {...pen}
              pointerEvents="all"
              className="cursor-pointer"
              stroke={dot.isMoved ? "var(--color-ember)" : undefined}
              onPointerUp={() => onSelect(dot.index)}
            />
          );
        })}
      </g>
      <g stroke="var(--color-ember)" strokeDasharray="3 3">
        {[...(state.grid?.strays ?? []), ...dirt].map((p) => (
          <rect
            key={`${p.x} ${p.y}`}
            x={p.x - 8 / zoom}
            y={p.y - 8 / zoom}
            width={16 / zoom}
            height={16 / zoom}
            {...pen}
          />
        ))}
      </g>
      {inHand && <Handle key={inHand.index} dot={inHand} reading={reading} zoom={zoom} />}
    </g>
  );
}

function crossAt({ x, y }: ShownDot, r: number): string {
  return `M${x - r} ${y - r}L${x + r} ${y + r}M${x - r} ${y + r}L${x + r} ${y - r}`;
}

/** The selected dot. The user drags it, or moves it with the arrow keys. */
function Handle({ dot, reading, zoom }: { dot: ShownDot; reading: GridReading; zoom: number }) {
  const from = useRef<{ x: number; y: number; dot: { x: number; y: number } } | null>(null);
  const drag = (e: PointerEvent<SVGGElement>) => {
    if (!from.current) return;
    reading.move(dot.index, {
      x: from.current.dot.x + (e.clientX - from.current.x) / zoom,
      y: from.current.dot.y + (e.clientY - from.current.y) / zoom,
    });
  };
  const nudge = (e: KeyboardEvent) => {
    const step = e.shiftKey ? LONG_NUDGE_PX : NUDGE_PX;
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    const [dx, dy] = by ?? [];
    if (dx === undefined || dy === undefined) return;
    e.preventDefault();
    reading.move(dot.index, { x: dot.x + step * dx, y: dot.y + step * dy });
  };
  const r = Math.max(1.6 * dot.radiusPx, 12 / zoom);
  return (
    // biome-ignore lint/a11y/useSemanticElements: it lies in a drawing
    <g
      data-handle
      role="button"
      tabIndex={0}
      aria-label={`${dotName(dot.index, reading.across)}: move with the arrow keys`}
      className="cursor-move outline-offset-4"
      onKeyDown={nudge}
      onPointerDown={(e) => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { x: e.clientX, y: e.clientY, dot: { x: dot.x, y: dot.y } };
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        from.current = null;
      }}
    >
      <circle cx={dot.x} cy={dot.y} r={r} fill="var(--color-ember)" fillOpacity={0.14} stroke="none" />
      <path
        d={`M${dot.x - r} ${dot.y}H${dot.x + r}M${dot.x} ${dot.y - r}V${dot.y + r}`}
        stroke="var(--color-ember)"
        strokeWidth={1.4}
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
}

/** `Column 3, row −2`, counted from the middle, to the right and to the back. */
export function dotName(index: number, across: number): string {
  const half = (across - 1) / 2;
  const shown = (v: number) => (v < 0 ? `−${-v}` : String(v));
  return `Column ${shown((index % across) - half)}, row ${shown(Math.floor(index / across) - half)}`;
}
