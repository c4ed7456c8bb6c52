import { isOpen, STATE_WORDS } from "../../core/course/state";
import { countText } from "../../core/metrology/count-text";
import { withUncertainty } from "../../core/metrology/quantity-text";
import type { CheckRow, ProcedureView } from "../../server/screens/procedure-view";
import { FigureView } from "../drawing/figure-view";
import { Ago } from "../primitives/ago";
import { HeadRow } from "../primitives/head-row";
import { Link } from "../primitives/link";
import { Notice } from "../primitives/notice";
import { StateMark } from "../primitives/state-mark";
import { BeginButton } from "../shell/begin-button";
import { TopBar } from "../shell/top-bar";
import { LimitsForm } from "./limits-form";
import { StocksCard } from "./stocks-card";

/** One procedure on one machine: how it stands and why, what to do, its limits and how its checks have drifted. */
export function ProcedureScreen({ view, now }: { view: ProcedureView; now: number }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: `${view.machine}, ${view.title.toLowerCase()}` }]} />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_400px]">
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          <Standing view={view} now={now} />
          {view.state.stocks && <StocksCard view={view} stocks={view.state.stocks} now={now} />}
          <Checks view={view} now={now} />
          <Trials view={view} now={now} />
        </div>
        <div className="grid min-w-0 grid-cols-1 content-start gap-4">
          <LimitsForm view={view} />
          <NeedsCard view={view} />
        </div>
      </main>
    </>
  );
}

const SINCE_WORDS: Record<ProcedureView["state"]["state"], string> = {
  "not done": "",
  open: "begun",
  "to prove": "begun",
  holding: "confirmed",
  "check due": "due",
  drifting: "found",
  stale: "changed",
};

function Standing({ view, now }: { view: ProcedureView; now: number }) {
  const { state, since, reasons, detail, trialId } = view.state;
  const isUnderWay = isOpen(state);
  const stock = view.state.stocks?.[0]?.newest || null;
  return (
    <section className="card flex flex-wrap items-center justify-between gap-4 p-5" aria-label="How it stands">
      <div className="flex items-start gap-4">
        <span className="mt-1">
          <StateMark state={state} size={30} />
        </span>
        <div>
          <h1 className="text-2xl font-bold">
            {view.title}: {STATE_WORDS[state]}
          </h1>
          <p className="text-ink2">
            {view.summary}
            {since !== null && (
              <>
                {" · "}
                {SINCE_WORDS[state]} <Ago at={since} now={now} />
              </>
            )}
          </p>
          {reasons.map((reason) => (
            <p key={reason} className="font-semibold first-letter:uppercase">
              {reason}.
            </p>
          ))}
          {detail && (
            <p className="text-[14px] text-ink2">
              {!isUnderWay && !view.state.stocks && "Residual error "}
              <span className="num">{detail}</span>
            </p>
          )}
        </div>
      </div>
      <div className="flex flex-wrap gap-3">
        {isUnderWay && trialId !== null ? (
          <Link href={`/trial/${trialId}`} className="touch-link font-semibold underline underline-offset-4">
            Continue the trial
          </Link>
        ) : (
          <>
            {state !== "not done" && (
              <BeginButton
                machine={view.machineSlug}
                procedure={view.procedure}
                stock={stock}
                weight={state === "check due" || state === "holding" ? "primary" : "plain"}
                check
              />
            )}
            <BeginButton
              machine={view.machineSlug}
              procedure={view.procedure}
              stock={stock}
              weight={state === "not done" || state === "stale" || state === "drifting" ? "primary" : "plain"}
            />
          </>
        )}
      </div>
    </section>
  );
}

const RESULT_WORDS: Record<CheckRow["result"], string> = {
  proved: "still valid",
  "not proved": "no longer valid",
  "cannot tell": "undecided",
};

