"use client";
/** Saving what was read in a picture, once however often the button is pressed, and back to reading. */
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { PictureReading } from "../../core/picture/picture-reading";
import { acceptPicture } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { useAction } from "../primitives/use-action";
import { stageHref } from "../trial/shared/stages";
import { newClientKey } from "../waiting/client-key";

export function useTaking({ view, n, picture }: { view: TrialView; n: number; picture: PictureFacts }) {
  const router = useRouter();
  const [key] = useState(newClientKey);
  const { busy, fault, run } = useAction();
  return {
    fault: fault.message,
    isClosed: busy || view.endedAt !== null,
    back: stageHref(view, "read", n),
    /** @param said once they are on disk */
    take: (readings: readonly PictureReading[], said: string) =>
      run(
        () =>
          acceptPicture({
            trialId: view.id,
            n,
            picture: picture.id,
            readings,
            // Another site of the same picture is another taking.
            key: `${key} ${readings[0]?.site ?? ""}`.slice(0, 60),
          }),
        () => {
          toast(said);
          router.push(stageHref(view, "read", n));
        },
      ),
  };
}
