"use client";
import type { Site } from "../../../core/coupon/site";
import type { Detail } from "../../../core/drawing/scene";
import type { LengthUnit } from "../../../core/metrology/units";
import { type Answer, sitesLeft, valuesAt } from "../../../core/trial/answer";
import type { RoundView, Session, TrialView } from "../../../server/trial/trial-view";
import { DetailCard } from "../../drawing/detail-view";
import { Button } from "../../primitives/button";
import { Notice } from "../../primitives/notice";
import { WaitingNote } from "../../waiting/waiting-note";
import { AskForm } from "./ask/ask-form";
import { PracticeReader } from "./practice-reader";
import { SiteHead } from "./site-head";
import type { ReadingFlow } from "./use-reading-flow";
import type { useReadings } from "./use-readings";

type Props = {
  view: TrialView;
  round: RoundView;
  session: Session;
  site: Site;
  sites: readonly Site[];
  detail: Detail | null;
  unit: LengthUnit;
  flow: ReadingFlow;
  store: ReturnType<typeof useReadings>;
  onUnit: () => void;
};

/** On a phone: the close-up gives way to the note on what waits, so that the keys stay under the thumb. */
const [HIGH_PX, LOW_PX] = [154, 84];

/** The one site in hand: its question, the field, and what the practice piece or another sitting offers. */
export function ReadingCard(props: Props) {
  const { view, round, session, site, sites, detail, unit, flow, store } = props;
  const { readings } = store;
  const here = readings.filter((r) => r.site === site.id);
  const words = wordsBefore(site, sites, readings);
  return (
    <section className="card p-5 max-lg:border-0 max-lg:bg-transparent max-lg:p-0" aria-label="Reading">
      <TopRow flow={flow} />
      {/* Keys of cells are drawn themselves. */}
      {detail && site.ask.kind !== "cells" && site.ask.kind !== "comparison" && (
        <div className="card mb-2 overflow-hidden lg:hidden">
          <DetailCard detail={detail} height={store.waiting > 0 ? LOW_PX : HIGH_PX} />
        </div>
      )}
      <SiteHead site={site} index={sites.indexOf(site)} total={sites.length} taken={here.length} />
      <WaitingNote store={store} />
      {flow.missed && (
        <div className="mb-3">
          <Notice tone="needs you" headline={`Typed meanwhile and not taken: ${flow.missed}.`}>
            Put this one right first, then type them again.
          </Notice>
        </div>
      )}
      <AskForm
        // Not by the number of readings: what is half typed stays when another window takes one.
        key={`${site.id} ${flow.fills}`}
        handle={flow.handle}
        site={site}
        piece={round.spec?.pieces.find((p) => !site.place || p.id === site.place.piece) ?? null}
        unit={unit}
        sitting={session}
        start={{ text: "", words }}
        isFinished={sitesLeft(sites, flow.answers).length === 0}
        busy={flow.busy}
        fault={flow.fault}
        question={flow.question}
        here={valuesAt(
          readings.map((r) => r.answer),
          site.id,
        )}
        onTake={flow.takeHere}
        onTyped={flow.typing}
        onText={flow.kept.keep}
        onUnit={props.onUnit}
        onCannot={flow.cannot}
      />
      {round.onPractice && (
        <PracticeReader
          view={view}
          n={round.n}
          site={site}
          sites={sites}
          readings={readings}
          sitting={session}
          onRead={(text, words) => flow.handle.current?.fill(text, words)}
          onTakeHere={(input) => flow.takeHere(input, "practice")}
          onTake={store.take}
          onDone={(count) => flow.moved(`taken: ${count} readings from the practice piece`)}
        />
      )}
      <p aria-live="polite" className="sr-only">
        {flow.said}
      </p>
    </section>
  );
}

/** Words that choose a sign stay with the sign of the last reading that answered the same question: at the other end other rows stand out. */
function wordsBefore(
  site: Site,
  sites: readonly Site[],
  readings: readonly { site: string; answer: Answer }[],
): "positive" | "negative" | null {
  const asked = signQuestion(site);
  if (asked === null) return null;
  const alike = new Set(sites.filter((s) => signQuestion(s) === asked).map((s) => s.id));
  const signed = readings.flatMap(({ site: id, answer: { content } }) => {
    if (!alike.has(id) || content.status !== "read" || content.value.kind !== "quantity") return [];
    return content.value.value === 0 ? [] : [content.value.value];
  });
  const last = signed.at(-1);
  return last === undefined ? null : last > 0 ? "positive" : "negative";
}

function signQuestion({ ask }: Site): string | null {
  return ask.kind === "quantity" && ask.signedBy ? ask.signedBy.question : null;
}

/** On a phone: back, the same place again, undo, and what was taken. */
function TopRow({ flow }: { flow: ReadingFlow }) {
  const moves = [
    { label: "‹ back", act: () => flow.step(-1) },
    { label: "repeat", act: flow.repeat },
    { label: "undo", act: flow.takeBack },
  ];
  return (
    <div className="mb-3 flex items-center gap-2 lg:hidden">
      {moves.map((m) => (
        <Button key={m.label} weight="small" className="!min-h-11 !text-[16px]" onClick={m.act}>
          {m.label}
        </Button>
      ))}
      <span className="num ml-auto text-[16px] text-ink2">{flow.said}</span>
    </div>
  );
}
