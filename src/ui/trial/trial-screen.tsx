"use client";
import clsx from "clsx";
import { use } from "react";
import { STATE_WORDS } from "../../core/course/state-words";
import { END_WORDS } from "../../core/trial/trial-end";
import type { TrialView } from "../../server/trial/trial-view";
import { sessionText } from "../gauges/gauge-words";
import { Notice } from "../primitives/notice";
import { BurnStage } from "./burn/burn-stage";
import { CorrectStage } from "./correct/correct-stage";
import { EndTrial } from "./end-trial";
import { LayOutStage } from "./lay-out/lay-out-stage";
import { NotYet } from "./not-yet";
import { ProveStage } from "./prove/prove-stage";
import { Rail } from "./rail";
import { ReadStage } from "./read/read-stage";
import { loadProcedure } from "./shared/known-procedure";
import { isKnown } from "./shared/known-stamp";
import type { Stage, StageProps } from "./shared/stages";
import { useFresh } from "./shared/use-fresh";

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
