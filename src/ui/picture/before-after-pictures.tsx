"use client";
import { type RefObject, useEffect, useRef, useState } from "react";
import type { Site } from "../../core/coupon/site";
import { type Affine, inverseOf, mapped } from "../../core/geometry/affine";
import { pixelMm } from "../../core/picture/picture-window";
import type { PicturePoint } from "../../core/picture/place-coupon";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { RoundView } from "../../server/trial/trial-view";
import { Button } from "../primitives/button";
import { usePictureReader } from "./use-picture-reader";

export type EarlierPicture = { round: RoundView; picture: PictureFacts };

type Props = {
  trialId: number;
  earlier: EarlierPicture;
  /** The picture in hand: where the coupon lies in it, and the place that is looked at. */
  now: { n: number; picture: PictureFacts; pose: Affine; at: PicturePoint };
  site: Site;
  /** Marks are brighter than the stock. */
  brighter: boolean;
};

/** So much of the coupon is seen in each, mm, and how large it is drawn. */
const SEEN_MM = 12;
const SIDE_PX = 320;
const BLINK_MS = 700;

/** The same place of the coupon in two pictures, at one scale: beside one another, or one after the other in one place. */
export function BeforeAfterPictures({ trialId, earlier, now, site, brighter }: Props) {
  const [blinks, setBlinks] = useState(false);
  const [first, setFirst] = useState(true);
  useEffect(() => {
    if (!blinks) return;
    const timer = setInterval(() => setFirst((shown) => !shown), BLINK_MS);
    return () => clearInterval(timer);
  }, [blinks]);
  const before = usePlaced(trialId, earlier, brighter);
  // The place on the coupon, not in the picture: each was laid on the glass anew.
  const onCoupon = mapped(inverseOf(now.pose), now.at);
  const beforeAt = before.pose && mapped(before.pose, onCoupon);
  const after = usePictureReader({
    url: `/api/trials/${trialId}/rounds/${now.n}/pictures/${now.picture.id}`,
    width: now.picture.width,
    height: now.picture.height,
  });
  const [a, b] = [useRef<HTMLCanvasElement>(null), useRef<HTMLCanvasElement>(null)];
  useClose(before.reader, a, before.pose, beforeAt);
  useClose(after, b, now.pose, now.at);
  const figure = (canvas: RefObject<HTMLCanvasElement | null>, words: string, hidden: boolean) => (
    <figure className={blinks ? "absolute inset-0" : ""} style={{ visibility: hidden ? "hidden" : undefined }}>
      <canvas ref={canvas} width={SIDE_PX} height={SIDE_PX} className="w-full rounded-md" />
      <figcaption className="text-center text-[14px] text-ink2">{words}</figcaption>
    </figure>
  );
  return (
    <section className="card grid gap-3 p-5" aria-label="Before and after">
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-[17px] font-bold">Before and after</h2>
        <Button weight="small" aria-pressed={blinks} onClick={() => setBlinks(!blinks)}>
          {blinks ? "Side by side" : "Blink"}
        </Button>
      </div>
      <p className="text-[14px] text-ink2">{before.why ?? `${site.label}, ${SEEN_MM} mm across, both at one scale`}</p>
      <div className={blinks ? "relative aspect-[10/11] w-full" : "grid grid-cols-2 gap-2"}>
        {figure(a, `before, ${earlier.round.couponCode}`, blinks && !first)}
        {figure(b, "now", blinks && first)}
      </div>
    </section>
  );
}

/** The earlier picture with where its coupon lies. */
function usePlaced(trialId: number, { round, picture }: EarlierPicture, brighter: boolean) {
  const reader = usePictureReader({
    url: `/api/trials/${trialId}/rounds/${round.n}/pictures/${picture.id}`,
    width: picture.width,
    height: picture.height,
  });
  const { state, read } = reader;
  const piece = round.spec?.pieces[0];
  useEffect(() => {
    if (state.loaded && picture.scale && piece) read({ piece, sites: [], scale: picture.scale, brighter, parts: [] });
  }, [state.loaded, picture.scale, piece, brighter, read]);
  return { reader, pose: state.placement?.pose ?? null, why: state.why };
}

/** Draws the surroundings of a place once the picture is there. */
function useClose(
  { state, show, onShown }: ReturnType<typeof usePictureReader>,
  canvas: RefObject<HTMLCanvasElement | null>,
  pose: Affine | null,
  at: PicturePoint | null,
): void {
  const [x, y] = [at?.x ?? 0, at?.y ?? 0];
  const pixel = pose ? pixelMm(pose) : 0;
  useEffect(() => {
    onShown.current = (_, pixels) => canvas.current?.getContext("2d")?.putImageData(pixels, 0, 0);
  }, [onShown, canvas]);
  useEffect(() => {
    if (!state.loaded || pixel === 0) return;
    const zoom = (SIDE_PX * pixel) / SEEN_MM;
    const half = SIDE_PX / 2 / zoom;
    show({ x: x - half, y: y - half, zoom, width: SIDE_PX, height: SIDE_PX });
  }, [state.loaded, pixel, x, y, show]);
}
