import { useId } from "react";
import type { Detail } from "../../core/drawing/scene";
import { PrimitiveView, type View } from "./primitive-view";

/** A round close-up inside a larger drawing. */
export function DetailView({ detail, cx, cy, r }: { detail: Detail; cx: number; cy: number; r: number }) {
  const clip = useId();
  return (
    <g>
      <clipPath id={clip}>
        <circle cx={cx} cy={cy} r={r} />
      </clipPath>
      <circle cx={cx} cy={cy} r={r} fill="var(--color-sheet)" />
      <g clipPath={`url(#${clip})`}>
        <Primitives detail={detail} view={viewOf(detail, cx, cy, r)} />
      </g>
      <circle cx={cx} cy={cy} r={r} fill="none" stroke="var(--color-ember)" strokeWidth={1.75} />
      <text x={cx} y={cy + r + 26} textAnchor="middle" fontSize={16} fontWeight={600} fill="var(--color-ink)">
        {detail.title}
      </text>
      {detail.note.split("; ").map((line, i) => (
        <text key={line} x={cx} y={cy + r + 48 + 20 * i} textAnchor="middle" fontSize={16} fill="var(--color-ink2)">
          {line}
        </text>
      ))}
    </g>
  );
}

const LONE = { width: 780, height: 600, r: 230 };

/** The close-up where nothing is burned that it could stand beside. */
export function LoneDetail({ detail }: { detail: Detail }) {
  return (
    <svg
      viewBox={`0 0 ${LONE.width} ${LONE.height}`}
      className="h-full w-full"
      role="img"
      aria-label={`${detail.title}, ${detail.note}`}
    >
      <DetailView detail={detail} cx={LONE.width / 2} cy={LONE.r + 30} r={LONE.r} />
    </svg>
  );
}

/** Room below the centre, px of the drawing: the dimension hangs there. */
const BELOW_PX = 118;
const MARGIN_PX = 8;

/** The close-up alone, as wide as its place: for the phone and for before and after. */
export function DetailCard({ detail, height, title }: { detail: Detail; height: number; title?: string }) {
  const width = 358;
  return (
    <figure>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="block w-full"
        role="img"
        aria-label={`${detail.title}, ${detail.note}`}
      >
        <Primitives detail={detail} view={stripOf(detail, width, height)} />
      </svg>
      <figcaption className="px-3 pb-2 text-center text-[15px] text-ink2">
        {title && <b className="font-semibold text-ink">{title}</b>}
        {title && " · "}
        {detail.note.split("; ").at(-1)}
      </figcaption>
    </figure>
  );
}

function Primitives({ detail, view }: { detail: Detail; view: View }) {
  return detail.primitives.map((p, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: primitives have no other identity
    <PrimitiveView key={i} primitive={p} view={view} />
  ));
}

function stripOf(detail: Detail, width: number, height: number): View {
  const { strip, radius } = detail;
  if (!strip) return viewOf(detail, width / 2, height - BELOW_PX, width / 2);
  const scale = Math.min(width / 2 / radius, (height - 2 * MARGIN_PX) / (strip.high - strip.low));
  return viewOf(detail, width / 2, height / 2 + ((strip.low + strip.high) / 2) * scale, scale * radius);
}

function viewOf(detail: Detail, cx: number, cy: number, r: number): View {
  const scale = r / detail.radius;
  return { scale, x: (mm) => cx + mm * scale, y: (mm) => cy - mm * scale };
}
