"use client";
import clsx from "clsx";
import { useState } from "react";
import type { AskProps } from "./ask-props";
import { TakeRow } from "./take-row";

const HOW = {
  one: "Choose one cell.",
  range: "Choose the first and the last cell.",
  tied: "Choose every cell that is equally good.",
  rank: "Choose cells from best to worst.",
} as const;

/** Cells of the coupon: one, a range, tied ones, or in order. */
export function CellsAsk({ site, busy, fault, question, onTake, onCannot }: AskProps) {
  const [chosen, setChosen] = useState<string[]>([]);
  const { ask } = site;
  if (ask.kind !== "cells") return null;
  const toggle = (id: string) => setChosen((c) => (c.includes(id) ? c.filter((x) => x !== id) : [...c, id]));
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onTake({ kind: "cells", cells: chosen });
      }}
    >
      <p className="mb-2 text-ink2">{HOW[ask.mode]}</p>
      <div className="flex flex-wrap gap-2">
        {ask.cells.map((cell) => (
          <button
            key={cell.id}
            type="button"
            aria-pressed={chosen.includes(cell.id)}
            onClick={() => toggle(cell.id)}
            className={clsx(
              "num min-h-11 min-w-11 rounded-md border px-3",
              chosen.includes(cell.id) ? "border-ink bg-ink text-sheet" : "border-border bg-sheet",
            )}
          >
            {cell.label}
            {ask.mode === "rank" && chosen.includes(cell.id) ? ` ${chosen.indexOf(cell.id) + 1}` : ""}
          </button>
        ))}
      </div>
      <TakeRow fault={fault?.message ?? null} question={question} busy={busy} onCannot={onCannot} />
    </form>
  );
}
