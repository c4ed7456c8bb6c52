"use client";
import { useDeferredValue, useMemo, useState } from "react";
import { PICTURE_READER } from "../../../core/metrology/gauge";
import type { LengthUnit } from "../../../core/metrology/units";
import { sitesLeft } from "../../../core/trial/answer";
import { fromEditedFile, lengthUnit, lengthUnitOf, nextLengthUnit } from "../../../core/trial/decisions";
import { decide } from "../../../server/actions/trial-actions";
import type { TakenReading } from "../../../server/trial/trial-view";
import { CouponDrawing } from "../../drawing/coupon-drawing";
import { LoneDetail } from "../../drawing/detail-view";
import { FigureView } from "../../drawing/figure-view";
import { buttonClass } from "../../primitives/button";
import { Link } from "../../primitives/link";
import { NextStep } from "../../primitives/next-step";
import { Notice } from "../../primitives/notice";
import { BudgetCard } from "../shared/budget-card";
import { historyOf, procedureOf } from "../shared/known-procedure";
import { isKnown } from "../shared/known-stamp";
import { ResultTableCard } from "../shared/result-table-card";
import type { StageProps } from "../shared/stages";
import { stageHref } from "../shared/stages";
import { titleBlock } from "../shared/title-block";
import { useFresh } from "../shared/use-fresh";
import { useOutcome } from "../shared/use-outcome";
import { VerdictLine } from "../shared/verdict-line";
import { WorkingLine } from "../shared/working-line";
import { PictureCard } from "./picture-card";
import { ReadKeys } from "./read-keys";
import { ReadingCard } from "./reading-card";
import { SessionCard } from "./session-card";
import { SessionLine } from "./session-line";
import { SheetCard } from "./sheet-card";
import { useReadKeys } from "./use-read-keys";
import { useReadingFlow } from "./use-reading-flow";
import { useReadings } from "./use-readings";

/** After so long a new sitting is asked for, with the zero of the jaws looked at anew. */
const SITTING_LASTS_MS = 12 * 3_600_000;

const NO_READINGS: readonly TakenReading[] = [];

