"use client";
import { Button } from "../../../primitives/button";
import { Kbd } from "../../../primitives/kbd";
import { Fault } from "../../../primitives/notice";
import { useNumberKeys } from "../../../primitives/use-number-keys";
import type { AskProps } from "./ask-props";
import { Question } from "./question";

type Placed = { id: string; label: string; at: { x: number; y: number } };

/** One of four places of the coupon, tapped on a drawing of it as it lies in front of the operator: a tap takes it. */
export function PlaceAsk({ site, options, busy, fault, question, onTake, onCannot }: AskProps & { options: Placed[] }) {
  const take = (id: string) => onTake({ kind: "choice", option: id });
  useNumberKeys(options.length, (i) => take(options[i]?.id ?? ""));
  const [xs, ys] = [options.map((o) => o.at.x), options.map((o) => o.at.y)];
  const place = (v: number, all: number[]) => {
    const [low, high] = [Math.min(...all), Math.max(...all)];
    return 1 + Math.round((2 * (v - low)) / (high - low || 1));
  };
  return (
    <div>
      <fieldset aria-label={site.question} className="mx-auto grid max-w-[360px] grid-cols-[1fr_1.1fr_1fr] gap-2">
        <div className="col-start-2 row-start-2 grid min-h-24 place-items-center border border-line border-b-4 border-b-ember bg-paper">
          <span className="text-center text-[14px] text-ink2">{site.label}?</span>
        </div>
        {options.map((o, i) => (
          <button
            key={o.id}
            type="button"
            disabled={busy}
            onClick={() => take(o.id)}
            style={{ gridColumn: place(o.at.x, xs), gridRow: 4 - place(o.at.y, ys) }}
            className="flex min-h-16 flex-col items-center justify-center gap-1 rounded-md border border-border bg-sheet px-2 py-2 leading-tight hover:border-ink"
          >
            {o.label}
            <span className="max-lg:hidden" aria-hidden="true">
              <Kbd>{String(i + 1)}</Kbd>
            </span>
          </button>
        ))}
      </fieldset>
      <p className="mt-2 text-center text-[14px] text-ink2">You stand here. The thick edge is the pencil line.</p>
      {fault && <Fault>{fault.message}</Fault>}
      <Question text={question} />
      <div className="mt-2 flex justify-end">
        <Button onClick={onCannot} disabled={busy}>
          cannot read
        </Button>
      </div>
    </div>
  );
}
