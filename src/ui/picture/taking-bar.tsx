"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { acceptPicture } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { useAction } from "../primitives/use-action";
import { stageHref } from "../trial/shared/stages";
import { newClientKey } from "../waiting/client-key";
import type { ShownReading } from "./shifts";
import { TakingLine } from "./taking-line";
import type { Reading } from "./use-reading";

type Props = { view: TrialView; n: number; picture: PictureFacts; reading: Reading };

type Input = ({ site: string } & ShownReading) | { site: string; blank: true };

/** The line at the bottom: how much is read, and taking it. */
export function TakingBar({ view, n, picture, reading }: Props) {
  const router = useRouter();
  const [key] = useState(newClientKey);
  const { busy, fault, run } = useAction();
  const readings = reading.rows.flatMap(({ site, read, shown }): Input[] => {
    if (shown) return [{ site: site.id, ...shown }];
    return !read.ok && read.isBlank ? [{ site: site.id, blank: true as const }] : [];
  });
  const measured = readings.filter((r) => "mm" in r).length;
  const accept = () =>
    run(
      () => acceptPicture({ trialId: view.id, n, picture: picture.id, readings, key }),
      (count) => {
        toast(`${count} readings taken from the picture.`);
        router.push(stageHref(view, "read", n));
      },
    );
  return (
    <TakingLine
      label="Taking the readings"
      status={
        measured > 0 ? `${measured} of ${reading.sites.length} sites read in ${picture.name}.` : "Nothing read yet."
      }
      action="Take these readings"
      disabled={busy || measured === 0 || view.endedAt !== null}
      fault={fault.message}
      back={stageHref(view, "read", n)}
      onTake={accept}
    />
  );
}
