"use client";
import clsx from "clsx";
import { countText } from "../../core/metrology/count-text";
import { fixed } from "../../core/metrology/quantity-text";
import { Button } from "../primitives/button";
import { dotName } from "./grid-overlay";
import type { GridReading } from "./use-grid-reading";

type Props = { reading: GridReading; selected: number | null; onSelect: (index: number) => void };

/** Number of dots in the list. */
const LISTED = 8;

/** Number of dots, the dots farthest from a smooth map, and the actions for the selected dot. */
export function GridResults({ reading, selected, onSelect }: Props) {
  const { state, dots, scale, across } = reading;
  const { grid } = state;
  if (!grid) return null;
  const perPx = scale && !reading.isPhoto ? 1000 / scale.xPixelsPerMm : null;
  const size = (px: number) => (perPx === null ? `${fixed(px, 2)} px` : `${fixed(perPx * px, 1)} µm`);
  const worst = [...dots].sort((a, b) => b.residualPx - a.residualPx).slice(0, LISTED);
  const inHand = dots.find((d) => d.index === selected);
  const shown = inHand && !worst.includes(inHand) ? [inHand, ...worst] : worst;
  return (
    <section className="card p-5" aria-label="What the picture shows">
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[17px] font-bold">
          {countText(grid.dots.length, "dot")} of {across * across}
        </h2>
        {reading.isEdited && (
          <Button weight="quiet" onClick={reading.putBack}>
            Undo all changes
          </Button>
        )}
      </div>
      <p className="text-[14px] text-ink2">
        {[
          `scatter ${size(grid.scatterPx)}`,
          ...(grid.missing.length > 0 ? [`${grid.missing.length} missing`] : []),
          ...(grid.strays.length > 0 ? [`${countText(grid.strays.length, "other spot")} not used`] : []),
        ].join(" · ")}
      </p>
      <h3 className="mt-3 text-[14px] font-semibold">Farthest from a smooth map</h3>
      <ul>
        {shown.map((dot) => (
          <li key={dot.index} className="border-t border-hair first:border-0">
            <button
              type="button"
              className={clsx(
                "flex min-h-9 w-full items-baseline justify-between gap-3 rounded-md px-2 py-1 text-left hover:bg-paper",
                dot.index === selected && "bg-paper",
              )}
              aria-pressed={dot.index === selected}
              onClick={() => onSelect(dot.index)}
            >
              <span>
                {dotName(dot.index, across)}
                {dot.isLeftOut && <span className="text-[14px] text-ember"> · left out</span>}
                {dot.isMoved && <span className="text-[14px] text-ember"> · moved</span>}
              </span>
              <span className="num">{size(dot.residualPx)}</span>
            </button>
            {dot.index === selected && (
              <p className="flex flex-wrap gap-2 px-2 pb-2">
                <Button weight="small" onClick={() => reading.leaveOut(dot.index, !dot.isLeftOut)}>
                  {dot.isLeftOut ? "Use this dot" : "Leave this dot out"}
                </Button>
                <Button weight="small" onClick={() => reading.markDirt({ x: dot.x, y: dot.y })}>
                  Mark as dirt
                </Button>
              </p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
