"use client";
import { useEffect, useMemo, useState } from "react";
import type { Site } from "../../core/coupon/site";
import { countText } from "../../core/metrology/count-text";
import { fixed } from "../../core/metrology/quantity-text";
import { Button } from "../primitives/button";
import { useSurviving } from "../primitives/use-surviving";
import { ArrayOverlay } from "./array-overlay";
import { PictureRoom, type PictureScreenProps } from "./picture-room";
import { ReaderCard } from "./reader-card";
import { TakeCells } from "./take-cells";
import { useOpenPicture } from "./use-open-picture";

const NONE: readonly number[] = [];

/** A scan or photo of an array: every cell with its score, saved as one reading. */
export function ArrayScreen(screen: PictureScreenProps) {
  const { picture } = screen;
  const open = useOpenPicture(screen);
  const { reader, state, brighter, stopped, round } = open;
  const { readArray } = reader;
  const site = open.sites.find((s) => s.measurand.kind === "cell look");
  const look = site?.measurand.kind === "cell look" ? site.measurand : null;
  const [leftOut, setLeftOut] = useSurviving<readonly number[]>(`cells of picture ${picture.id}`, NONE);
  const [selected, select] = useState<number | null>(null);
  useEffect(() => {
    if (!state.loaded || !look || stopped) return;
    readArray({ look, brighter });
  }, [state.loaded, look, brighter, stopped, readArray]);
  const scores = useMemo(
    () => state.array?.scores.map((score, i) => (leftOut.includes(i) ? null : score)) ?? null,
    [state.array, leftOut],
  );
  const toggle = (i: number) => setLeftOut((all) => (all.includes(i) ? all.filter((k) => k !== i) : [...all, i]));
  return (
    <>
      <PictureRoom
        {...screen}
        heading={`Cells of coupon ${round?.couponCode} in a picture`}
        marks="Marks"
        open={open}
        look={null}
        overlay={(zoom) =>
          state.array && (
            <ArrayOverlay
              read={state.array}
              names={namesOf(site)}
              leftOut={leftOut}
              selected={selected}
              onSelect={select}
              zoom={zoom}
            />
          )
        }
      >
        <ReaderCard reading={{ ...open, state: { ...state, placement: null } }} />
        {scores && site && (
          <Scores
            site={site}
            scores={scores}
            leftOut={leftOut}
            selected={selected}
            onSelect={select}
            onToggle={toggle}
            onUndo={() => setLeftOut(NONE)}
          />
        )}
      </PictureRoom>
      <TakeCells
        screen={screen}
        what="score"
        count={scores?.filter((s) => s !== null).length ?? 0}
        readings={scores && site ? [{ site: site.id, scores, edited: leftOut.length > 0 }] : []}
      />
    </>
  );
}

function namesOf(site: Site | undefined): string[] {
  return site?.ask.kind === "scores" ? site.ask.cells.map((c) => c.label) : [];
}

type ScoresProps = {
  site: Site;
  scores: readonly (number | null)[];
  leftOut: readonly number[];
  selected: number | null;
  onSelect: (cell: number) => void;
  onToggle: (cell: number) => void;
  onUndo: () => void;
};

const SHOWN = 8;

/** The best cells, and the cell in hand. */
function Scores({ site, scores, leftOut, selected, onSelect, onToggle, onUndo }: ScoresProps) {
  const names = namesOf(site);
  const read = scores.filter((s) => s !== null).length;
  const best = scores
    .map((score, i) => ({ score: score ?? Number.NEGATIVE_INFINITY, i }))
    .sort((a, b) => b.score - a.score)
    .slice(0, SHOWN)
    .map(({ i }) => i);
  const shown = selected !== null && !best.includes(selected) ? [selected, ...best] : best;
  return (
    <section className="card p-5" aria-label="What the picture shows">
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[17px] font-bold">
          {countText(read, "cell")} of {scores.length}
        </h2>
        {leftOut.length > 0 && (
          <Button weight="quiet" onClick={onUndo}>
            Undo all changes
          </Button>
        )}
      </div>
      <p className="text-[14px] text-ink2">{site.label}. The largest scores:</p>
      <ul className="mt-2">
        {shown.map((i) => (
          <li key={names[i]} className="border-t border-hair first:border-0">
            <button
              type="button"
              aria-pressed={i === selected}
              onClick={() => onSelect(i)}
              className="flex min-h-9 w-full items-baseline justify-between gap-3 rounded-md px-2 py-1 text-left hover:bg-paper aria-pressed:bg-paper"
            >
              <span>
                Cell {names[i]}
                {leftOut.includes(i) && <span className="text-[14px] text-ember"> · left out</span>}
              </span>
              <span className="num">{fixed(scores[i] ?? 0, 3)}</span>
            </button>
            {i === selected && (
              <p className="px-2 pb-2">
                <Button weight="small" onClick={() => onToggle(i)}>
                  {leftOut.includes(i) ? "Use this cell" : "Leave this cell out"}
                </Button>
              </p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
