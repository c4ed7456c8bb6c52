"use client";
import clsx from "clsx";
import { type KeyboardEvent, useRef, useState } from "react";
import type { Rect } from "../../../../core/geometry/rect";
import { Button } from "../../../primitives/button";
import { Kbd } from "../../../primitives/kbd";
import type { AskProps } from "./ask-props";
import { nextAt, type RangeEnds, withEnd } from "./cell-choice";
import { cellLayout } from "./cell-layout";
import { CellPicture } from "./cell-picture";
import { TakeRow } from "./take-row";

const HOW = {
  one: "Choose one cell.",
  range: "Choose the first and the last cell.",
  tied: "Choose every cell that is equally good.",
  rank: "Choose cells from best to worst.",
} as const;

/** Cells of the coupon: one, a range, tied ones, or in order. */
export function CellsAsk({ site, piece, busy, fault, question, onTake, onCannot }: AskProps) {
  const [chosen, setChosen] = useState<string[]>([]);
  const [ends, setEnds] = useState<RangeEnds>({ first: null, last: null });
  const [atHand, setAtHand] = useState(0);
  const buttons = useRef<(HTMLButtonElement | null)[]>([]);
  const { ask } = site;
  if (ask.kind !== "cells") return null;
  const layout = piece && cellLayout(site);
  const columns = layout?.columns ?? 1;
  // Filled cells all look the same on a drawing.
  const showsLines = site.measurand.kind === "marked" || site.measurand.kind === "sharpest";
  const ids = ask.cells.map((c) => c.id);
  const isRange = ask.mode === "range";
  const picked = isRange ? [...new Set([ends.first, ends.last])].flatMap((i) => ids[i ?? -1] ?? []) : chosen;
  const isWithin = (i: number) => ends.first !== null && ends.last !== null && i > ends.first && i < ends.last;

  function choose(i: number) {
    setAtHand(i);
    const id = ids[i] as string;
    if (isRange) setEnds((e) => withEnd(e, i, e.first === null || e.last !== null ? "anew" : "other"));
    else setChosen((c) => (c.includes(id) ? c.filter((x) => x !== id) : [...c, id]));
  }

  function onKey(e: KeyboardEvent) {
    const to = nextAt(e.key, atHand, ids.length, columns);
    if (to !== null) {
      e.preventDefault();
      setAtHand(to);
      buttons.current[to]?.focus();
    } else if (isRange && (e.key === "f" || e.key === "l")) {
      e.preventDefault();
      setEnds((before) => withEnd(before, atHand, e.key === "f" ? "first" : "last"));
    } else if (e.key === "Enter" && picked.length > 0) {
      e.preventDefault();
      onTake({ kind: "cells", cells: picked });
    }
  }

  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onTake({ kind: "cells", cells: picked });
      }}
    >
      <p className="mb-2 text-ink2">{ask.noneToo ? "Choose all such cells, or None." : HOW[ask.mode]}</p>
      <fieldset
        aria-label={site.question}
        className={layout ? "grid gap-1" : "flex flex-wrap gap-2"}
        style={layout ? { gridTemplateColumns: `repeat(${columns}, minmax(0, 56px))` } : undefined}
        onKeyDown={onKey}
      >
        {ask.cells.map((cell, i) => (
          <button
            key={cell.id}
            ref={(element) => {
              buttons.current[i] = element;
            }}
            type="button"
            tabIndex={i === atHand ? 0 : -1}
            aria-pressed={picked.includes(cell.id)}
            onClick={() => choose(i)}
            onFocus={() => setAtHand(i)}
            className={clsx(
              "num min-h-11 rounded-md border",
              layout ? "px-1 py-1" : "min-w-11 px-3",
              picked.includes(cell.id)
                ? "border-ink bg-ink text-sheet"
                : isWithin(i)
                  ? "border-ink bg-paper"
                  : "border-border bg-sheet",
            )}
            style={layout ? { gridColumn: layout.places[i]?.column, gridRow: layout.places[i]?.row } : undefined}
          >
            {layout && showsLines && <CellPicture piece={piece} area={layout.places[i]?.area as Rect} />}
            {cell.label}
            {ask.mode === "rank" && chosen.includes(cell.id) ? ` ${chosen.indexOf(cell.id) + 1}` : ""}
          </button>
        ))}
      </fieldset>
      <p className="mt-2 text-[16px] text-ink2 max-lg:hidden">
        <Kbd>{columns > 1 ? "← → ↑ ↓" : "← →"}</Kbd> move,{" "}
        {isRange ? (
          <>
            <Kbd>F</Kbd> marks the first, <Kbd>L</Kbd> the last,{" "}
          </>
        ) : (
          <>
            <Kbd>Space</Kbd> selects,{" "}
          </>
        )}
        <Kbd>Enter</Kbd> takes
      </p>
      <TakeRow fault={fault?.message ?? null} question={question} busy={busy} onCannot={onCannot}>
        {ask.noneToo && (
          <Button disabled={busy} onClick={() => onTake({ kind: "cells", cells: [] })}>
            None
          </Button>
        )}
      </TakeRow>
    </form>
  );
}
