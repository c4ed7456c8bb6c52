"use client";
import clsx from "clsx";
import { type KeyboardEvent, useEffect, useMemo, useRef } from "react";
import { comparisonsOf, nextComparison } from "../../../../core/marking/next-comparison";
import { Button } from "../../../primitives/button";
import { Kbd } from "../../../primitives/kbd";
import { Fault } from "../../../primitives/notice";
import type { AskProps } from "./ask-props";
import { cellLayout } from "./cell-layout";
import { Question } from "./question";

/** Asks for the better of two cells. The next two depend on all comparisons so far. */
export function ComparisonAsk({ site, busy, fault, question, here, onTake, onCannot }: AskProps) {
  const { ask } = site;
  const first = useRef<HTMLButtonElement>(null);
  const count = here.length;
  const cells = ask.kind === "comparison" ? ask.cells : null;
  const pair = useMemo(() => cells && nextComparison(cells, comparisonsOf(cells, here)), [cells, here]);
  // With the focus here the arrow keys answer each comparison.
  // biome-ignore lint/correctness/useExhaustiveDependencies: each comparison brings the next one
  useEffect(() => first.current?.focus(), [count]);
  const [a, b] = (pair ?? []).map((i) => cells?.[i]);
  if (!cells || !a || !b) return null;
  const take = (better: string, worse: string, alike = false) => onTake({ kind: "comparison", better, worse, alike });
  const onKey = (e: KeyboardEvent) => {
    if (busy || !["ArrowLeft", "ArrowRight", "ArrowDown"].includes(e.key)) return;
    e.preventDefault();
    if (e.key === "ArrowRight") take(b.id, a.id);
    else take(a.id, b.id, e.key === "ArrowDown");
  };
  return (
    <fieldset aria-label={site.question} onKeyDown={onKey}>
      <PairMap site={site} shown={[a.id, b.id]} />
      <div className="mt-3 grid grid-cols-[1fr_auto_1fr] gap-2">
        <button ref={first} type="button" className={LARGE} disabled={busy} onClick={() => take(a.id, b.id)}>
          {a.label} is better
        </button>
        <Button className="!min-h-14" disabled={busy} onClick={() => take(a.id, b.id, true)}>
          Alike
        </Button>
        <button type="button" className={LARGE} disabled={busy} onClick={() => take(b.id, a.id)}>
          {b.label} is better
        </button>
      </div>
      {fault && <Fault>{fault.message}</Fault>}
      <Question text={question} />
      <p className="mt-2 text-[16px] text-ink2 max-lg:hidden">
        <Kbd>←</Kbd> <Kbd>→</Kbd> choose the better cell, <Kbd>↓</Kbd> if both look alike
      </p>
      <Button className="mt-2" disabled={busy} onClick={onCannot}>
        cannot read
      </Button>
    </fieldset>
  );
}

const LARGE = "min-h-14 rounded-lg border border-ink bg-sheet px-3 text-[19px] font-semibold hover:bg-paper";

/** Position of both cells on the stock. */
function PairMap({ site, shown }: { site: AskProps["site"]; shown: readonly string[] }) {
  const layout = cellLayout(site);
  if (!layout || site.ask.kind !== "comparison") return null;
  return (
    <div
      aria-hidden="true"
      className="grid max-w-[320px] gap-0.5"
      style={{ gridTemplateColumns: `repeat(${layout.columns}, minmax(0, 1fr))` }}
    >
      {site.ask.cells.map((cell, i) => {
        const isShown = shown.includes(cell.id);
        return (
          <span
            key={cell.id}
            className={clsx(
              "num flex h-6 items-center justify-center border text-[12px]",
              isShown ? "border-ember bg-ember font-semibold text-sheet" : "border-hair bg-paper",
            )}
            style={{ gridColumn: layout.places[i]?.column, gridRow: layout.places[i]?.row }}
          >
            {isShown ? cell.label : ""}
          </span>
        );
      })}
    </div>
  );
}
