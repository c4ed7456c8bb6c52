"use client";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { countText } from "../../../core/metrology/count-text";
import { adjusted, isReadBack, lengthUnitOf } from "../../../core/trial/decisions";
import type { Next } from "../../../core/trial/history";
import { layOutNext } from "../../../server/actions/trial-actions";
import type { RoundView } from "../../../server/trial/trial-view";
import { FigureView } from "../../drawing/figure-view";
import { Button, buttonClass } from "../../primitives/button";
import { Link } from "../../primitives/link";
import { NextStep } from "../../primitives/next-step";
import { Fault, Notice } from "../../primitives/notice";
import { BudgetCard } from "../shared/budget-card";
import { holdersOf } from "../shared/entered-where";
import { FindingsCard } from "../shared/findings-card";
import { firstStageOf, historyOf, procedureOf } from "../shared/known-procedure";
import type { StageProps } from "../shared/stages";
import { sitesDone, stageHref } from "../shared/stages";
import { StockResultCard } from "../shared/stock-result-card";
import { useOutcome } from "../shared/use-outcome";
import { VerdictLine } from "../shared/verdict-line";
import { WorkingLine } from "../shared/working-line";
import { AdjustmentCard } from "./adjustment-card";
import { ConfirmAll } from "./confirm-all";
import { ConfirmHeld } from "./confirm-held";
import { ConfirmMap } from "./confirm-map";
import { CorrectionTable } from "./correction-table";
import { Holders } from "./holders";
import { MapCorrection } from "./map-correction";
import { RecordedCard } from "./recorded-card";
import { VisibleCard } from "./visible-card";
import { WishCard } from "./wish-card";

/** From so many single values on, they are one table. */
const MANY = 3;

/** What the controller held, what to enter, how it came about, and where it was entered. */
export function CorrectStage({ view, n, now }: StageProps) {
  const procedure = procedureOf(view);
  const round = view.rounds.find((r) => r.n === n);
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  const newest = useMemo(() => historyOf(view, n), [view, n]);
  const { history, outcome, share } = useOutcome(procedure, newest);
  const next = useMemo(() => procedure.next(history, outcome), [procedure, history, outcome]);
  if (!round) return null;
  const solved = outcome.status === "solved" ? outcome : null;
  const corrects = solved !== null && solved.corrections.length > 0;
  const adjusts = solved !== null && solved.adjustments.length > 0;
  const isAdjusted = adjusted(n).of(view.decisions);
  const forStock = solved?.forStock;
  const kept = view.keptForStock.some((k) => k.n === n);
  const sets = procedure.sets(round.plan, view.machine);
  const confirmed = procedure.settings.filter((s) => sets.includes(s.key));
  const isMany = confirmed.length >= MANY && confirmed.every((s) => s.shape === "scalar");
  const found = solved?.corrections ?? [];
  const tables = isMany && found.length > 0 ? [found] : found.map((c) => [c]);
  const refines = next.do === "round" && next.purpose === "refine";
  const places = (solved?.corrections ?? []).reduce((sum, c) => sum + holdersOf(view, c.setting).length, 0);
  const laidNext = view.rounds.some((r) => r.n === n + 1);
  const recorded = view.records.filter((r) => r.n === n);
  const isEntered = recorded.length > 0 || isAdjusted || kept;

  const goOn = () =>
    start(async () => {
      const result = await layOutNext({ trialId: view.id }).catch(() => null);
      const stage = result?.ok && next.do === "round" ? firstStageOf(view, result.value, next.plan) : "burn";
      if (result?.ok) router.push(stageHref(view, stage, result.value));
      else setFault(result?.message ?? "The server does not answer.");
    });

  const onward: OnwardProps = {
    next,
    round,
    isEntered,
    hasLaidNext: laidNext,
    isToEnter: corrects || adjusts || forStock !== undefined,
    isSolved: solved !== null,
    busy,
    onGo: goOn,
  };

  return (
    <>
      <main className="mx-auto grid w-full max-w-[1680px] flex-1 content-start gap-4 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_452px]">
        <div className="grid min-w-0 grid-cols-1 relative content-start gap-4 overflow-y-auto lg:max-h-[calc(100dvh-190px)]">
          <FindingsCard
            view={view}
            n={n}
            findings={outcome.findings.filter((f) => f.suspect)}
            label="Readings that contradict the others"
            showsSettled
          />
          {isMany ? (
            <ConfirmAll view={view} n={n} settings={confirmed} />
          ) : (
            confirmed.map((setting) =>
              setting.shape === "map" ? (
                <ConfirmMap key={setting.key} view={view} n={n} setting={setting} />
              ) : (
                <ConfirmHeld key={setting.key} view={view} n={n} setting={setting} isOneOfMany={sets.length > 1} />
              ),
            )
          )}
          <WorkingLine share={share} />
          {outcome.status === "open" && share === null && (
            <section className="card p-5">
              <h2 className="text-[17px] font-bold">Nothing to correct yet.</h2>
              <p className="mt-1 text-ink2">{outcome.missing}</p>
              <Link href={stageHref(view, "read", n)} className={buttonClass("plain", "mt-3")}>
                Back to reading
              </Link>
            </section>
          )}
          {outcome.status === "unsolvable" && (
            <section className="card p-5">
              <Notice tone="needs you" headline="No correction can be worked out yet.">
                {outcome.reason}
                {refines && ` ${next.why}`}
              </Notice>
            </section>
          )}
          {tables.map((corrections) => {
            const [only] = corrections;
            if (only?.newValue.shape === "map")
              return (
                <MapCorrection
                  key={only.setting}
                  slug={view.machineSlug}
                  correction={only}
                  before={round.inForce?.[only.setting] ?? null}
                />
              );
            return (
              <CorrectionTable
                key={only?.setting}
                view={view}
                n={n}
                corrections={corrections}
                confirmed={corrections.every((c) => isReadBack(round, view.decisions, c.setting))}
              />
            );
          })}
          {solved?.wishes
            .filter((wish) => wish.choices)
            .map((wish) => (
              <WishCard key={wish.id} trialId={view.id} n={n} wish={wish} />
            ))}
          {forStock && <StockResultCard view={view} n={n} result={forStock} isBehind={share !== null} />}
          {adjusts && <AdjustmentCard view={view} n={n} adjustments={solved.adjustments} />}
          {solved && !solved.complete && <Incomplete view={view} n={n} />}
          <FindingsCard view={view} n={n} findings={outcome.findings.filter((f) => !f.suspect)} label="Findings" />
        </div>
        <div className="grid min-w-0 grid-cols-1 relative content-start gap-4 overflow-y-auto lg:max-h-[calc(100dvh-190px)]">
          {solved?.figures.map((figure) => (
            <section key={figure.id} className="card p-4">
              <FigureView
                figure={figure}
                height={250}
                pictureOf={(burn) => `/api/trials/${view.id}/rounds/${burn}/cells`}
              />
            </section>
          ))}
          {solved && corrects && (
            <Holders
              view={view}
              n={n}
              now={now}
              corrections={solved.corrections}
              isConfirmed={(setting) => isReadBack(round, view.decisions, setting)}
              isMany={isMany}
            />
          )}
          {solved?.wishes
            .filter((wish) => !wish.choices)
            .map((wish) => (
              <WishCard key={wish.id} trialId={view.id} n={n} wish={wish} />
            ))}
          {solved && (
            <BudgetCard
              estimates={solved.estimates}
              length={lengthUnitOf(view)}
              {...(forStock ? { start: forStock.kind === "kerf" ? "kerf" : "short" } : {})}
            />
          )}
          <RecordedCard view={view} n={n} outcome={outcome} />
          {solved?.visible && <VisibleCard view={view} n={n} visible={solved.visible} />}
          {fault && <Fault>{fault}</Fault>}
        </div>
      </main>
      <VerdictLine
        outcome={outcome}
        unit={lengthUnitOf(view)}
        text={
          forStock
            ? keptText(kept)
            : adjusts
              ? doneText(isAdjusted)
              : lineText(recorded.length, places, solved !== null)
        }
      >
        <Onward {...onward} />
      </VerdictLine>
    </>
  );
}

