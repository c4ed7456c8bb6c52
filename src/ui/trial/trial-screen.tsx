"use client";
import clsx from "clsx";
import dynamic from "next/dynamic";
import { use } from "react";
import { STATE_WORDS } from "../../core/course/state";
import { END_WORDS } from "../../core/trial/trial-end";
import type { TrialView } from "../../server/trial/trial-view";
import { sessionText } from "../gauges/gauge-words";
import { Notice } from "../primitives/notice";
import { EndTrial } from "./end-trial";
import { NotYet } from "./not-yet";
import { Rail } from "./rail";
import { loadProcedure } from "./shared/known-procedure";
import { isKnown } from "./shared/known-stamp";
import type { Stage, StageProps } from "./shared/stages";
import { useFresh } from "./shared/use-fresh";

// Each page loads its own stage.
const LayOutStage = dynamic(async () => (await import("./lay-out/lay-out-stage")).LayOutStage);
const BurnStage = dynamic(async () => (await import("./burn/burn-stage")).BurnStage);
const ReadStage = dynamic(async () => (await import("./read/read-stage")).ReadStage);
const CorrectStage = dynamic(async () => (await import("./correct/correct-stage")).CorrectStage);
const ProveStage = dynamic(async () => (await import("./prove/prove-stage")).ProveStage);

/** One trial at one stage. */
export function TrialScreen({
  view,
  stage,
  n,
  site,
  gauge,
  now,
}: StageProps & { stage: Stage; site: string | null; gauge: string | null }) {
  // Every stage asks it.
  use(loadProcedure(view.procedure));
  const round = view.rounds.find((r) => r.n === n);
  // Read knows its readings itself.
  useFresh(view.id, (stamp) => isKnown(stamp, view), stage !== "read");
  if (!round) return null;
  const props = { view, n, now };
  const burned = round.spec !== null;
  return (
    <>
      <div
        className={clsx(
          "mx-auto flex w-full max-w-[1680px] flex-wrap items-center justify-between gap-x-6 gap-y-2 px-6 pt-4 max-sm:px-4",
          stage === "read" && "max-sm:hidden",
        )}
      >
        <h1 className="sr-only">
          Trial {view.code}, {stage}
        </h1>
        <Rail view={view} round={round} stage={stage} />
        <RoundNote view={view} n={n} />
      </div>
      {view.changed && (
        <div className="mx-auto w-full max-w-[1680px] px-6 pt-3 max-sm:px-4">
          <Notice
            tone="needs you"
            headline={
              view.changed.state === "check due"
                ? "This result is due for a check."
                : `This result is ${STATE_WORDS[view.changed.state]}.`
            }
          >
            <span className="inline-block first-letter:uppercase">{view.changed.reasons.join("; ")}.</span>
          </Notice>
        </div>
      )}
      {stage === "lay-out" && <LayOutStage key={n} {...props} />}
      {stage === "burn" && <BurnStage key={n} {...props} />}
      {stage === "read" &&
        (burned ? <ReadStage key={n} {...props} site={site} gauge={gauge} /> : <NotYet view={view} n={n} />)}
      {stage === "correct" && (burned ? <CorrectStage key={n} {...props} /> : <NotYet view={view} n={n} />)}
      {stage === "prove" && <ProveStage {...props} />}
    </>
  );
}

function RoundNote({ view, n }: { view: TrialView; n: number }) {
  const round = view.rounds.find((r) => r.n === n);
  const session = round?.sessions.at(-1);
  const parts = [
    n > 1 ? `${round?.purpose ?? "round"} burn, coupon ${round?.couponCode}` : "",
    session ? sessionText(session, round?.spec?.sites ?? []) : "",
    view.end === null ? "" : END_WORDS[view.end],
  ].filter(Boolean);
  return (
    <div className="flex flex-wrap items-center gap-x-4 text-[14px] text-ink2">
      <p>{parts.join(" · ")}</p>
      {view.endedAt === null && <EndTrial trialId={view.id} code={view.code} />}
    </div>
  );
}
