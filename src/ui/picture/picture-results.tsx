"use client";
import clsx from "clsx";
import type { Site } from "../../core/coupon/site";
import { coverageFactor } from "../../core/fitting/student-t";
import type { Affine } from "../../core/geometry/affine";
import { shownNumber } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { SiteRead } from "../../core/picture/read-picture";
import { Button } from "../primitives/button";
import type { ShownReading } from "./shifts";

export type ResultRow = {
  site: Site;
  read: SiteRead;
  /** Where the coupon lies there; `null` where it was not found. */
  pose: Affine | null;
  shown: ShownReading | null;
  /** What was read there by hand, mm, where the picture contradicts it. */
  byHand: number | null;
};

type Props = {
  rows: readonly ResultRow[];
  unit: LengthUnit;
  selected: string;
  onSelect: (site: string) => void;
  onPutBack: (site: string) => void;
};

/** What the picture shows at each place; a press looks at it closely. */
export function PictureResults({ rows, unit, selected, onSelect, onPutBack }: Props) {
  return (
    <section className="card p-5" aria-label="What the picture shows">
      <h2 className="text-[17px] font-bold">What it shows</h2>
      <ul className="mt-2">
        {rows.map(({ site, read, shown, byHand }) => (
          <li key={site.id} className="border-t border-hair first:border-0">
            <button
              type="button"
              className={clsx(
                "flex min-h-11 w-full items-baseline justify-between gap-3 rounded-md px-2 py-1.5 text-left hover:bg-paper",
                site.id === selected && "bg-paper",
              )}
              aria-pressed={site.id === selected}
              onClick={() => onSelect(site.id)}
            >
              <span className="min-w-0">
                {site.label}
                <span className="block text-[14px] text-ink2">{read.ok ? read.note : read.why}</span>
              </span>
              <span className="num text-right whitespace-nowrap">
                {shown ? (
                  <>
                    <b>{shownNumber(shown.mm, unit, 4)}</b>
                    <span className="block text-[14px] text-ink2">
                      ± {shownNumber(coverageFactor(shown.degreesOfFreedom) * shown.uMm, unit, 4)} {unit}
                    </span>
                  </>
                ) : (
                  "–"
                )}
              </span>
            </button>
            {shown?.edited && (
              <p className="flex items-center justify-between px-2 text-[14px] text-ink2">
                moved by hand
                <Button weight="quiet" onClick={() => onPutBack(site.id)}>
                  Put back
                </Button>
              </p>
            )}
            {byHand !== null && (
              <p className="rounded-md bg-ember-tint px-2 py-1 text-[14px]">
                By hand {shownNumber(byHand, unit, 3)} {unit} was read here: they differ by more than both allow.
              </p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