function Checks({ view, now }: { view: ProcedureView; now: number }) {
  return (
    <section className="card p-5" aria-label="Checks">
      <h2 className="text-[17px] font-bold">Checks</h2>
      {view.checks.length === 0 ? (
        <p className="mt-1 text-ink2">
          No check yet. A check is a short burn with the present settings. It shows whether the result is still valid.
        </p>
      ) : (
        <>
          {view.signals.map((signal) => (
            <div key={signal} className="mt-2">
              <Notice tone="needs you" headline="The results drift.">
                <span className="first-letter:uppercase">{signal}.</span> Look for worn parts, then measure again.
              </Notice>
            </div>
          ))}
          {view.figures.map((figure) => (
            <div key={figure.id} className="mt-3">
              <FigureView figure={figure} height={figure.id.startsWith("as found") ? 230 : 160} />
            </div>
          ))}
          {view.checksUntilChart > 0 && (
            <p className="mt-1 text-ink2">
              {countText(view.checksUntilChart, "more check", "more checks")}
              {view.state.stocks && " on one stock"} until their limits can be charted: from fewer than ten they would
              mean little.
            </p>
          )}
          <table className="mt-3 w-full">
            <HeadRow
              cells={[
                { label: "Check" },
                { label: "When", className: "max-sm:hidden" },
                { label: `as found, ${view.asFoundLabel}`, align: "right" },
                { label: "Found", className: "pl-4" },
              ]}
            />
            <tbody>
              {view.checks.map((c) => (
                <tr key={c.trialId} className="border-t border-hair">
                  <th scope="row" className="num py-1.5 text-left font-normal">
                    <Link href={`/trial/${c.trialId}/prove`} className="underline decoration-line underline-offset-4">
                      {c.code}
                    </Link>
                    {c.stock && <span className="block font-sans text-[14px] text-ink2">{c.stock}</span>}
                    <span className="block font-sans text-[14px] text-ink2 sm:hidden">
                      <Ago at={c.at} now={now} />
                    </span>
                  </th>
                  <td className="py-1.5 max-sm:hidden">
                    <Ago at={c.at} now={now} />
                  </td>
                  <td className="num py-1.5 text-right">{withUncertainty(c.asFound, c.unit)}</td>
                  <td className="py-1.5 pl-4">{RESULT_WORDS[c.result]}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}

function Trials({ view, now }: { view: ProcedureView; now: number }) {
  if (view.trials.length === 0) return null;
  return (
    <section className="card p-5" aria-label="Trials">
      <h2 className="text-[17px] font-bold">Trials</h2>
      <ul className="mt-1">
        {view.trials.map((t) => (
          <li key={t.id} className="flex flex-wrap justify-between gap-x-4 border-t border-hair py-1.5 first:border-0">
            <span>
              <Link href={`/trial/${t.id}`} className="num underline decoration-line underline-offset-4">
                {t.code}
              </Link>{" "}
              {t.stock && `on ${t.stock}: `}
              {t.words}, begun <Ago at={t.begunAt} now={now} />
            </span>
            {t.residual && (
              <span className="text-[14px] text-ink2">
                residual error <span className="num">{t.residual}</span>
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What it stands on: when that changes, it says so on the bench. */
function NeedsCard({ view }: { view: ProcedureView }) {
  const lists = [
    { title: "It must be measured again when", reasons: view.needs.stale },
    { title: "It is due for a check when", reasons: view.needs.check },
  ].filter((l) => l.reasons.length > 0);
  return (
    <section className="card p-5" aria-label="What it stands on">
      <h2 className="text-[17px] font-bold">What it stands on</h2>
      {lists.map((list) => (
        <div key={list.title} className="mt-2">
          <h3 className="font-semibold">{list.title}</h3>
          <ul className="text-ink2">
            {list.reasons.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        </div>
      ))}
      <p className="mt-3">
        <Link
          href={`/machine/${view.machineSlug}#changes`}
          className="underline decoration-line underline-offset-4 hover:decoration-ink"
        >
          Something happened to {view.machine}?
        </Link>
      </p>
    </section>
  );
}
