"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { acceptPicture } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { Button, buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { stageHref } from "../trial/shared/stages";
import { newClientKey } from "../waiting/client-key";
import type { ShownReading } from "./shifts";
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
    <section
      aria-label="Taking the readings"
      data-verdict-line
      className="sticky bottom-0 z-10 border-t border-hair bg-sheet"
    >
      <div className="mx-auto flex min-h-13 max-w-[1680px] flex-wrap items-center gap-x-6 gap-y-1 px-6 py-1 max-sm:px-4">
        <p className="text-[14px] text-ink2" role="status">
          {measured > 0 ? `${measured} of ${reading.sites.length} sites read in ${picture.name}.` : "Nothing read yet."}
        </p>
        <span className="ml-auto flex items-center gap-3">
          {fault.message && <Fault>{fault.message}</Fault>}
          <Link href={stageHref(view, "read", n)} className={buttonClass("quiet")}>
            Back to reading
          </Link>
          <Button weight="primary" disabled={busy || measured === 0 || view.endedAt !== null} onClick={accept}>
            Take these readings
          </Button>
        </span>
      </div>
    </section>
  );
}
