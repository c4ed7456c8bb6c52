"use client";
/** One picture as it is open for reading: its pixels, its scale, whether marks are brighter than the stock, and stopping. */
import { useCallback, useState } from "react";
import type { PictureScale } from "../../core/picture/picture-scale";
import { givePictureScale } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { useAction } from "../primitives/use-action";
import { usePictureReader } from "./use-picture-reader";

export type OpenPictureProps = { view: TrialView; n: number; picture: PictureFacts };

export function useOpenPicture({ view, n, picture }: OpenPictureProps) {
  const round = view.rounds.find((r) => r.n === n);
  // The coupon as it was when the picture was opened: a page that comes later does not start another reading.
  const [{ piece, sites }] = useState(() => ({
    piece: round?.spec?.pieces[0] ?? null,
    sites: round?.spec?.sites ?? [],
  }));
  const [scale, setScale] = useState<PictureScale | null>(picture.scale);
  const [brighter, setBrighter] = useState(false);
  const [stopped, setStopped] = useState(false);
  const giving = useAction();
  const reader = usePictureReader({
    url: `/api/trials/${view.id}/rounds/${n}/pictures/${picture.id}`,
    width: picture.width,
    height: picture.height,
  });
  const readOn = useCallback(() => setStopped(false), []);
  return {
    round,
    piece,
    sites,
    reader,
    state: reader.state,
    scale,
    brighter,
    stopped,
    giving,
    /** Reads again with another scale, which is saved with the picture first. */
    giveScale: (next: PictureScale, then?: () => void) =>
      giving.run(
        () => givePictureScale({ trialId: view.id, n, picture: picture.id, scale: next }),
        () => {
          readOn();
          setScale(next);
          then?.();
        },
      ),
    setBrighter: (next: boolean) => {
      readOn();
      setBrighter(next);
    },
    /** Ends the reading until the user asks for it again. */
    stop: useCallback(() => {
      setStopped(true);
      reader.stop();
    }, [reader.stop]),
    readOn,
  };
}
