"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { countText } from "../../core/metrology/count-text";
import { plain } from "../../core/metrology/quantity-text";
import { END_WORDS } from "../../core/trial/trial-end";
import { beginBatch, setStockArchived, takeBackBatch } from "../../server/actions/stock-actions";
import type { BatchView, StockTrial, StockView } from "../../server/stock/stock-view";
import { Ago } from "../primitives/ago";
import { Button, buttonClass } from "../primitives/button";
import { Link } from "../primitives/link";
import { Fault } from "../primitives/notice";
import { OneLineForm } from "../primitives/one-line-form";
import { useAction } from "../primitives/use-action";
import { PrintButton } from "../run-sheet/print-button";
import { BeginButton } from "../shell/begin-button";
import { TopBar } from "../shell/top-bar";
import { useShell } from "../shell/use-shell";
import { FitCard } from "./fit-card";
import { ResultsCard } from "./results-card";
import { StockForm } from "./stock-form";
import { ThicknessCard } from "./thickness-card";
import { thicknessText } from "./thickness-text";

/** The card of one stock. */
export function StockCardScreen({ view, now }: { view: StockView; now: number }) {
  const { unit } = useShell();
  const [newest, ...older] = view.batches;
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Stock", href: "/stock" }, { label: view.spec.name }]} />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_420px]">
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          <Head view={view} />
          {newest && <ThicknessCard slug={view.slug} batch={newest} gauges={view.gauges} unit={unit} />}
          <ResultsCard results={view.results} unit={unit} now={now} />
        </div>
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          <FitCard
            slug={view.slug}
            thickness={newest?.thickness ?? null}
            results={view.results}
            gauges={view.gauges}
            unit={unit}
          />
          <section className="card no-print p-5" aria-label="Artwork">
            <h2 className="text-[17px] font-bold">Artwork for this stock</h2>
            <p className="mt-1 text-ink2">
              Outer contours grow and holes shrink by the offset per side, so that what falls out is as it was drawn.
            </p>
            <p className="mt-2">
              <Link href={`/stock/${view.slug}/artwork`} className={buttonClass("plain")}>
                Adapt a drawing
              </Link>
            </p>
          </section>
          <Trials trials={view.trials} now={now} />
          <Batches view={view} older={older} now={now} />
        </div>
      </main>
    </>
  );
}

function Head({ view }: { view: StockView }) {
  const router = useRouter();
  const [changing, setChanging] = useState(false);
  const { busy, fault, run } = useAction();
  const [newest] = view.batches;
  if (changing) return <StockForm stock={view} onDone={() => setChanging(false)} />;
  return (
    <section className="card p-5" aria-label="Card">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h1 className="text-2xl font-bold">
            {view.spec.name}
            {view.archived && <span className="ml-2 text-[14px] font-normal text-ink2">put away</span>}
          </h1>
          <p className="text-ink2">
            sold as {view.spec.nominalMm} mm
            {view.spec.mostJPerMm2 !== undefined && `, charring limit ${plain(view.spec.mostJPerMm2)} J/mm²`}
            {newest && `, batch ${newest.label}`}
          </p>
          {view.spec.note && <p className="mt-1 whitespace-pre-line">{view.spec.note}</p>}
        </div>
        <div className="no-print flex flex-wrap gap-2">
          <PrintButton weight="small" />
          <Button weight="small" onClick={() => setChanging(true)}>
            Change
          </Button>
          <Button
            weight="small"
            disabled={busy}
            onClick={() =>
              run(
                () => setStockArchived({ slug: view.slug, archived: !view.archived }),
                () => router.refresh(),
              )
            }
          >
            {view.archived ? "Bring back" : "Put away"}
          </Button>
        </div>
      </div>
      {newest && !view.archived && (
        <div className="no-print mt-3 grid gap-2">
          {view.offered.map(({ procedure, title, machines }) => (
            <p key={procedure} className="flex flex-wrap items-center gap-2">
              <span aria-hidden="true" className="min-w-28 text-ink2">
                {title} on
              </span>
              {machines.map((m) => (
                <BeginButton
                  key={m.slug}
                  machine={m.slug}
                  procedure={procedure}
                  stock={newest.key}
                  label={
                    <>
                      <span className="sr-only">{title} on </span>
                      {m.name}
                    </>
                  }
                  weight="small"
                />
              ))}
            </p>
          ))}
        </div>
      )}
      {fault.message && <Fault>{fault.message}</Fault>}
    </section>
  );
}

function Trials({ trials, now }: { trials: readonly StockTrial[]; now: number }) {
  if (trials.length === 0) return null;
  return (
    <section className="card p-5" aria-label="Trials">
      <h2 className="text-[17px] font-bold">Trials on it</h2>
      <ul className="mt-1">
        {trials.map((t) => (
          <li key={t.id} className="border-t border-hair py-1.5 first:border-0">
            <Link href={`/trial/${t.id}`} className="num underline decoration-line underline-offset-4">
              {t.code}
            </Link>{" "}
            {t.title.toLowerCase()} on {t.machine}, batch {t.batch}: {t.end === null ? "open" : END_WORDS[t.end]}, begun{" "}
            <Ago at={t.begunAt} now={now} />
            {t.pictures > 0 && (
              <>
                {" · "}
                <Link href={`/trial/${t.id}/picture`} className="underline decoration-line underline-offset-4">
                  {countText(t.pictures, "picture")}
                </Link>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Batches({ view, older, now }: { view: StockView; older: readonly BatchView[]; now: number }) {
  const router = useRouter();
  const { unit } = useShell();
  const { busy, fault, run } = useAction();
  return (
    <section className="card p-5" aria-label="Batches">
      <h2 className="text-[17px] font-bold">Batches</h2>
      <ul>
        {view.batches.map((b) => (
          <li key={b.id} className="flex flex-wrap justify-between gap-x-3 border-t border-hair py-1.5 first:border-0">
            <span>
              {b.label}
              <span className="text-ink2">
                , begun <Ago at={b.begunAt} now={now} />
              </span>
            </span>
            {!older.includes(b) && older.length > 0 && b.readings.length === 0 && (
              <Button
                weight="quiet"
                className="no-print"
                disabled={busy}
                onClick={() =>
                  run(
                    () => takeBackBatch({ slug: view.slug, batchId: b.id }),
                    () => router.refresh(),
                  )
                }
              >
                Begun by mistake<span className="sr-only">: take batch {b.label} back</span>
              </Button>
            )}
            {older.includes(b) && b.thickness && (
              <span className="num text-[14px] text-ink2">{thicknessText(b.thickness, unit)}</span>
            )}
          </li>
        ))}
      </ul>
      {fault.message && <Fault>{fault.message}</Fault>}
      <div className="no-print mt-2">
        <OneLineForm
          name="New batch"
          label="A new batch came"
          button="Begin it"
          keptAs={`batch ${view.slug}`}
          send={(label) => beginBatch({ slug: view.slug, label })}
          onSent={() => {
            toast("A new batch is begun.");
            router.refresh();
          }}
        />
        <p className="mt-1 text-[14px] text-ink2">What was measured on the one before is due for a check then.</p>
      </div>
    </section>
  );
}
