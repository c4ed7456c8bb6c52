"use client";
import type { PicturePoint } from "../../core/picture/place-coupon";
import { FoundMarks } from "./found-marks";
import { UNMOVED } from "./shifts";
import type { Reading } from "./use-reading";

type Props = { reading: Reading; points: readonly PicturePoint[]; selected: string; zoom: number };

/** What was found, said and pressed, drawn over the picture in its pixels. */
export function PictureOverlay({ reading, points, selected, zoom }: Props) {
  const { state, rows, parts, sites, shifts } = reading;
  return (
    <>
      {state.placement && (
        <polygon
          points={state.placement.outline.map((p) => `${p.x},${p.y}`).join(" ")}
          fill="none"
          stroke="var(--color-verdigris)"
          strokeWidth={1.5}
          strokeDasharray="9 5"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {parts.map(({ site, box }) => (
        <g key={site} stroke="var(--color-verdigris)" fill="none" strokeWidth={1.5}>
          <rect
            x={box.x0}
            y={box.y0}
            width={box.x1 - box.x0}
            height={box.y1 - box.y0}
            strokeDasharray="9 5"
            vectorEffect="non-scaling-stroke"
          />
          <text
            x={box.x0 + 6 / zoom}
            y={box.y0 + 18 / zoom}
            fontSize={14 / zoom}
            fill="var(--color-verdigris)"
            stroke="none"
          >
            {sites.find((s) => s.id === site)?.label}
          </text>
        </g>
      ))}
      {rows.map(
        ({ site, read, pose }) =>
          pose && (
            <FoundMarks
              key={site.id}
              read={read}
              label={site.label}
              pose={pose}
              zoom={zoom}
              selected={site.id === selected}
              shift={shifts[site.id] ?? UNMOVED}
              onShift={(set, mm) => reading.moveSet(site.id, set, mm)}
            />
          ),
      )}
      {points.map((p, i) => (
        <g key={`${p.x} ${p.y}`} stroke="var(--color-ember)" strokeWidth={2}>
          <path
            d={`M${p.x - 12 / zoom} ${p.y}H${p.x + 12 / zoom}M${p.x} ${p.y - 12 / zoom}V${p.y + 12 / zoom}`}
            vectorEffect="non-scaling-stroke"
          />
          <text x={p.x + 8 / zoom} y={p.y - 8 / zoom} fontSize={16 / zoom} fill="var(--color-ember)" stroke="none">
            {i + 1}
          </text>
        </g>
      ))}
    </>
  );
}