/** One site at a time: type and Enter moves on; the result builds up beside it. */
export function ReadStage({
  view,
  n,
  site: wanted,
  gauge,
  now,
}: StageProps & { site: string | null; gauge: string | null }) {
  const procedure = procedureOf(view);
  const round = view.rounds.find((r) => r.n === n);
  const spec = round?.spec;
  const sites = spec?.sites ?? [];
  // The picture reader is no gauge for the hand: the user goes on with the gauge of the last session by hand.
  const session = round?.sessions.findLast((s) => s.gauge.id !== PICTURE_READER);
  const store = useReadings({ trialId: view.id, n, initial: round?.readings ?? NO_READINGS, sites, session });
  useFresh(view.id, (stamp) => isKnown(stamp, view, n, store.onDisk));
  const [chosenUnit, chooseUnit] = useState<LengthUnit | null>(null);
  // Until one is chosen here, the unit of the sitting's gauge: a new sitting may bring another.
  const unit = chosenUnit ?? lengthUnitOf(view);
  const decided = useMemo(() => ({ ...view, decisions: { ...view.decisions, [lengthUnit.key]: unit } }), [view, unit]);
  const [firstOpen] = sitesLeft(
    sites,
    store.readings.map((r) => r.answer),
  );
  const flow = useReadingFlow({
    name: `${view.id} ${n}`,
    sites,
    start: wanted ?? firstOpen?.id ?? sites[0]?.id ?? "",
    store,
    sitting: session,
    procedure,
    historyOf: (readings: readonly TakenReading[]) => historyOf(decided, n, readings),
  });
  const isOld = session !== undefined && now - session.begunAt > SITTING_LASTS_MS && firstOpen !== undefined;
  // Another sitting is asked for after this one: once the new one is here, reading goes on by itself.
  const [askedAfter, askAfter] = useState(
    session && (isOld || (gauge !== null && gauge !== session.gauge.id)) ? session.id : null,
  );
  const sitting = session && session.id !== askedAfter ? session : undefined;

  // Typing changes neither: only a reading that is taken is worked out, and that after it is shown.
  const history = useMemo(() => historyOf(decided, n, store.readings), [decided, n, store.readings]);
  const settled = useDeferredValue(history);
  const { outcome, share } = useOutcome(procedure, settled);

  function changeUnit() {
    const next = nextLengthUnit(unit);
    chooseUnit(next);
    // Only how lengths are shown: if it is not kept, nothing is lost.
    decide({ trialId: view.id, decisions: [lengthUnit.as(next)] }).catch(() => undefined);
  }

  useReadKeys({
    active: sitting !== undefined,
    type: (characters) => flow.handle.current?.type(characters),
    submit: () => flow.handle.current?.submit(),
    actions: new Map<string, () => unknown>([
      ["KeyP", () => flow.step(-1)],
      ["KeyN", () => flow.step(1)],
      ["KeyR", flow.repeat],
      ["KeyU", changeUnit],
      ["KeyX", flow.cannot],
      ["KeyZ", flow.takeBack],
      ["Digit1", () => flow.handle.current?.choose("positive")],
      ["Digit2", () => flow.handle.current?.choose("negative")],
    ]),
  });

  const { site } = flow;
  if (!round || !spec || !site) return <p className="flex-1 p-10 text-ink2">This round asks for no reading.</p>;
  const done = sites.length - sitesLeft(sites, flow.answers).length;
  const detail = procedure.detail(history, { site: site.id, typed: flow.typed });
  const finished = done === sites.length;
  const needsYou = outcome.findings.filter((f) => f.tone === "needs you");

  return (
    <>
      <main className="mx-auto grid w-full text-[16px] max-w-[1680px] flex-1 gap-5 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_470px]">
        <section className="card min-h-[420px] max-lg:hidden lg:max-h-[calc(100dvh-190px)]" aria-label="Drawing">
          {!spec.pieces[0] && detail && <LoneDetail detail={detail} />}
          {spec.pieces[0] && (
            <CouponDrawing
              piece={spec.pieces[0]}
              overlay={procedure.overlay(history)}
              site={site}
              detail={detail}
              titleBlock={titleBlock(view, procedure.title, round.couponCode, spec.delivery)}
            />
          )}
        </section>
        <div className="grid min-w-0 grid-cols-1 relative content-start gap-3 overflow-y-auto lg:max-h-[calc(100dvh-190px)]">
          {sitting ? (
            <ReadingCard
              view={decided}
              round={round}
              session={sitting}
              site={site}
              sites={sites}
              detail={detail}
              unit={unit}
              flow={flow}
              store={store}
              onUnit={changeUnit}
            />
          ) : (
            <SessionCard
              view={view}
              n={n}
              note={
                session && isOld
                  ? "The last sitting was another day: look at the closed jaws again before going on."
                  : ""
              }
              start={gauge}
              onBack={session ? () => askAfter(null) : undefined}
            />
          )}
          <WorkingLine share={share} />
          {fromEditedFile(n).of(view.decisions) && (
            <Notice tone="note" headline="Burned from an edited file.">
              The results belong to the edited file, not to this layout.
            </Notice>
          )}
          {outcome.table && <ResultTableCard table={outcome.table} current={site.id} onSite={flow.goTo} />}
          {needsYou.length > 0 && (
            <section className="card grid gap-2 p-4" aria-label="Findings">
              {needsYou.map((f) => (
                <Notice key={f.id} tone={f.tone} headline={f.headline}>
                  {f.text}
                </Notice>
              ))}
            </section>
          )}
          {outcome.status === "solved" &&
            outcome.figures.map((figure) => (
              <section key={figure.id} className="card p-4">
                <FigureView figure={figure} pictureOf={(burn) => `/api/trials/${view.id}/rounds/${burn}/cells`} />
              </section>
            ))}
          {outcome.status === "solved" && <BudgetCard estimates={outcome.estimates} length={unit} />}
          {/* What goes around a part is in no flat picture. */}
          {view.endedAt === null && !round.spec?.turned && (
            <PictureCard trialId={view.id} n={n} sites={sites} onPractice={round.onPractice} />
          )}
          <SheetCard
            trialId={view.id}
            n={n}
            canTake={session !== undefined && view.endedAt === null}
            solved={outcome.status === "solved"}
            onTaken={() => flow.moved("taken from the sheet")}
          />
          {sitting && <SessionLine session={sitting} now={now} onNew={() => askAfter(sitting.id)} />}
          {session && <ReadKeys ask={site.ask} practice={round.onPractice} />}
        </div>
      </main>
      <VerdictLine
        outcome={outcome}
        unit={unit}
        text={
          outcome.status === "open"
            ? outcome.missing
            : outcome.status === "unsolvable"
              ? outcome.reason
              : `${done} of ${sites.length} sites read.`
        }
      >
        <Next
          view={view}
          n={n}
          judged={round.purpose === "proof" || round.purpose === "check"}
          finished={finished}
          ready={outcome.status !== "open" && store.waiting === 0}
        />
      </VerdictLine>
    </>
  );
}

type NextProps = { view: StageProps["view"]; n: number; judged: boolean; finished: boolean; ready: boolean };

function Next({ view, n, judged, finished, ready }: NextProps) {
  const href = judged ? `/trial/${view.id}/prove` : stageHref(view, "correct", n);
  const label = judged
    ? finished
      ? "See the verdict"
      : "Skip to the verdict"
    : finished
      ? "Correct"
      : "Skip to Correct";
  return ready ? (
    <NextStep isNext={finished}>
      <Link href={href} className={buttonClass(finished ? "primary" : "plain")}>
        {label}
      </Link>
    </NextStep>
  ) : null;
}
