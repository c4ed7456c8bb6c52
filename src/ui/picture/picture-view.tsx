"use client";
import { Maximize, Minus, Plus } from "lucide-react";
import { type PointerEvent, type ReactNode, useEffect, useRef } from "react";
import type { ShownPart } from "../../workers/picture-messages";
import { Button } from "../primitives/button";
import { type Transform, usePanZoom } from "./use-pan-zoom";
import type { usePictureReader } from "./use-picture-reader";

type Props = {
  reader: ReturnType<typeof usePictureReader>;
  width: number;
  height: number;
  label: string;
  /** Drawn over the picture in its pixels; told how many pixels of the screen one of its pixels takes. */
  children: (zoom: number) => ReactNode;
  /** To look at a place, so many pixels across. */
  look: { at: { x: number; y: number }; across: number } | null;
  /** A place of the picture was pressed. */
  onPress?: (at: { x: number; y: number }) => void;
};

/** Pressed and let go within so many pixels is no drag. */
const STILL_PX = 4;

/** A picture that is panned and zoomed: the worker draws the part that is seen, what was found is drawn over it. */
export function PictureView({ reader, width, height, label, children, look, onPress }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { transform, size, showWhole, zoomBy, lookAt } = usePanZoom(svg, { width, height });
  const drawn = useRef<ShownPart | null>(null);
  const latest = useRef(transform);
  latest.current = transform;
  const { show, onShown, state } = reader;

  useEffect(() => {
    onShown.current = (part, pixels) => {
      const target = canvas.current;
      if (!target) return;
      target.width = part.width;
      target.height = part.height;
      target.getContext("2d")?.putImageData(pixels, 0, 0);
      drawn.current = part;
      place(target, part, latest.current);
    };
    return () => {
      onShown.current = null;
    };
  }, [onShown]);

  useEffect(() => {
    if (canvas.current && drawn.current) place(canvas.current, drawn.current, transform);
    if (!state.loaded || size.width === 0) return;
    const frame = requestAnimationFrame(() => show(partSeen(transform, size)));
    return () => cancelAnimationFrame(frame);
  }, [transform, size, state.loaded, show]);

  useEffect(() => {
    if (look) lookAt(look.at, look.across);
  }, [look, lookAt]);

  const pressed = useRef<{ x: number; y: number } | null>(null);
  const at = (e: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    return { x: e.clientX - (box?.left ?? 0), y: e.clientY - (box?.top ?? 0) };
  };
  return (
    <div className="relative h-full min-h-[320px] overflow-hidden rounded-md bg-paper">
      <canvas ref={canvas} className="absolute top-0 left-0 origin-top-left" />
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing is no set of fields */}
      <svg
        ref={svg}
        className="absolute inset-0 size-full cursor-grab touch-none active:cursor-grabbing"
        role="group"
        aria-label={label}
        onPointerDown={(e) => {
          pressed.current = at(e);
        }}
        onPointerUp={(e) => {
          const from = pressed.current;
          const to = at(e);
          if (!from || Math.hypot(to.x - from.x, to.y - from.y) > STILL_PX) return;
          onPress?.({ x: (to.x - transform.x) / transform.k, y: (to.y - transform.y) / transform.k });
        }}
      >
        <g transform={`translate(${transform.x} ${transform.y}) scale(${transform.k})`}>{children(transform.k)}</g>
      </svg>
      <div className="absolute right-3 bottom-3 flex gap-1.5">
        <Button weight="small" aria-label="Closer" onClick={() => zoomBy(1)}>
          <Plus size={16} aria-hidden="true" />
        </Button>
        <Button weight="small" aria-label="Further away" onClick={() => zoomBy(-1)}>
          <Minus size={16} aria-hidden="true" />
        </Button>
        <Button weight="small" aria-label="The whole picture" onClick={showWhole}>
          <Maximize size={16} aria-hidden="true" />
        </Button>
      </div>
    </div>
  );
}

function partSeen({ x, y, k }: Transform, { width, height }: { width: number; height: number }): ShownPart {
  return { x: -x / k, y: -y / k, zoom: k, width: Math.ceil(width), height: Math.ceil(height) };
}

/** What was drawn for another view is moved and stretched to this one until it is drawn anew. */
function place(canvas: HTMLCanvasElement, part: ShownPart, { x, y, k }: Transform): void {
  const stretch = k / part.zoom;
  canvas.style.transform = `translate(${x + part.x * k}px, ${y + part.y * k}px) scale(${stretch})`;
}
