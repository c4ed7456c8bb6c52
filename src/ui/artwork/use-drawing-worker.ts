"use client";
/** A worker that works on drawings: the page says what it wants, and shows what came of the last order. */
import { useEffect, useRef, useState } from "react";
import type { CannotWork, FromDrawingWorker, ToDrawingWorker } from "../../workers/drawing-messages";

export type DrawingWork<Result> = { busy: boolean; result: Result | CannotWork | null; ms: number };

const NOTHING_TO_DO = { busy: false, result: null, ms: 0 };

/**
 * @param start a new worker, the same function at every call
 * @param order `null` = nothing to do yet
 */
export function useDrawingWorker<Order, Result>(start: () => Worker, order: Order | null): DrawingWork<Result> {
  const [state, setState] = useState<DrawingWork<Result>>(NOTHING_TO_DO);
  const worker = useRef<Worker | null>(null);
  const newest = useRef(0);
  const wanted = JSON.stringify(order);

  useEffect(() => {
    const started = start();
    worker.current = started;
    started.onmessage = ({ data }: MessageEvent<FromDrawingWorker<Result | CannotWork>>) => {
      if (data.id === newest.current) setState({ busy: false, result: data.result, ms: data.ms });
    };
    started.onerror = () =>
      setState({
        busy: false,
        ms: 0,
        result: { ok: false, asksUnit: false, message: "This browser cannot work on drawings in the background." },
      });
    return () => started.terminate();
  }, [start]);

  useEffect(() => {
    const asked = JSON.parse(wanted) as Order | null;
    const id = ++newest.current;
    if (!asked) {
      setState(NOTHING_TO_DO);
      return;
    }
    setState((s) => ({ ...s, busy: true }));
    // While a number is typed only the last one is worked on.
    const waits = setTimeout(
      () => worker.current?.postMessage({ id, order: asked } satisfies ToDrawingWorker<Order>),
      150,
    );
    return () => clearTimeout(waits);
  }, [wanted]);

  return state;
}