type OnwardProps = {
  next: Next<unknown>;
  round: RoundView;
  /** Something of this burn was recorded, adjusted or kept. */
  isEntered: boolean;
  /** The next burn is laid out already. */
  hasLaidNext: boolean;
  /** There is something to enter, to adjust or to keep. */
  isToEnter: boolean;
  isSolved: boolean;
  busy: boolean;
  onGo: () => void;
};

/** The button for the next burn. */
function Onward({ next, round, isEntered, hasLaidNext, isToEnter, isSolved, busy, onGo }: OnwardProps) {
  const purpose = next.do === "round" ? next.purpose : null;
  const burns = (round.spec?.pieces.length ?? 0) > 0;
  const [refines, tunes, isProof] = [purpose === "refine", purpose === "tune", round.purpose === "proof"];
  return (
    <NextStep isNext={refines || isEntered} className="flex gap-2">
      {refines && !hasLaidNext && (
        <Button weight="primary" onClick={onGo} disabled={busy}>
          Burn another coupon
        </Button>
      )}
      {isToEnter && !refines && !isProof && next.do !== "stop" && (
        <Button weight={isEntered ? "primary" : "plain"} onClick={onGo} disabled={busy}>
          {tunes && !hasLaidNext ? "Burn with these values" : proofWords(hasLaidNext, next.do === "round", burns)}
        </Button>
      )}
      {isSolved && isProof && next.do === "round" && (
        <Button weight={isEntered ? "primary" : "plain"} onClick={onGo} disabled={busy}>
          {tunes ? "Burn with these values" : burns ? "Burn another proof" : "Read another proof"}
        </Button>
      )}
    </NextStep>
  );
}

function proofWords(isLaidOut: boolean, hasRound: boolean, burns: boolean): string {
  if (isLaidOut) return "To the proof";
  if (!hasRound) return "Prove";
  return burns ? "Burn the proof" : "Read the proof";
}

/** Some sites are unread: the numbers stand on fewer readings than were laid out. */
function Incomplete({ view, n }: Omit<StageProps, "now">) {
  const round = view.rounds.find((r) => r.n === n);
  if (!round) return null;
  const { done, total } = sitesDone(round);
  return (
    <section className="card p-5">
      <Notice tone="needs you" headline={`${total - done} of ${total} sites are not read.`}>
        These numbers stand on what is read so far.{" "}
        <Link className="underline" href={stageHref(view, "read", n)}>
          Read on
        </Link>
      </Notice>
    </section>
  );
}

function keptText(kept: boolean): string {
  return kept ? "On the card of its stock." : "Not on the card of its stock yet.";
}

function doneText(adjusted: boolean): string {
  return adjusted ? "Done and noted." : "Not done yet.";
}

function lineText(recorded: number, holders: number, solved: boolean): string {
  if (!solved) return "Nothing to enter yet.";
  if (recorded === 0) return "Nothing recorded yet.";
  const open = holders - recorded;
  return open > 0 ? `Recorded; ${countText(open, "holder")} still open.` : "Recorded everywhere.";
}
