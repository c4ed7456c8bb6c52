"use client";
/** The worker that adapts drawings: the page says what it wants, and shows what came of the last order. */
import { useEffect, useRef, useState } from "react";
import type { AdaptOrder, AdaptResult } from "../../artwork/adapt";
import type { FromAdapter, ToAdapter } from "../../workers/artwork-messages";

export type AdapterState = { busy: boolean; result: AdaptResult | null; ms: number };

/** @param order `null` = nothing to do yet */
export function useAdapter(order: AdaptOrder | null): AdapterState {
  const [state, setState] = useState<AdapterState>({ busy: false, result: null, ms: 0 });
  const worker = useRef<Worker | null>(null);
  const newest = useRef(0);
  const wanted = JSON.stringify(order);

  useEffect(() => {
    const started = new Worker(new URL("../../workers/artwork.worker.ts", import.meta.url), { type: "module" });
    worker.current = started;
    started.onmessage = ({ data }: MessageEvent<FromAdapter>) => {
      if (data.id === newest.current) setState({ busy: false, result: data.result, ms: data.ms });
    };
    started.onerror = () =>
      setState({
        ...{ busy: false, ms: 0 },
        result: { ok: false, asksUnit: false, message: "This browser cannot work on drawings in the background." },
      });
    return () => started.terminate();
  }, []);

  useEffect(() => {
    const asked = JSON.parse(wanted) as AdaptOrder | null;
    const id = ++newest.current;
    if (!asked) {
      setState({ busy: false, result: null, ms: 0 });
      return;
    }
    setState((s) => ({ ...s, busy: true }));
    // While a number is typed only the last one is worked on.
    const waits = setTimeout(() => worker.current?.postMessage({ id, order: asked } satisfies ToAdapter), 150);
    return () => clearTimeout(waits);
  }, [wanted]);

  return state;
}
