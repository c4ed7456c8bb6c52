"use client";
import { countText } from "../../core/metrology/count-text";
import type { PictureReading } from "../../core/picture/picture-reading";
import type { PictureScreenProps } from "./picture-room";
import { TakingLine } from "./taking-line";
import { useTaking } from "./use-taking";

type Props = {
  screen: PictureScreenProps;
  /** What each cell has. */
  what: "score" | "colour";
  /** Of cells that are read. */
  count: number;
  /** What is saved. */
  readings: readonly PictureReading[];
};

/** The line at the bottom: how many cells are read, and the button that saves them. */
export function TakeCells({ screen, what, count, readings }: Props) {
  const { fault, isClosed, back, take } = useTaking(screen);
  return (
    <TakingLine
      label={`Taking the ${what}s`}
      status={count > 0 ? `${countText(count, what)} read.` : `No ${what}s read yet.`}
      action={`Take these ${what}s`}
      disabled={isClosed || count === 0}
      fault={fault}
      back={back}
      onTake={() => take(readings, `${countText(count, what)} taken from the picture.`)}
    />
  );
}
