"use client";
import clsx from "clsx";
import { useRef, useState } from "react";
import type { CouponPoint } from "../../../core/geometry/frames";
import { betweenJaws, type Jaw, type JawsOnPiece } from "../../../core/measuring/jaws-on-piece";
import type { Gauge } from "../../../core/metrology/gauge";
import { afterNumber, fixed } from "../../../core/metrology/quantity-text";
import { fromInternal } from "../../../core/metrology/units";
import { decimalsOfStep } from "../../../core/settings/entry-text";
import { Button } from "../../primitives/button";

type Props = {
  /** Address of the picture; point and width are added. */
  look: string;
  jaws: JawsOnPiece;
  gauge: Pick<Gauge, "resolutionMm" | "unit">;
  /** Reading with closed jaws, mm. */
  zeroMm: number;
  onRead: (text: string) => void;
};

/** How near the picture is, and around which position of each view. */
type Zoom = { step: number; aroundMm: readonly number[] };

const WHOLE: Zoom = { step: 0, aroundMm: [] };
/** Shares of the view, step by step nearer. */
const SHARES = [1, 0.5, 0.25] as const;

/** The practice coupon from above. Drag the two jaws, or move them with the arrow keys. */
export function PieceJaws({ look, jaws, gauge, zeroMm, onRead }: Props) {
  const [set, setJaws] = useState<readonly Jaw[]>(jaws.start);
  const [zoom, setZoom] = useState(WHOLE);
  const [first, second] = set;
  if (!first || !second) return null;
  const isPair = jaws.views.length > 1;
  const isNearest = zoom.step === SHARES.length - 1;
  const shown = gaugeText(Math.abs(betweenJaws(jaws, [first, second])) + zeroMm, gauge);
  const move = (index: number, offMm: number) => {
    const most = jaws.acrossMm / 2;
    setJaws(set.map((jaw, i) => (i === index ? { ...jaw, offMm: Math.max(-most, Math.min(most, offMm)) } : jaw)));
  };
  const zoomIn = () =>
    setZoom({
      step: zoom.step + 1,
      aroundMm: jaws.views.map((_, view) => meanOff(set.filter((jaw) => jaw.view === view))),
    });
  return (
    <section
      aria-label="Practice coupon, enlarged"
      className={clsx("mt-3 grid gap-x-4 gap-y-2", !isPair && "sm:grid-cols-[280px_1fr]")}
    >
      <div className={clsx(isPair && "grid grid-cols-2 gap-2")}>
        {jaws.views.map((middle, view) => (
          <View
            key={`${middle.x} ${middle.y}`}
            look={look}
            middle={middle}
            aroundMm={zoom.aroundMm[view] ?? 0}
            acrossMm={jaws.acrossMm * (SHARES[zoom.step] ?? 1)}
            limitMm={jaws.acrossMm / 2}
            along={jaws.along}
            jaws={set.flatMap((jaw, index) => (jaw.view === view ? [{ ...jaw, index }] : []))}
            stepMm={gauge.resolutionMm}
            onMove={move}
          />
        ))}
      </div>
      <div className={clsx("flex flex-wrap items-center gap-2", !isPair && "sm:flex-col sm:items-start")}>
        <p className="num text-[20px]" aria-live="polite">
          {shown}
        </p>
        <Button
          weight="small"
          className="!text-[16px] max-lg:!min-h-11"
          onClick={() => (isNearest ? setZoom(WHOLE) : zoomIn())}
        >
          {isNearest ? "Zoom out" : "Zoom in"}
        </Button>
        <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={() => onRead(shown)}>
          Use this reading
        </Button>
      </div>
    </section>
  );
}

function meanOff(jaws: readonly Jaw[]): number {
  return jaws.reduce((sum, jaw) => sum + jaw.offMm, 0) / Math.max(1, jaws.length);
}

/** The number as the gauge shows it: rounded to its resolution, in its unit. */
function gaugeText(mm: number, { resolutionMm, unit }: Props["gauge"]): string {
  const step = fromInternal(resolutionMm, unit);
  const rounded = Math.round(fromInternal(mm, unit) / step) * step;
  return `${fixed(rounded, decimalsOfStep(step))}${afterNumber(unit)}`;
}

type ViewProps = {
  look: string;
  middle: CouponPoint;
  /** Position in the middle of the picture, from the middle of the view. */
  aroundMm: number;
  acrossMm: number;
  /** Jaws move at most so far from the middle of the view. */
  limitMm: number;
  along: JawsOnPiece["along"];
  jaws: readonly (Jaw & { index: number })[];
  stepMm: number;
  onMove: (index: number, offMm: number) => void;
};

const WAYS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };
/** An arrow key moves a jaw by one step of the gauge, with Shift by so many. */
const FAST = 10;

/** One view of the coupon with its jaws. A jaw outside the picture is drawn at its edge. */
function View({ look, middle, aroundMm, acrossMm, limitMm, along, jaws, stepMm, onMove }: ViewProps) {
  const frame = useRef<SVGSVGElement>(null);
  const half = acrossMm / 2;
  // Y points up on the coupon and down on the screen.
  const [ux, uy] = [along.x, -along.y];
  const address = new URLSearchParams({
    x: (middle.x + aroundMm * along.x).toFixed(3),
    y: (middle.y + aroundMm * along.y).toFixed(3),
    across: String(acrossMm),
  });
  const offAt = (clientX: number, clientY: number): number => {
    const box = frame.current?.getBoundingClientRect();
    if (!box) return 0;
    const x = ((clientX - box.left) / box.width - 0.5) * acrossMm;
    const y = ((clientY - box.top) / box.height - 0.5) * acrossMm;
    return aroundMm + x * ux + y * uy;
  };
  return (
    <svg
      ref={frame}
      viewBox={`${-half} ${-half} ${acrossMm} ${acrossMm}`}
      className="aspect-square w-full touch-none rounded-md border border-line select-none"
    >
      <title>Practice coupon from above</title>
      <image
        href={`${look}?${address}`}
        x={-half}
        y={-half}
        width={acrossMm}
        height={acrossMm}
        style={{ filter: "sepia(0.4)" }}
      />
      {jaws.map(({ index, offMm }) => {
        const drawn = Math.max(-half, Math.min(half, offMm - aroundMm));
        const [x, y] = [drawn * ux, drawn * uy];
        const line = { x1: x - uy * acrossMm, y1: y + ux * acrossMm, x2: x + uy * acrossMm, y2: y - ux * acrossMm };
        return (
          <g
            key={index}
            role="slider"
            tabIndex={0}
            aria-label={`Jaw ${index + 1}`}
            aria-valuemin={-limitMm}
            aria-valuemax={limitMm}
            aria-valuenow={Number(offMm.toFixed(4))}
            aria-valuetext={`${offMm.toFixed(3)} mm from the middle`}
            className="cursor-grab outline-none focus-visible:[&>line]:stroke-steel"
            onKeyDown={(e) => {
              const way = WAYS[e.key];
              if (way === undefined) return;
              e.preventDefault();
              e.stopPropagation();
              onMove(index, offMm + way * stepMm * (e.shiftKey ? FAST : 1));
            }}
            onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
            onPointerMove={(e) => {
              if (e.currentTarget.hasPointerCapture(e.pointerId)) onMove(index, offAt(e.clientX, e.clientY));
            }}
          >
            <line {...line} stroke="transparent" strokeWidth={acrossMm / 9} />
            <line
              {...line}
              stroke="var(--color-ember)"
              strokeWidth={1.5}
              vectorEffect="non-scaling-stroke"
              pointerEvents="none"
            />
          </g>
        );
      })}
    </svg>
  );
}
