"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { STATE_WORDS } from "../../core/course/state";
import type { LengthUnit } from "../../core/metrology/units";
import { END_WORDS } from "../../core/trial/trial-end";
import { setOffCard } from "../../server/actions/stock-actions";
import type { ResultView } from "../../server/stock/stock-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { Link } from "../primitives/link";
import { Fault } from "../primitives/notice";
import { useAction } from "../primitives/use-action";
import { ResultBody } from "./result-body";

/** What was kept of it, newest first: each holds for its batch, its machine and its conditions alone. */
export function ResultsCard({ results, unit, now }: { results: readonly ResultView[]; unit: LengthUnit; now: number }) {
  if (results.length === 0)
    return (
      <section className="card p-5" aria-label="Kept of it">
        <h2 className="text-[17px] font-bold">Kerf and marking settings</h2>
        <p className="mt-1 text-ink2">
          Nothing is stored yet. Measure the kerf, or burn a test array. The result is stored here with its conditions.
        </p>
      </section>
    );
  return (
    <>
      {results.map((r) => (
        <Result key={r.id} kept={r} unit={unit} now={now} />
      ))}
    </>
  );
}

function Result({ kept, unit, now }: { kept: ResultView; unit: LengthUnit; now: number }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const { trial, result } = kept;
  const title = `${resultName(result)} on ${kept.machine ?? "another machine"}`;
  const takeOff = (off: boolean) =>
    run(
      () => setOffCard({ id: kept.id, off }),
      () => {
        if (off) toast("Off the card.", { action: { label: "Put it back", onClick: () => takeOff(false) } });
        router.refresh();
      },
    );
  return (
    <section className="card p-5" aria-label={`${title}, batch ${kept.batch}`}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-[17px] font-bold">{title}</h2>
        <p className="text-[14px] text-ink2">
          kept <Ago at={kept.keptAt} now={now} />
          {trial && (
            <>
              , trial{" "}
              <Link href={`/trial/${trial.id}`} className="num underline underline-offset-4">
                {trial.code}
              </Link>
              : {trial.end === null ? "not proved yet" : END_WORDS[trial.end]}
            </>
          )}
          {kept.note && `, ${kept.note}`}
        </p>
      </div>
      <Standing kept={kept} />
      <div className="flex items-start gap-5 max-sm:flex-col-reverse max-sm:gap-2">
        <div className="w-full min-w-0 flex-1">
          <ResultBody result={result} unit={unit} />
        </div>
        {kept.pictured && <CellPicture kept={kept} />}
      </div>
      <p className="no-print mt-2 flex flex-wrap gap-4">
        {result.kind === "marking" && (
          <Link href={`/stock/marking?like=${kept.id}`} className="underline underline-offset-4">
            Similar marking settings
          </Link>
        )}
        <Button weight="quiet" disabled={busy} onClick={() => takeOff(true)}>
          Take it off the card
        </Button>
      </p>
      {fault.message && <Fault>{fault.message}</Fault>}
    </section>
  );
}

/** Picture of the chosen cell, if a picture of its array exists. */
function CellPicture({ kept }: { kept: ResultView }) {
  const [isMissing, setIsMissing] = useState(false);
  if (isMissing) return null;
  return (
    // biome-ignore lint/performance/noImgElement: it comes from this server as small as it is shown
    <img
      src={`/api/stock/cells/${kept.id}`}
      alt={`The chosen cell of ${resultName(kept.result).toLowerCase()}`}
      className="mt-2 size-28 rounded border border-hair object-cover"
      onError={() => setIsMissing(true)}
    />
  );
}

/** `Kerf`, or the purpose of marking settings. */
export function resultName({ kind, purpose }: ResultView["result"]): string {
  return kind === "kerf" ? "Kerf" : (purpose ?? "Marking settings");
}

/** States in which it is to be looked at before it is used. */
export const DUE = ["stale", "drifting", "check due"];

/** Whether it may still be used: by its batch, and by what happened to its machine since. */
function Standing({ kept: { standing, isOldBatch, batch } }: { kept: ResultView }) {
  if (standing && DUE.includes(standing.state))
    return (
      <p className="mt-1 text-ochre">
        <span className="first-letter:uppercase">{STATE_WORDS[standing.state]}</span>: {standing.reasons.join("; ")}.
      </p>
    );
  return isOldBatch ? <p className="mt-1 text-ink2">Told by batch {batch}.</p> : null;
}
