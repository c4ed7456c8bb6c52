import type { ReactNode } from "react";
import type { PicturePoint } from "../../core/picture/place-coupon";
import { Button } from "../primitives/button";

type Props = {
  points: readonly PicturePoint[];
  /** What to press with none, with one, and what to say with both. */
  words: readonly [string, string, string];
  onPoints: (points: readonly PicturePoint[] | null) => void;
  /** What is typed of them. */
  children?: ReactNode;
  /** What the two together may be gone on with. */
  goOn: ReactNode;
  /** What both are called, to press others. */
  others: string;
};

/** Two places of the picture are pressed: which is next, going on with both, pressing others, or back. */
export function PressedPoints({ points, words, onPoints, children, goOn, others }: Props) {
  return (
    <>
      <p className="text-ink2" role="status">
        {words[points.length]}
      </p>
      {children}
      <div className="flex flex-wrap items-center gap-2">
        {goOn}
        <Button weight="quiet" onClick={() => onPoints(points.length > 0 ? [] : null)}>
          {points.length > 0 ? others : "Back"}
        </Button>
      </div>
    </>
  );
}
