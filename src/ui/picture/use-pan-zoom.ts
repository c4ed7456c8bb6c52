"use client";
/** Panning and zooming by wheel, drag and pinch. */
import { select } from "d3-selection";
import { type ZoomTransform, zoom, zoomIdentity } from "d3-zoom";
import { type RefObject, useCallback, useEffect, useRef, useState } from "react";

const MOST_ZOOM = 24;
const BY_KEY = 1.5;

export type Transform = { x: number; y: number; k: number };

/**
 * @param element takes the gestures
 * @param content size of what is looked at, in its own units
 */
export function usePanZoom(element: RefObject<SVGSVGElement | null>, content: { width: number; height: number }) {
  const [transform, setTransform] = useState<Transform>({ x: 0, y: 0, k: 1 });
  const [size, setSize] = useState({ width: 0, height: 0 });
  const behaviour = useRef<ReturnType<typeof zoom<SVGSVGElement, unknown>> | null>(null);
  const { width, height } = content;

  const showWhole = useCallback(() => {
    const svg = element.current;
    if (!svg || !behaviour.current) return;
    const { clientWidth, clientHeight } = svg;
    const k = Math.min(clientWidth / width, clientHeight / height) * 0.98;
    const whole = zoomIdentity.translate((clientWidth - k * width) / 2, (clientHeight - k * height) / 2).scale(k);
    behaviour.current.scaleExtent([k / 2, MOST_ZOOM]);
    behaviour.current.transform(select(svg), whole);
  }, [element, width, height]);

  useEffect(() => {
    const svg = element.current;
    if (!svg) return;
    const made = zoom<SVGSVGElement, unknown>()
      // What is dragged itself does not drag the picture.
      .filter((event: Event) => !(event.target as Element).closest("[data-handle]") && !(event as MouseEvent).button)
      .on("zoom", ({ transform: t }: { transform: ZoomTransform }) => setTransform({ x: t.x, y: t.y, k: t.k }));
    behaviour.current = made;
    select(svg).call(made);
    const watch = new ResizeObserver(() => setSize({ width: svg.clientWidth, height: svg.clientHeight }));
    watch.observe(svg);
    return () => {
      watch.disconnect();
      select(svg).on(".zoom", null);
    };
  }, [element]);

  // The whole picture at first.
  const isMeasured = size.width > 0;
  useEffect(() => {
    if (isMeasured) showWhole();
  }, [isMeasured, showWhole]);

  const zoomBy = useCallback(
    (way: 1 | -1) => {
      if (element.current) behaviour.current?.scaleBy(select(element.current), way > 0 ? BY_KEY : 1 / BY_KEY);
    },
    [element],
  );
  /** Looks at a place so closely that `across` of the content fill the view. */
  const lookAt = useCallback(
    (at: { x: number; y: number }, across: number) => {
      const svg = element.current;
      if (!svg || !behaviour.current) return;
      const k = Math.min(MOST_ZOOM, svg.clientWidth / across);
      const near = zoomIdentity.translate(svg.clientWidth / 2 - k * at.x, svg.clientHeight / 2 - k * at.y).scale(k);
      behaviour.current.transform(select(svg), near);
    },
    [element],
  );
  return { transform, size, showWhole, zoomBy, lookAt };
}
