"use client";
/** One picture as it is read: by which scale, as a whole or in parts, what was found, what a person moved of it. */
import { useEffect, useState } from "react";
import { pixelMm } from "../../core/picture/picture-window";
import type { PicturePart } from "../../core/picture/read-part";
import { contradictedBy } from "./contradiction";
import type { ResultRow } from "./picture-results";
import { type MarkSet, readingAfter, type Shift, UNMOVED } from "./shifts";
import { type OpenPictureProps, useOpenPicture } from "./use-open-picture";

export function useReading({ view, n, picture }: OpenPictureProps) {
  const open = useOpenPicture({ view, n, picture });
  const { round, piece, sites, scale, brighter, stopped, reader, state, readOn } = open;
  const [parts, setParts] = useState<readonly PicturePart[]>([]);
  const [shifts, setShifts] = useState<Readonly<Record<string, Shift>>>({});
  const { read } = reader;

  // It is read as soon as it can be, and anew with anything else that it is read by.
  useEffect(() => {
    if (state.loaded && scale && piece && !stopped) read({ piece, sites, scale, brighter, parts });
  }, [state.loaded, scale, brighter, parts, piece, sites, stopped, read]);

  const answers = round?.readings.map((r) => r.answer) ?? [];
  const rows: ResultRow[] = (state.found ?? []).flatMap(({ read: found, pose }) => {
    const site = sites.find((s) => s.id === found.site);
    if (!site) return [];
    const shown = found.ok && pose ? readingAfter(found, shifts[site.id] ?? UNMOVED, pixelMm(pose)) : null;
    return [{ site, read: found, pose, shown, byHand: shown && contradictedBy(shown, site.id, answers, view.gauges) }];
  });
  return {
    ...open,
    rows,
    shifts,
    parts,
    setParts: (next: readonly PicturePart[]) => {
      readOn();
      setParts(next);
    },
    moveSet: (site: string, set: MarkSet, mm: number) =>
      setShifts((all) => ({ ...all, [site]: { ...(all[site] ?? UNMOVED), [set]: mm } })),
    putBack: (site: string) => setShifts((all) => ({ ...all, [site]: UNMOVED })),
  };
}

export type Reading = ReturnType<typeof useReading>;
