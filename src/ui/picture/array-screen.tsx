"use client";
import { useRouter } from "next/navigation";
import { type ReactNode, useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import type { Measurand, Site } from "../../core/coupon/site";
import { countText } from "../../core/metrology/count-text";
import { fixed } from "../../core/metrology/quantity-text";
import type { CellMeasures } from "../../core/picture/array/read-array";
import { acceptPicture } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { Button } from "../primitives/button";
import { useAction } from "../primitives/use-action";
import { useSurviving } from "../primitives/use-surviving";
import { stageHref } from "../trial/shared/stages";
import { newClientKey } from "../waiting/client-key";
import { ArrayOverlay } from "./array-overlay";
import { PictureView } from "./picture-view";
import { PicturesCard } from "./pictures-card";
import { ReaderCard } from "./reader-card";
import { TakingLine } from "./taking-line";
import { useOpenPicture } from "./use-open-picture";

type Props = {
  view: TrialView;
  n: number;
  picture: PictureFacts;
  /** Which picture, and adding another one. */
  choice: ReactNode;
  onDropped: (picture: number) => void;
};

type Look = Extract<Measurand, { kind: "cell look" }>;

const NONE: readonly number[] = [];

/** A scan or photo of an array: every cell with its score, saved as one reading. */
export function ArrayScreen({ view, n, picture, choice, onDropped }: Props) {
  const open = useOpenPicture({ view, n, picture });
  const { reader, state, brighter, stopped, round } = open;
  const { readArray } = reader;
  const site = open.sites.find((s) => s.measurand.kind === "cell look");
  const look = site?.measurand.kind === "cell look" ? site.measurand : null;
  const [leftOut, setLeftOut] = useSurviving<readonly number[]>(`cells of picture ${picture.id}`, NONE);
  const [selected, select] = useState<number | null>(null);
  useEffect(() => {
    if (!state.loaded || !look || stopped) return;
    const { cells, dots, radiusMm, gapMm } = look;
    readArray({ shape: { cells, dots, radiusMm, gapMm }, brighter });
  }, [state.loaded, look, brighter, stopped, readArray]);
  const scores = useMemo(
    () =>
      state.array && look ? state.array.cells.map((c, i) => (leftOut.includes(i) ? null : scoreOf(c, look.of))) : null,
    [state.array, look, leftOut],
  );
  const toggle = (i: number) => setLeftOut((all) => (all.includes(i) ? all.filter((k) => k !== i) : [...all, i]));
  return (
    <>
      <main className="mx-auto grid w-full max-w-[1680px] flex-1 gap-5 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_400px]">
        <h1 className="sr-only">Cells of coupon {round?.couponCode} in a picture</h1>
        <section className="min-h-[420px] lg:h-[calc(100dvh-150px)]" aria-label="The picture">
          <PictureView
            reader={reader}
            width={picture.width}
            height={picture.height}
            label={`${picture.name}, ${picture.width} × ${picture.height} pixels`}
            look={null}
            onPress={() => {}}
          >
            {(zoom) =>
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
          </PictureView>
        </section>
        <div className="grid min-w-0 grid-cols-1 relative content-start gap-4 overflow-y-auto lg:max-h-[calc(100dvh-150px)]">
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
          <PicturesCard
            trialId={view.id}
            n={n}
            picture={picture}
            marks="Marks"
            brighter={brighter}
            onBrighter={open.setBrighter}
            choice={choice}
            onDropped={onDropped}
          />
        </div>
      </main>
      <TakeScores view={view} n={n} picture={picture} site={site} scores={scores} edited={leftOut.length > 0} />
    </>
  );
}

function scoreOf(cell: CellMeasures | null, of: Look["of"]): number | null {
  return cell ? cell[of] : null;
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

type TakeProps = {
  view: TrialView;
  n: number;
  picture: PictureFacts;
  site: Site | undefined;
  scores: readonly (number | null)[] | null;
  edited: boolean;
};

function TakeScores({ view, n, picture, site, scores, edited }: TakeProps) {
  const router = useRouter();
  const [key] = useState(newClientKey);
  const { busy, fault, run } = useAction();
  const count = scores?.filter((s) => s !== null).length ?? 0;
  const take = () => {
    if (!scores || !site) return;
    run(
      () =>
        acceptPicture({ trialId: view.id, n, picture: picture.id, readings: [{ site: site.id, scores, edited }], key }),
      () => {
        toast(`Scores of ${countText(count, "cell")} taken from the picture.`);
        router.push(stageHref(view, "read", n));
      },
    );
  };
  return (
    <TakingLine
      label="Taking the scores"
      status={count > 0 ? `${countText(count, "cell")} read.` : "No cells read yet."}
      action="Take these scores"
      disabled={busy || count === 0 || view.endedAt !== null}
      fault={fault.message}
      back={stageHref(view, "read", n)}
      onTake={take}
    />
  );
}
