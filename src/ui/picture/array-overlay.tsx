"use client";
import type { ArrayRead } from "../../core/picture/array/read-array";

type Props = {
  read: Extract<ArrayRead, { ok: true }>;
  names: readonly string[];
  leftOut: readonly number[];
  selected: number | null;
  onSelect: (cell: number) => void;
  zoom: number;
};

/** The outline of every cell over the picture, and the dots by which the array was found. */
export function ArrayOverlay({ read, names, leftOut, selected, onSelect, zoom }: Props) {
  const pen = { strokeWidth: 1.6, vectorEffect: "non-scaling-stroke", fill: "none" } as const;
  return (
    <g>
      {read.outlines.map((corners, i) => (
        <path
          key={names[i]}
          d={`M${corners.map((p) => `${p.x} ${p.y}`).join("L")}Z`}
          {...pen}
          pointerEvents="all"
          className="cursor-pointer"
          stroke={leftOut.includes(i) ? "var(--color-ember)" : "var(--color-steel)"}
          strokeDasharray={leftOut.includes(i) ? "4 3" : undefined}
          strokeWidth={i === selected ? 3 : 1.6}
          onPointerUp={() => onSelect(i)}
        />
      ))}
      {read.dots.map((p) => (
        <circle key={`${p.x} ${p.y}`} cx={p.x} cy={p.y} r={10 / zoom} stroke="var(--color-verdigris)" {...pen} />
      ))}
    </g>
  );
}
