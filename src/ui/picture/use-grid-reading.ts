"use client";
/** A picture of a grid of dots as it is read: every dot, and what the user moved, left out or marked as dirt. */
import { useEffect, useMemo } from "react";
import type { GridDot, PixelPoint } from "../../core/picture/dots/read-grid";
import type { PictureScale } from "../../core/picture/picture-scale";
import { useSurviving } from "../primitives/use-surviving";
import { type OpenPictureProps, useOpenPicture } from "./use-open-picture";

export type ShownDot = GridDot & { isLeftOut: boolean; isMoved: boolean };

/** Places of the dots by index, mm from the lower left corner of the picture. */
export type DotPlaces = ({ x: number; y: number } | null)[];

/** Corrections by hand. They survive a reload: nothing is on disk before the dots are taken. */
type Edits = {
  dirt: readonly PixelPoint[];
  /** Indices. */
  leftOut: readonly number[];
  moved: readonly { index: number; to: PixelPoint }[];
};

const NO_EDITS: Edits = { dirt: [], leftOut: [], moved: [] };

/** A photo has no scale of its own: the distances give it, so that any scale will do here. */
const PHOTO_SCALE: PictureScale = { xPixelsPerMm: 10, yPixelsPerMm: 10, relative: 1, source: "typed" };

export function useGridReading({ view, n, picture }: OpenPictureProps) {
  const open = useOpenPicture({ view, n, picture });
  const { state, reader, brighter, stopped } = open;
  const { readGrid } = reader;
  const [edits, setEdits] = useSurviving<Edits>(`dots of picture ${picture.id}`, NO_EDITS);
  const { dirt, leftOut, moved } = edits;
  const sites = useMemo(() => open.sites.filter((s) => s.measurand.kind === "dots"), [open.sites]);
  const [measurand] = sites.map((s) => s.measurand);
  const across = measurand?.kind === "dots" ? measurand.across : 0;
  const isPhoto = measurand?.kind === "dots" && measurand.photo === true;
  const isPart = measurand?.kind === "dots" && measurand.part !== undefined;
  useEffect(() => {
    if (state.loaded && across > 0 && !stopped) readGrid({ across, brighter, dirt, isPart });
  }, [state.loaded, across, brighter, dirt, isPart, stopped, readGrid]);

  const scale = isPhoto ? PHOTO_SCALE : open.scale;
  const dots = useMemo(
    () =>
      (state.grid?.dots ?? []).map((dot): ShownDot => {
        const to = moved.find((m) => m.index === dot.index)?.to;
        return { ...dot, ...to, isMoved: to !== undefined, isLeftOut: leftOut.includes(dot.index) };
      }),
    [state.grid, moved, leftOut],
  );
  return {
    ...open,
    sites,
    across,
    scale,
    isPhoto,
    dots,
    dirt,
    isEdited: leftOut.length + moved.length + dirt.length > 0,
    /** By index of the grid; `null` before the dots are read or the scale is known. */
    places: scale && state.grid ? placesOf(dots, across, scale, picture.height) : null,
    move: (index: number, to: PixelPoint) =>
      setEdits((all) => ({ ...all, moved: [...all.moved.filter((m) => m.index !== index), { index, to }] })),
    leaveOut: (index: number, is: boolean) =>
      setEdits((all) => ({ ...all, leftOut: [...all.leftOut.filter((i) => i !== index), ...(is ? [index] : [])] })),
    markDirt: (at: PixelPoint) => setEdits((all) => ({ ...all, dirt: [...all.dirt, at] })),
    /** Undoes all corrections by hand. */
    putBack: () => setEdits(NO_EDITS),
  };
}

export type GridReading = ReturnType<typeof useGridReading>;

/** Y of a picture counts downward. */
function placesOf(dots: readonly ShownDot[], across: number, scale: PictureScale, height: number): DotPlaces {
  const places: DotPlaces = Array.from({ length: across * across }, () => null);
  for (const dot of dots)
    if (!dot.isLeftOut) places[dot.index] = { x: dot.x / scale.xPixelsPerMm, y: (height - dot.y) / scale.yPixelsPerMm };
  return places;
}
