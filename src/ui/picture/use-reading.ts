"use client";
/** One picture as it is read: by which scale, as a whole or in parts, what was found, what a person moved of it. */
import { useCallback, useEffect, useState } from "react";
import type { PictureScale } from "../../core/picture/picture-scale";
import { pixelMm } from "../../core/picture/picture-window";
import type { PicturePart } from "../../core/picture/read-part";
import { givePictureScale } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { useAction } from "../primitives/use-action";
import { contradictedBy } from "./contradiction";
import type { ResultRow } from "./picture-results";
import { type MarkSet, readingAfter, type Shift, UNMOVED } from "./shifts";
import { usePictureReader } from "./use-picture-reader";

type Props = { view: TrialView; n: number; picture: PictureFacts };

export function useReading({ view, n, picture }: Props) {
  const round = view.rounds.find((r) => r.n === n);
  // What is read is what was burned when the picture was opened: a page that comes anew does not read it anew.
  const [{ piece, sites }] = useState(() => ({
    piece: round?.spec?.pieces[0] ?? null,
    sites: round?.spec?.sites ?? [],
  }));
  const [scale, setScale] = useState<PictureScale | null>(picture.scale);
  const [brighter, setBrighter] = useState(false);
  const [parts, setParts] = useState<readonly PicturePart[]>([]);
  const [stopped, setStopped] = useState(false);
  const [shifts, setShifts] = useState<Readonly<Record<string, Shift>>>({});
  const giving = useAction();
  const reader = usePictureReader({
    url: `/api/trials/${view.id}/rounds/${n}/pictures/${picture.id}`,
    width: picture.width,
    height: picture.height,
  });
  const { state, read } = reader;

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
    reader,
    state,
    round,
    piece,
    sites,
    rows,
    shifts,
    brighter,
    parts,
    stopped,
    scale,
    /** Reads it with another scale, which is kept with the picture first. */
    giveScale: (next: PictureScale, then?: () => void) =>
      giving.run(
        () => givePictureScale({ trialId: view.id, n, picture: picture.id, scale: next }),
        () => {
          setStopped(false);
          setScale(next);
          then?.();
        },
      ),
    giving,
    setBrighter: (next: boolean) => {
      setStopped(false);
      setBrighter(next);
    },
    setParts: (next: readonly PicturePart[]) => {
      setStopped(false);
      setParts(next);
    },
    moveSet: (site: string, set: MarkSet, mm: number) =>
      setShifts((all) => ({ ...all, [site]: { ...(all[site] ?? UNMOVED), [set]: mm } })),
    putBack: (site: string) => setShifts((all) => ({ ...all, [site]: UNMOVED })),
    /** Ends reading, until it is asked for again. */
    stop: useCallback(() => {
      setStopped(true);
      reader.stop();
    }, [reader.stop]),
    readOn: () => setStopped(false),
  };
}

export type Reading = ReturnType<typeof useReading>;
