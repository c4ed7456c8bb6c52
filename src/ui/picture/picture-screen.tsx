"use client";
import { useRouter } from "next/navigation";
import { startTransition, useState } from "react";
import { lengthUnitOf } from "../../core/trial/decisions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { buttonClass } from "../primitives/button";
import { PickField } from "../primitives/fields";
import { Link } from "../primitives/link";
import { stageHref } from "../trial/shared/stages";
import { ArrayScreen } from "./array-screen";
import { ColourScreen } from "./colour-screen";
import { GridScreen } from "./grid-screen";
import { PicturePick } from "./picture-pick";
import { PictureReading } from "./picture-reading";

type Props = {
  view: TrialView;
  n: number;
  pictures: readonly PictureFacts[];
  /** The newest picture of an earlier round, and of which. */
  earlier: { n: number; picture: PictureFacts } | null;
};

/** Reading a round from pictures of its coupon. */
export function PictureScreen({ view, n, pictures, earlier }: Props) {
  const router = useRouter();
  const [added, setAdded] = useState<readonly PictureFacts[]>([]);
  const [dropped, setDropped] = useState<ReadonlySet<number>>(new Set());
  const all = [...pictures, ...added.filter((p) => pictures.every((q) => q.id !== p.id))].filter(
    (p) => !dropped.has(p.id),
  );
  const [chosen, choose] = useState<number | null>(null);
  const picture = all.find((p) => p.id === chosen) ?? all.at(-1);
  const take = (taken: PictureFacts) =>
    startTransition(() => {
      setAdded((before) => [...before, taken]);
      choose(taken.id);
      router.refresh();
    });
  const round = view.rounds.find((r) => r.n === n);
  const before = view.rounds.find((r) => r.n === earlier?.n);
  const isGrid = round?.spec?.sites.some((s) => s.measurand.kind === "dots") === true;
  const isColour = round?.spec?.sites.some((s) => s.measurand.kind === "cell colour") === true;
  const isArray = round?.spec?.sites.some((s) => s.measurand.kind === "cell look") === true;
  if (!picture || !round)
    return (
      <main className="mx-auto grid w-full max-w-[900px] flex-1 content-start gap-4 px-6 py-6 max-sm:px-4">
        <h1 className="text-[24px] font-bold">Read coupon {round?.couponCode ?? view.code} from a picture</h1>
        <PicturePick trialId={view.id} n={n} onTaken={take} small={false} isGrid={isGrid} />
        <Link href={stageHref(view, "read", n)} className={buttonClass("quiet", "justify-self-start")}>
          Read it by hand instead
        </Link>
      </main>
    );
  const choice = (
    <div className="grid grid-cols-1 gap-3">
      {all.length > 1 && (
        <PickField
          label="Picture"
          value={String(picture.id)}
          choices={all.map((p) => ({ value: String(p.id), label: p.name || `picture ${p.id}` }))}
          onChange={(id) => choose(Number(id))}
        />
      )}
      <PicturePick trialId={view.id} n={n} onTaken={take} small isGrid={isGrid} />
    </div>
  );
  const drop = (id: number) => {
    setDropped((before) => new Set(before).add(id));
    router.refresh();
  };
  if (isColour)
    return <ColourScreen key={picture.id} view={view} n={n} picture={picture} choice={choice} onDropped={drop} />;
  if (isArray)
    return <ArrayScreen key={picture.id} view={view} n={n} picture={picture} choice={choice} onDropped={drop} />;
  if (isGrid)
    return <GridScreen key={picture.id} view={view} n={n} picture={picture} choice={choice} onDropped={drop} />;
  return (
    <PictureReading
      key={picture.id}
      view={view}
      n={n}
      picture={picture}
      unit={lengthUnitOf(view)}
      earlier={before && earlier ? { round: before, picture: earlier.picture } : null}
      onDropped={drop}
      choice={choice}
    />
  );
}
