"use client";
import clsx from "clsx";
import { useRouter } from "next/navigation";
import { type ReactNode, useMemo, useState, useTransition } from "react";
import { expandedUncertainty } from "../../../core/metrology/measured";
import { decimalsFor, fixed, inUnit } from "../../../core/metrology/quantity-text";
import { fromInternal, type LengthUnit, UNITS } from "../../../core/metrology/units";
import { lengthUnitOf, shownUnit } from "../../../core/trial/decisions";
import type { Estimate, Outcome } from "../../../core/trial/outcome";
import type { Verdict } from "../../../core/trial/verdict";
import { acceptVerdict, layOutNext } from "../../../server/actions/trial-actions";
import { Ago } from "../../primitives/ago";
import { Button, buttonClass } from "../../primitives/button";
import { HeadRow } from "../../primitives/head-row";
import { Link } from "../../primitives/link";
import { NextStep } from "../../primitives/next-step";
import { Fault } from "../../primitives/notice";
import { BudgetCard } from "../shared/budget-card";
import { FindingList } from "../shared/findings-card";
import { historyOf, procedureOf } from "../shared/known-procedure";
import type { StageProps } from "../shared/stages";
import { stageHref } from "../shared/stages";
import { StockResultCard } from "../shared/stock-result-card";
import { useOutcome } from "../shared/use-outcome";
import { VerdictLine } from "../shared/verdict-line";
import { WorkingLine } from "../shared/working-line";
import { BeforeAfter } from "./before-after";
import { ToleranceForm } from "./tolerance-form";
import { WaysOut } from "./ways-out";

/** The proof: what it is, before and after side by side, and the verdict to accept. */
export function ProveStage({ view, now }: StageProps) {
  const procedure = procedureOf(view);
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [busy, start] = useTransition();
  const last = view.rounds.at(-1);
  const newest = useMemo(() => historyOf(view, last?.n ?? 1), [view, last]);
  const { history, outcome, share } = useOutcome(procedure, newest);
  const next = useMemo(() => procedure.next(history, outcome), [procedure, history, outcome]);
  const verdict = useMemo(() => view.verdict?.result ?? procedure.judge(history), [view.verdict, procedure, history]);
  const proof = view.rounds.findLast((r) => r.purpose === "proof" || r.purpose === "check");
  const another = next.do === "round" && next.purpose === "refine";
  const words = WORDS[proof?.purpose === "check" ? "check" : "proof"];
  const unit = lengthUnitOf(view);
  const worst = verdict ? (forStockKind(outcome) ?? worstEstimate(outcome)) : undefined;

  const act = (
    action: () => Promise<{ ok: boolean; message?: string; value?: unknown }>,
    then: (value: unknown) => void,
  ) =>
    start(async () => {
      setFault("");
      const result = await action().catch(() => null);
      if (result?.ok) then(result.value);
      else setFault(result?.message ?? "The server does not answer. Nothing was changed.");
    });
  const layOut = () =>
    act(
      () => layOutNext({ trialId: view.id }),
      (n) => router.push(stageHref(view, "burn", Number(n))),
    );
  const accept = () =>
    act(
      () => acceptVerdict({ trialId: view.id }),
      () => router.refresh(),
    );

  return (
    <>
      <main className="mx-auto grid w-full max-w-[1680px] flex-1 content-start gap-4 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_452px]">
        <div className="grid min-w-0 grid-cols-1 relative content-start gap-4 overflow-y-auto lg:max-h-[calc(100dvh-190px)]">
          <WorkingLine share={share} />
          {verdict ? (
            <>
              <VerdictCard view={view} n={proof?.n ?? 1} verdict={verdict}>
                {view.endedAt !== null ? (
                  <p className="mt-3">
                    {view.end === "given up" ? "Ended without a proof" : "Accepted"} <Ago at={view.endedAt} now={now} />
                    .{procedure.settings.length > 0 && " The ledger keeps it."}
                  </p>
                ) : (
                  verdict.result !== "proved" &&
                  proof && (
                    <>
                      <WaysOut view={view} n={proof.n} ways={verdict.ways} />
                      <div className="mt-4 flex flex-wrap gap-3">
                        <Link className={buttonClass("plain")} href={stageHref(view, "read", proof.n)}>
                          {words.readMore}
                        </Link>
                        <Link className={buttonClass("plain")} href={stageHref(view, "correct", proof.n)}>
                          {words.correct}
                        </Link>
                      </div>
                    </>
                  )
                )}
              </VerdictCard>
              <Lines verdict={verdict} unit={unit} />
              <section className="card px-5 py-3">
                <ToleranceForm view={view} />
              </section>
            </>
          ) : (
            <section className="card p-6" hidden={share !== null}>
              <h2 className="text-xl font-bold">
                {proof ? words.notRead : another ? "One more burn first." : "One burn to prove it."}
              </h2>
              <p className="mt-2 max-w-prose text-ink2">{next.why}</p>
              {outcome.status === "solved" && !another && (
                <p className="mt-1 max-w-prose text-ink2">{outcome.predicted}</p>
              )}
              <NextStep isNext={share === null} className="mt-4 flex flex-wrap gap-3">
                {!proof && next.do === "round" && (
                  <Button weight="primary" onClick={layOut} disabled={busy}>
                    {another ? "Burn another coupon" : "Burn the proof"}
                  </Button>
                )}
                {!proof && next.do === "read" && (
                  <Link className={buttonClass("primary")} href={stageHref(view, "read", 1)}>
                    Read the coupon first
                  </Link>
                )}
                {proof && (
                  <Link
                    className={buttonClass("primary")}
                    href={stageHref(view, proof.spec ? "read" : "burn", proof.n)}
                  >
                    {proof.spec ? words.read : words.burn}
                  </Link>
                )}
              </NextStep>
            </section>
          )}
        </div>
        <div className="grid min-w-0 grid-cols-1 relative content-start gap-4 overflow-y-auto lg:max-h-[calc(100dvh-190px)]">
          {verdict && proof && outcome.status === "solved" && outcome.forStock && (
            <StockResultCard view={view} n={proof.n} result={outcome.forStock} isBehind={share !== null} />
          )}
          {proof?.spec && <BeforeAfter view={view} proof={proof} />}
          {outcome.status === "solved" && verdict && (
            <BudgetCard estimates={outcome.estimates} length={unit} start={worst} />
          )}
          {fault && <Fault>{fault}</Fault>}
        </div>
      </main>
      <VerdictLine
        outcome={outcome}
        unit={unit}
        text={verdict ? `${verdict.headline}: tolerance ${withTolerance(verdict)}` : next.why}
      >
        {verdict && view.endedAt === null && (
          <NextStep isNext={verdict.result === "proved"}>
            <Button
              weight={verdict.result === "proved" ? "primary" : "plain"}
              onClick={accept}
              disabled={busy || share !== null}
            >
              {verdict.result === "proved" ? words.accept : words.end}
            </Button>
          </NextStep>
        )}
      </VerdictLine>
    </>
  );
}

