"use client";
/** A picture of a grid of dots as it is read: its scale, what a person moved, left out or called dirt. */
import { useCallback, useEffect, useMemo, useState } from "react";
import type { GridDot, PixelPoint } from "../../core/picture/dots/read-grid";
import type { PictureScale } from "../../core/picture/picture-scale";
import { givePictureScale } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { useAction } from "../primitives/use-action";
import { usePictureReader } from "./use-picture-reader";

type Props = { view: TrialView; n: number; picture: PictureFacts };

export type ShownDot = GridDot & { isLeftOut: boolean; isMoved: boolean };

/** A scan that shows this, its dots by index, mm from the lower left corner of the picture. */
export type DotPlaces = ({ x: number; y: number } | null)[];

/** Any scale will do. */
const PHOTO_SCALE: PictureScale = { xPixelsPerMm: 10, yPixelsPerMm: 10, relative: 1, source: "typed" };

const NONE: ReadonlySet<number> = new Set();

export function useGridReading({ view, n, picture }: Props) {
  const round = view.rounds.find((r) => r.n === n);
  const [{ piece, sites }] = useState(() => ({
    piece: round?.spec?.pieces[0] ?? null,
    sites: (round?.spec?.sites ?? []).filter((s) => s.measurand.kind === "dots"),
  }));
  const [scale, setScale] = useState<PictureScale | null>(picture.scale);
  const [brighter, setBrighter] = useState(false);
  const [dirt, setDirt] = useState<readonly PixelPoint[]>([]);
  const [leftOut, setLeftOut] = useState(NONE);
  const [moved, setMoved] = useState<ReadonlyMap<number, PixelPoint>>(new Map());
  const [stopped, setStopped] = useState(false);
  const giving = useAction();
  const reader = usePictureReader({
    url: `/api/trials/${view.id}/rounds/${n}/pictures/${picture.id}`,
    width: picture.width,
    height: picture.height,
  });
  const { state, readGrid } = reader;
  const [measurand] = sites.map((s) => s.measurand);
  const across = measurand?.kind === "dots" ? measurand.across : 0;
  const isPhoto = measurand?.kind === "dots" && measurand.photo === true;
  const isPart = measurand?.kind === "dots" && measurand.part !== undefined;
  useEffect(() => {
    if (state.loaded && across > 0 && !stopped) readGrid({ across, brighter, dirt, isPart });
  }, [state.loaded, across, brighter, dirt, isPart, stopped, readGrid]);

  const used = isPhoto ? PHOTO_SCALE : scale;
  const dots = useMemo(
    () =>
      (state.grid?.dots ?? []).map((dot): ShownDot => {
        const to = moved.get(dot.index);
        return { ...dot, ...to, isMoved: to !== undefined, isLeftOut: leftOut.has(dot.index) };
      }),
    [state.grid, moved, leftOut],
  );
  return {
    reader,
    state,
    round,
    piece,
    sites,
    across,
    /** A photo has none of its own: the distances give it. */
    scale: used,
    isPhoto,
    dots,
    dirt,
    brighter,
    stopped,
    giving,
    isEdited: leftOut.size > 0 || moved.size > 0 || dirt.length > 0,
    /** By index of the grid; `null` before it is read or has a scale. */
    places: used && state.grid ? placesOf(dots, across, used, picture.height) : null,
    giveScale: (next: PictureScale, then?: () => void) =>
      giving.run(
        () => givePictureScale({ trialId: view.id, n, picture: picture.id, scale: next }),
        () => {
          setScale(next);
          then?.();
        },
      ),
    setBrighter: (next: boolean) => {
      setStopped(false);
      setBrighter(next);
    },
    move: (index: number, to: PixelPoint) => setMoved((all) => new Map(all).set(index, to)),
    leaveOut: (index: number, is: boolean) =>
      setLeftOut((all) => new Set(is ? [...all, index] : [...all].filter((i) => i !== index))),
    callDirt: (at: PixelPoint) => setDirt((all) => [...all, at]),
    /** As it was found. */
    putBack: () => {
      setMoved(new Map());
      setLeftOut(NONE);
      setDirt([]);
    },
    stop: useCallback(() => {
      setStopped(true);
      reader.stop();
    }, [reader.stop]),
    readOn: () => setStopped(false),
  };
}

export type GridReading = ReturnType<typeof useGridReading>;

/** The Y of a picture counts downward. */
function placesOf(dots: readonly ShownDot[], across: number, scale: PictureScale, height: number): DotPlaces {
  const places: DotPlaces = Array.from({ length: across * across }, () => null);
  for (const dot of dots)
    if (!dot.isLeftOut) places[dot.index] = { x: dot.x / scale.xPixelsPerMm, y: (height - dot.y) / scale.yPixelsPerMm };
  return places;
}
