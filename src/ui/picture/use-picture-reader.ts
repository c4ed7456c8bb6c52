"use client";
/** The worker that holds a picture: it is loaded, read, and drawn part by part, without the page ever waiting. */
import { startTransition, useCallback, useEffect, useRef, useState } from "react";
import type { ArrayRead } from "../../core/picture/array/read-array";
import type { GridRead } from "../../core/picture/dots/read-grid";
import type { CouponPlacement } from "../../core/picture/place-coupon";
import type { PartRead } from "../../core/picture/read-part";
import type { ArrayOrder, FromReader, GridOrder, ReadOrder, ShownPart, ToReader } from "../../workers/picture-messages";

export type ReaderState = {
  loaded: boolean;
  doing: "loading" | "looking" | "reading" | "nothing";
  placement: CouponPlacement | null;
  /** What was read, and where it lies. */
  found: readonly PartRead[] | null;
  /** Dots of a grid; `null` before they are found, and for other coupons. */
  grid: Extract<GridRead, { ok: true }> | null;
  /** Cells of an array; `null` before they are read, and for other coupons. */
  array: Extract<ArrayRead, { ok: true }> | null;
  /** How long reading took, ms. */
  ms: number | null;
  why: string | null;
  /** By the coupon a mm has so many times as many pixels as said: why it was not read. */
  scaleTimes: number | null;
};

const LOADING: ReaderState = {
  loaded: false,
  doing: "loading",
  placement: null,
  found: null,
  grid: null,
  array: null,
  ms: null,
  why: null,
  scaleTimes: null,
};

type Props = { url: string; width: number; height: number };

export function usePictureReader({ url, width, height }: Props) {
  const [state, setState] = useState(LOADING);
  /** Counts anew when the worker was ended. */
  const [life, setLife] = useState(0);
  const worker = useRef<Worker | null>(null);
  const onShown = useRef<((part: ShownPart, pixels: ImageData) => void) | null>(null);

  // biome-ignore lint/correctness/useExhaustiveDependencies: another life begins with another worker
  useEffect(() => {
    const started = new Worker(new URL("../../workers/picture.worker.ts", import.meta.url), { type: "module" });
    worker.current = started;
    setState(LOADING);
    started.onmessage = ({ data }: MessageEvent<FromReader>) => {
      if (data.kind === "shown") return onShown.current?.(data.part, data.pixels);
      // Many marks are drawn bit by bit, so that the page answers meanwhile.
      startTransition(() => setState((before) => stateAfter(before, data)));
    };
    started.onerror = () =>
      setState((s) => ({ ...s, doing: "nothing", why: "This browser cannot read pictures in the background." }));
    started.postMessage({ kind: "load", url, width, height } satisfies ToReader);
    return () => started.terminate();
  }, [url, width, height, life]);

  const show = useCallback(
    (part: ShownPart) => worker.current?.postMessage({ kind: "show", part } satisfies ToReader),
    [],
  );
  const read = useCallback((order: ReadOrder) => {
    setState({ ...LOADING, loaded: true, doing: "looking" });
    worker.current?.postMessage({ kind: "read", ...order } satisfies ToReader);
  }, []);
  const readGrid = useCallback((order: GridOrder) => {
    setState({ ...LOADING, loaded: true, doing: "looking" });
    worker.current?.postMessage({ kind: "read grid", ...order } satisfies ToReader);
  }, []);
  const readArray = useCallback((order: ArrayOrder) => {
    setState({ ...LOADING, loaded: true, doing: "looking" });
    worker.current?.postMessage({ kind: "read array", ...order } satisfies ToReader);
  }, []);
  /** Ends the work in hand: the picture is loaded again. */
  const stop = useCallback(() => setLife((count) => count + 1), []);
  return { state, show, read, readGrid, readArray, stop, onShown };
}

function stateAfter(before: ReaderState, said: Exclude<FromReader, { kind: "shown" }>): ReaderState {
  switch (said.kind) {
    case "loaded":
      return { ...before, loaded: true, doing: "nothing" };
    case "placed":
      return { ...before, doing: "reading", placement: said.placement };
    case "read":
      return { ...before, doing: "nothing", found: said.found, ms: said.ms };
    case "grid":
      return { ...before, doing: "nothing", grid: said.read, ms: said.ms };
    case "array":
      return { ...before, doing: "nothing", array: said.read, ms: said.ms };
    case "failed":
      return { ...before, doing: "nothing", why: said.why, scaleTimes: said.scaleTimes };
  }
}