const WORDS = {
  proof: {
    notRead: "The proof is not read yet.",
    read: "Read the proof",
    burn: "To the proof burn",
    readMore: "Read more at the proof",
    correct: "Correct once more from this burn",
    accept: "Accept: proved",
    end: "End it without a proof",
  },
  check: {
    notRead: "The check is not read yet.",
    read: "Read the check",
    burn: "To the check burn",
    readMore: "Read more at the check",
    correct: "Correct from what was found",
    accept: "Accept: still valid",
    end: "End the check here",
  },
} as const;

/** What is kept of a stock is the answer itself. */
function forStockKind(outcome: Outcome): string | undefined {
  const kind = outcome.status === "solved" ? outcome.forStock?.kind : undefined;
  return kind === "marking" ? "short" : kind;
}

/** The largest result, with its uncertainty added. Its budget is shown first where no single result is the answer. */
function worstEstimate(outcome: Outcome): string | undefined {
  if (outcome.status !== "solved" || outcome.estimates.filter((e) => e.headline).length === 1) return undefined;
  const sized = outcome.estimates.filter((e) => !e.headline);
  const size = (e: Estimate) => Math.abs(e.quantity.value) + expandedUncertainty(e.quantity);
  return sized.length > 0 ? sized.reduce((a, b) => (size(b) > size(a) ? b : a)).id : undefined;
}

function withTolerance(verdict: Verdict): string {
  return inUnit(verdict.tolerance, verdict.unit, 4);
}

type VerdictCardProps = { view: StageProps["view"]; n: number; verdict: Verdict; children: ReactNode };

function VerdictCard({ view, n, verdict, children }: VerdictCardProps) {
  const proved = verdict.result === "proved";
  return (
    <section
      className={clsx("card p-6", proved ? "!border-verdigris !bg-verdigris-tint" : "!border-ember")}
      aria-label="Verdict"
    >
      <h2 className={clsx("text-2xl font-bold", proved ? "text-verdigris" : "text-ember")}>
        {proved ? "✓ " : ""}
        {verdict.headline}
      </h2>
      <p className="mt-1">{verdict.advice}</p>
      {verdict.findings.length > 0 && (
        <div className="mt-3 grid gap-2">
          <FindingList view={view} n={n} findings={verdict.findings} />
        </div>
      )}
      {children}
    </section>
  );
}

const RULING_INK = { proved: "text-verdigris", "not proved": "text-ember", "cannot tell": "text-ochre" } as const;

function Lines({ verdict, unit: length }: { verdict: Verdict; unit: LengthUnit }) {
  const unit = shownUnit(verdict.unit, length);
  return (
    <section className="card px-5 py-3">
      <table className="w-full">
        <HeadRow
          cells={[
            { label: UNITS[unit].symbol },
            { label: "before", align: "right" },
            { label: "after", align: "right" },
            { label: "ruling", align: "right" },
          ]}
        />
        <tbody>
          {verdict.lines.map((line) => {
            const expanded = fromInternal(expandedUncertainty(line.after), unit);
            const decimals = decimalsFor(expanded);
            const shown = (value: number) => fixed(fromInternal(value, unit), decimals);
            return (
              <tr key={line.label} className="num border-t border-hair">
                <th scope="row" className="py-1.5 text-left font-sans font-normal">
                  {line.label}
                </th>
                <td className="py-1.5 text-right">{line.before ? shown(line.before.value) : "–"}</td>
                <td className="py-1.5 text-right whitespace-nowrap">
                  {shown(line.after.value)} ± {fixed(expanded, decimals)}
                </td>
                <td className={clsx("py-1.5 text-right font-sans font-semibold", RULING_INK[line.result])}>
                  {line.result}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
