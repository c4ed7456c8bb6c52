"use client";
import { useRef, useState } from "react";
import type { CouponPoint } from "../../../core/geometry/frames";
import { betweenJaws, type Jaw, type JawsOnPiece } from "../../../core/measuring/jaws-on-piece";
import { fixed } from "../../../core/metrology/quantity-text";
import { decimalsOfStep } from "../../../core/settings/entry-text";
import { Button } from "../../primitives/button";

type Props = {
  /** Address of the look at the piece, to which place and width are added. */
  look: string;
  jaws: JawsOnPiece;
  /** Step of the gauge in hand, mm. */
  stepMm: number;
  /** What the closed jaws read, mm. */
  zeroMm: number;
  onRead: (text: string) => void;
};

const ZOOMS = [1, 0.5, 0.25] as const;
/** Arrow keys move a jaw by so many steps of the gauge, with Shift by ten times as many. */
const [STEPS, FAST] = [1, 10];

/** The practice piece as a person sees it, with two jaws to set on it: dragged, or moved by arrow keys. */
export function PieceJaws({ look, jaws, stepMm, zeroMm, onRead }: Props) {
  const [set, setJaws] = useState<readonly [Jaw, Jaw]>(jaws.start);
  const [zoom, setZoom] = useState<Zoom>({ step: 0, offMm: [] });
  const decimals = decimalsOfStep(stepMm);
  const shown = fixed(Math.round((Math.abs(betweenJaws(jaws, set)) + zeroMm) / stepMm) * stepMm, decimals);
  const isClosest = zoom.step === ZOOMS.length - 1;
  const move = (index: number, offMm: number) => {
    const most = jaws.acrossMm / 2;
    const moved = { ...set[index === 0 ? 0 : 1], offMm: Math.max(-most, Math.min(most, offMm)) };
    setJaws(index === 0 ? [moved, set[1]] : [set[0], moved]);
  };
  // What is looked at from nearer is where the jaws of the view are.
  const goCloser = () =>
    setZoom(
      isClosest
        ? { step: 0, offMm: [] }
        : { step: zoom.step + 1, offMm: jaws.views.map((_, view) => meanOff(set.filter((jaw) => jaw.view === view))) },
    );
  return (
    <section aria-label="Practice piece, enlarged" className="mt-3 grid gap-x-4 gap-y-2 sm:grid-cols-[1fr_auto]">
      <div className={jaws.views.length > 1 ? "grid grid-cols-2 gap-2" : "w-full sm:max-w-[280px]"}>
        {jaws.views.map((middle, view) => (
          <View
            key={`${middle.x} ${middle.y}`}
            look={look}
            middle={middle}
            aroundMm={zoom.offMm[view] ?? 0}
            acrossMm={jaws.acrossMm * (ZOOMS[zoom.step] ?? 1)}
            along={jaws.along}
            jaws={set.flatMap((jaw, index) => (jaw.view === view ? [{ ...jaw, index }] : []))}
            stepMm={stepMm}
            onMove={move}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-2 sm:flex-col sm:items-start">
        <p className="num text-[20px]" aria-live="polite">
          {shown} mm
        </p>
        <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={goCloser}>
          {isClosest ? "Whole view" : "Closer"}
        </Button>
        <Button weight="small" className="!text-[16px] max-lg:!min-h-11" onClick={() => onRead(`${shown} mm`)}>
          Read the jaws
        </Button>
      </div>
    </section>
  );
}

/** How near it is looked at, and around which place of each view. */
type Zoom = { step: number; offMm: readonly number[] };

function meanOff(jaws: readonly Jaw[]): number {
  return jaws.reduce((sum, jaw) => sum + jaw.offMm, 0) / Math.max(1, jaws.length);
}

type ViewProps = {
  look: string;
  middle: CouponPoint;
  /** So far along from its middle lies what is looked at. */
  aroundMm: number;
  acrossMm: number;
  along: JawsOnPiece["along"];
  jaws: readonly (Jaw & { index: number })[];
  stepMm: number;
  onMove: (index: number, offMm: number) => void;
};

/** One place of the piece; what is outside of it has its jaw at the edge. */
function View({ look, middle, aroundMm, acrossMm, along, jaws, stepMm, onMove }: ViewProps) {
  const frame = useRef<SVGSVGElement>(null);
  const half = acrossMm / 2;
  // Seen from above, Y of the coupon goes up.
  const [ux, uy] = [along.x, -along.y];
  const offAt = (clientX: number, clientY: number): number => {
    const box = frame.current?.getBoundingClientRect();
    if (!box) return 0;
    const [x, y] = [
      ((clientX - box.left) / box.width - 0.5) * acrossMm,
      ((clientY - box.top) / box.height - 0.5) * acrossMm,
    ];
    return aroundMm + x * ux + y * uy;
  };
  return (
    <svg
      ref={frame}
      viewBox={`${-half} ${-half} ${acrossMm} ${acrossMm}`}
      className="aspect-square w-full touch-none rounded-md border border-line select-none"
      aria-hidden={jaws.length === 0}
    >
      <title>Practice piece from above</title>
      <image
        href={`${look}?x=${(middle.x + aroundMm * along.x).toFixed(3)}&y=${(middle.y + aroundMm * along.y).toFixed(3)}&across=${acrossMm}`}
        x={-half}
        y={-half}
        width={acrossMm}
        height={acrossMm}
        style={{ filter: "sepia(0.4)" }}
      />
      {jaws.map(({ index, offMm }) => {
        const seen = Math.max(-half, Math.min(half, offMm - aroundMm));
        const [x, y] = [seen * ux, seen * uy];
        return (
          <g
            key={index}
            role="slider"
            tabIndex={0}
            aria-label={`Jaw ${index + 1}`}
            aria-valuenow={Number(offMm.toFixed(4))}
            aria-valuetext={`${offMm.toFixed(3)} mm from the middle`}
            className="cursor-grab outline-none focus-visible:[&>line]:stroke-steel"
            onKeyDown={(e) => {
              const way = WAYS[e.key];
              if (way === undefined) return;
              e.preventDefault();
              e.stopPropagation();
              onMove(index, offMm + way * stepMm * (e.shiftKey ? FAST : STEPS));
            }}
            onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
            onPointerMove={(e) => {
              if (e.currentTarget.hasPointerCapture(e.pointerId)) onMove(index, offAt(e.clientX, e.clientY));
            }}
          >
            <line
              x1={x - uy * acrossMm}
              y1={y + ux * acrossMm}
              x2={x + uy * acrossMm}
              y2={y - ux * acrossMm}
              stroke="transparent"
              strokeWidth={acrossMm / 9}
            />
            <line
              x1={x - uy * acrossMm}
              y1={y + ux * acrossMm}
              x2={x + uy * acrossMm}
              y2={y - ux * acrossMm}
              stroke="var(--color-ember)"
              strokeWidth={acrossMm / 240}
              pointerEvents="none"
            />
          </g>
        );
      })}
    </svg>
  );
}

const WAYS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };
