"use client";
import type { ReactNode } from "react";
import { dropPicture } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import { Button } from "../primitives/button";
import { CheckBox } from "../primitives/check-box";

import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";

type Props = {
  trialId: number;
  n: number;
  picture: PictureFacts;
  /** Marks or dots. */
  marks: string;
  brighter: boolean;
  onBrighter: (next: boolean) => void;
  /** Which picture, and adding another one. */
  choice: ReactNode;
  onDropped: (picture: number) => void;
};

/** How the picture is read, the choice of a picture, and its removal. */
export function PicturesCard({ trialId, n, picture, marks, brighter, onBrighter, choice, onDropped }: Props) {
  const { busy, fault, run } = useAction();
  return (
    <section className="card grid grid-cols-1 gap-2 p-5" aria-label="Pictures">
      <CheckBox label={`${marks} are brighter than the stock, as on metal`} checked={brighter} onChange={onBrighter} />
      {choice}
      <Button
        weight="quiet"
        className="justify-self-start"
        disabled={busy}
        onClick={() =>
          run(
            () => dropPicture({ trialId, n, picture: picture.id }),
            () => onDropped(picture.id),
          )
        }
      >
        Remove this picture
      </Button>
      {fault.message && <Fault>{fault.message}</Fault>}
    </section>
  );
}
