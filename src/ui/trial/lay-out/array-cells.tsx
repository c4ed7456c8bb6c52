"use client";
import clsx from "clsx";
import { type KeyboardEvent, type ReactNode, useRef } from "react";
import type { EdgeCell } from "../../../core/trial/edges";

type Props = {
  cells: readonly EdgeCell[];
  /** Values from front to back, as many as rows. */
  rows: number;
  /** What stands before a row. */
  before: (row: number) => ReactNode;
  at: string | null;
  onPoint: (id: string) => void;
};

const BY_KEY: Partial<Record<string, readonly [columns: number, rows: number]>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** The cells row by row, the back one on top, each as dark as its energy. Arrow keys go from cell to cell. */
export function ArrayCells({ cells, rows, before, at, onPoint }: Props) {
  const grid = useRef<HTMLDivElement>(null);
  const inRow = (row: number) =>
    cells.filter((c) => c.row === row).sort((a, b) => a.block - b.block || a.column - b.column);
  const onKey = (e: KeyboardEvent, cell: EdgeCell) => {
    const by = BY_KEY[e.key];
    if (!by) return;
    const next = inRow(cell.row + by[1])[inRow(cell.row).indexOf(cell) + by[0]];
    const button = next && grid.current?.querySelector(`[data-cell="${next.id}"]`);
    if (!(button instanceof HTMLElement)) return;
    e.preventDefault();
    button.focus();
  };
  return (
    <div ref={grid} className="grid min-w-0 flex-1 gap-1">
      {Array.from({ length: rows }, (_, i) => rows - 1 - i).map((row) => (
        <div key={row} className="grid grid-cols-[64px_minmax(0,1fr)] items-center gap-2">
          {before(row)}
          <div
            className="grid gap-1"
            style={{ gridTemplateColumns: `repeat(${Math.max(1, inRow(row).length)}, minmax(0, 1fr))` }}
          >
            {inRow(row).map((cell) => (
              <button
                key={cell.id}
                type="button"
                data-cell={cell.id}
                tabIndex={cell.id === at ? 0 : -1}
                aria-label={`Cell ${cell.name}: ${cell.lines.join(", ")}`}
                className={clsx(
                  "h-10 w-full border max-sm:h-7",
                  BORDERS[cell.state],
                  cell.id === at && "outline-2 outline-ember",
                )}
                style={{ backgroundColor: shadeOf(cell) }}
                onPointerEnter={() => onPoint(cell.id)}
                onFocus={() => onPoint(cell.id)}
                onKeyDown={(e) => onKey(e, cell)}
              />
            ))}
          </div>
        </div>
      ))}
    </div>
  );
}

const BORDERS: Record<EdgeCell["state"], string> = {
  burned: "border-ink3",
  apart: "border-dotted border-ember",
  "left out": "border-dashed border-ink3",
};

/** The weakest and the strongest cell, percent of ink. */
const [PALE, DARK] = [8, 80];

function shadeOf({ state, strength }: EdgeCell): string | undefined {
  if (state === "left out") return undefined;
  return `color-mix(in srgb, var(--color-ink) ${Math.round(PALE + (DARK - PALE) * strength)}%, transparent)`;
}
