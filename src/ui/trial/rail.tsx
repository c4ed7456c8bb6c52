import clsx from "clsx";
import type { RoundView, TrialView } from "../../server/trial/trial-view";
import { Link } from "../primitives/link";
import { finishedStages, STAGE_WORDS, STAGES, type Stage, stageHref } from "./shared/stages";

/** Lay out, Burn, Read, Correct, Prove: where this trial is. */
export function Rail({ view, round, stage }: { view: TrialView; round: RoundView; stage: Stage }) {
  const first = view.rounds[0] ?? round;
  const finished = finishedStages(view, round.purpose === "proof" ? first : round);
  const shown: Stage = round.purpose === "proof" && stage !== "correct" ? "prove" : stage;
  return (
    <nav aria-label="Stages of the trial">
      <ol className="flex items-center gap-3 whitespace-nowrap max-sm:gap-1 max-sm:text-[14px]">
        {STAGES.map((s, i) => {
          const n = s === "correct" ? round.n : 1;
          const open = s === "lay-out" || s === "burn" || first.spec !== null;
          const current = s === shown;
          const done = finished.has(s);
          return (
            <li key={s} className="flex items-center gap-3 max-sm:gap-1">
              {i > 0 && <span aria-hidden="true" className="h-px w-8 bg-line max-lg:w-3 max-sm:w-1.5" />}
              {open ? (
                <Link href={stageHref(view, s, n)} aria-current={current ? "step" : undefined} className="touch-link">
                  <span
                    className={clsx(
                      "border-b-[3px] pb-0.5 font-semibold",
                      current ? "border-ember text-ink" : "border-transparent hover:border-line",
                      !current && (done ? "text-verdigris" : "text-ink3"),
                    )}
                  >
                    {done && !current && <span aria-hidden="true">✓ </span>}
                    {STAGE_WORDS[s]}
                  </span>
                </Link>
              ) : (
                <span className="font-semibold text-ink3" title="After the burn">
                  {STAGE_WORDS[s]}
                </span>
              )}
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
