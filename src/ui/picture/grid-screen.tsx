"use client";
import { useRouter } from "next/navigation";
import { type ReactNode, useState } from "react";
import { toast } from "sonner";
import { plain } from "../../core/metrology/quantity-text";
import type { PicturePoint } from "../../core/picture/place-coupon";
import { acceptPicture } from "../../server/actions/picture-actions";
import type { PictureFacts } from "../../server/pictures/picture-view";
import type { TrialView } from "../../server/trial/trial-view";
import { PickField } from "../primitives/fields";
import { useAction } from "../primitives/use-action";
import { stageHref } from "../trial/shared/stages";
import { newClientKey } from "../waiting/client-key";
import { GridOverlay } from "./grid-overlay";
import { GridResults } from "./grid-results";
import { PictureView } from "./picture-view";
import { PicturesCard } from "./pictures-card";
import { ReaderCard } from "./reader-card";
import { ScaleCard } from "./scale-card";
import { TakingLine } from "./taking-line";
import { useGridReading } from "./use-grid-reading";

type Props = {
  view: TrialView;
  n: number;
  picture: PictureFacts;
  /** Which picture, and adding another one. */
  choice: ReactNode;
  onDropped: (picture: number) => void;
};

/** Width of the picture shown around a selected dot, pixels. */
const CLOSE_PX = 260;
/** Degrees of freedom of the scatter of hundreds of dots. */
const FREEDOM = 500;

/** A scan of a grid of dots: every dot with its place, corrected by hand, saved as one reading. */
export function GridScreen({ view, n, picture, choice, onDropped }: Props) {
  const reading = useGridReading({ view, n, picture });
  const { reader, sites, round } = reading;
  const isRead = (id: string) => round?.readings.some((r) => r.answer.site === id) ?? false;
  const [site, setSite] = useState(() => (sites.find((s) => !isRead(s.id)) ?? sites[0])?.id ?? "");
  const [selected, select] = useState<number | null>(null);
  const [look, setLook] = useState<{ at: PicturePoint; across: number } | null>(null);
  const [pressed, press] = useState<readonly PicturePoint[] | null>(null);
  const selectDot = (index: number) => {
    select(index);
    const dot = reading.dots.find((d) => d.index === index);
    if (dot) setLook({ at: { x: dot.x, y: dot.y }, across: CLOSE_PX });
  };
  return (
    <>
      <main className="mx-auto grid w-full max-w-[1680px] flex-1 gap-5 px-6 py-4 max-sm:px-4 lg:grid-cols-[1fr_400px]">
        <h1 className="sr-only">Dots of coupon {round?.couponCode} in a picture</h1>
        <section className="min-h-[420px] lg:h-[calc(100dvh-150px)]" aria-label="The picture">
          <PictureView
            reader={reader}
            width={picture.width}
            height={picture.height}
            label={`${picture.name}, ${picture.width} × ${picture.height} pixels`}
            look={look}
            onPress={(at) => {
              if (pressed && pressed.length < 2) press([...pressed, at]);
            }}
          >
            {(zoom) => <GridOverlay reading={reading} selected={selected} onSelect={select} zoom={zoom} />}
          </PictureView>
        </section>
        <div className="grid min-w-0 grid-cols-1 relative content-start gap-4 overflow-y-auto lg:max-h-[calc(100dvh-150px)]">
          {sites.length > 1 && (
            <section className="card grid gap-2 p-4" aria-label="Which scan this is">
              <PickField
                label="This picture shows"
                value={site}
                choices={sites.map((s) => ({ value: s.id, label: `${s.label}${isRead(s.id) ? " (read)" : ""}` }))}
                onChange={setSite}
              />
            </section>
          )}
          <ReaderCard reading={{ ...reading, state: { ...reading.state, placement: null } }} />
          <GridResults reading={reading} selected={selected} onSelect={selectDot} />
          {!reading.isPhoto && <ScaleCard reading={reading} picture={picture} points={pressed} onPoints={press} />}
          <PicturesCard
            trialId={view.id}
            n={n}
            picture={picture}
            marks="Dots"
            brighter={reading.brighter}
            onBrighter={reading.setBrighter}
            choice={choice}
            onDropped={onDropped}
          />
        </div>
      </main>
      <TakeDots view={view} n={n} picture={picture} site={site} reading={reading} />
    </>
  );
}

type TakeProps = {
  view: TrialView;
  n: number;
  picture: PictureFacts;
  site: string;
  reading: ReturnType<typeof useGridReading>;
};

/** The line at the bottom: how many dots are taken, and for which scan. */
function TakeDots({ view, n, picture, site, reading }: TakeProps) {
  const router = useRouter();
  const [key] = useState(newClientKey);
  const { busy, fault, run } = useAction();
  const { places, scale, state } = reading;
  const count = places?.filter((p) => p !== null).length ?? 0;
  const label = reading.sites.find((s) => s.id === site)?.label ?? "";
  const take = () => {
    if (!places || !scale || !state.grid) return;
    const uMm = Math.max(1e-4, state.grid.scatterPx / scale.xPixelsPerMm);
    const taken = { site, points: places, uMm, degreesOfFreedom: FREEDOM, edited: reading.isEdited };
    run(
      () =>
        acceptPicture({
          trialId: view.id,
          n,
          picture: picture.id,
          readings: [taken],
          key: `${key} ${site}`.slice(0, 60),
        }),
      () => {
        toast(`${count} dots taken from the picture.`);
        router.push(stageHref(view, "read", n));
      },
    );
  };
  return (
    <TakingLine
      label="Taking the dots"
      status={count > 0 ? `${plain(count)} dots, ${label.toLowerCase()}.` : "No dots read yet."}
      action="Take these dots"
      disabled={busy || count === 0 || view.endedAt !== null}
      fault={fault.message}
      back={stageHref(view, "read", n)}
      onTake={take}
    />
  );
}
