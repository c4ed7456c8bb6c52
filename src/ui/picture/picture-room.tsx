"use client";
import type { ReactNode } from "react";
import type { PicturePoint } from "../../core/picture/place-coupon";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { PictureView } from "./picture-view";
import { PicturesCard } from "./pictures-card";
import type { useOpenPicture } from "./use-open-picture";

/** What every screen of a picture is given. */
export type PictureScreenProps = {
  view: TrialView;
  n: number;
  picture: PictureFacts;
  /** Which picture, and adding another one. */
  choice: ReactNode;
  onDropped: (picture: number) => void;
};

type Props = PictureScreenProps & {
  /** For a reader of the page, not shown. */
  heading: string;
  /** What is read: marks or dots. */
  marks: string;
  open: Pick<ReturnType<typeof useOpenPicture>, "reader" | "brighter" | "setBrighter">;
  /** The place that is shown close, and how much of it, pixels. */
  look: { at: PicturePoint; across: number } | null;
  onPress?: (at: PicturePoint) => void;
  /** Drawn over the picture in its pixels. */
  overlay: (zoom: number) => ReactNode;
  /** Cards beside the picture. */
  children: ReactNode;
};

/** A picture with what was found drawn over it, and the cards beside it. */
export function PictureRoom({ heading, marks, open, look, onPress, overlay, children, ...screen }: Props) {
  const { view, n, picture, choice, onDropped } = screen;
  return (
    <main className="mx-auto grid w-full max-w-[1680px] flex-1 gap-5 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_400px]">
      <h1 className="sr-only">{heading}</h1>
      <section className="min-h-[420px] lg:h-[calc(100dvh-150px)]" aria-label="The picture">
        <PictureView
          reader={open.reader}
          width={picture.width}
          height={picture.height}
          label={`${picture.name}, ${picture.width} × ${picture.height} pixels`}
          look={look}
          onPress={(at) => onPress?.(at)}
        >
          {overlay}
        </PictureView>
      </section>
      <div className="grid min-w-0 grid-cols-1 relative content-start gap-4 overflow-y-auto lg:max-h-[calc(100dvh-150px)]">
        {children}
        <PicturesCard
          trialId={view.id}
          n={n}
          picture={picture}
          marks={marks}
          brighter={open.brighter}
          onBrighter={open.setBrighter}
          choice={choice}
          onDropped={onDropped}
        />
      </div>
    </main>
  );
}
