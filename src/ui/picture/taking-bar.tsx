"use client";
import { countText } from "../../core/metrology/count-text";
import type { PictureReading } from "../../core/picture/picture-reading";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { TakingLine } from "./taking-line";
import type { Reading } from "./use-reading";
import { useTaking } from "./use-taking";

type Props = { view: TrialView; n: number; picture: PictureFacts; reading: Reading };

/** The line at the bottom: how much is read, and taking it. */
export function TakingBar({ view, n, picture, reading }: Props) {
  const { fault, isClosed, back, take } = useTaking({ view, n, picture });
  const readings = reading.rows.flatMap(({ site, read, shown }): PictureReading[] => {
    if (shown) return [{ site: site.id, ...shown }];
    return !read.ok && read.isBlank ? [{ site: site.id, blank: true as const }] : [];
  });
  const measured = readings.filter((r) => "mm" in r).length;
  return (
    <TakingLine
      label="Taking the readings"
      status={
        measured > 0 ? `${measured} of ${reading.sites.length} sites read in ${picture.name}.` : "Nothing read yet."
      }
      action="Take these readings"
      disabled={isClosed || measured === 0}
      fault={fault}
      back={back}
      onTake={() => take(readings, `${countText(readings.length, "reading")} taken from the picture.`)}
    />
  );
}
