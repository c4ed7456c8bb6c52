"use client";
import { useState } from "react";
import { plain } from "../../core/metrology/quantity-text";
import type { PicturePoint } from "../../core/picture/place-coupon";
import { PickField } from "../primitives/fields";
import { GridOverlay } from "./grid-overlay";
import { GridResults } from "./grid-results";
import { PictureRoom, type PictureScreenProps } from "./picture-room";
import { ReaderCard } from "./reader-card";
import { ScaleCard } from "./scale-card";
import { TakingLine } from "./taking-line";
import { useGridReading } from "./use-grid-reading";
import { useTaking } from "./use-taking";

/** Width of the picture shown around a selected dot, pixels. */
const CLOSE_PX = 260;
/** Degrees of freedom of the scatter of hundreds of dots. */
const FREEDOM = 500;

/** A scan of a grid of dots: every dot with its place, corrected by hand, saved as one reading. */
export function GridScreen(screen: PictureScreenProps) {
  const { view, n, picture } = screen;
  const reading = useGridReading({ view, n, picture });
  const { sites, round } = reading;
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
      <PictureRoom
        {...screen}
        heading={`Dots of coupon ${round?.couponCode} in a picture`}
        marks="Dots"
        open={reading}
        look={look}
        onPress={(at) => {
          if (pressed && pressed.length < 2) press([...pressed, at]);
        }}
        overlay={(zoom) => <GridOverlay reading={reading} selected={selected} onSelect={select} zoom={zoom} />}
      >
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
      </PictureRoom>
      <TakeDots screen={screen} site={site} reading={reading} />
    </>
  );
}

type TakeProps = {
  screen: PictureScreenProps;
  site: string;
  reading: ReturnType<typeof useGridReading>;
};

/** The line at the bottom: how many dots are taken, and for which scan. */
function TakeDots({ screen, site, reading }: TakeProps) {
  const { fault, isClosed, back, take } = useTaking(screen);
  const { places, scale, state } = reading;
  const count = places?.filter((p) => p !== null).length ?? 0;
  const label = reading.sites.find((s) => s.id === site)?.label ?? "";
  const takeDots = () => {
    if (!places || !scale || !state.grid) return;
    const uMm = Math.max(1e-4, state.grid.scatterPx / scale.xPixelsPerMm);
    const taken = { site, points: places, uMm, degreesOfFreedom: FREEDOM, edited: reading.isEdited };
    take([taken], `${count} dots taken from the picture.`);
  };
  return (
    <TakingLine
      label="Taking the dots"
      status={count > 0 ? `${plain(count)} dots, ${label.toLowerCase()}.` : "No dots read yet."}
      action="Take these dots"
      disabled={isClosed || count === 0}
      fault={fault}
      back={back}
      onTake={takeDots}
    />
  );
}
