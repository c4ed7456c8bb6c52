"use client";
import { useState } from "react";
import type { LengthUnit } from "../../core/metrology/units";
import { pixelMm } from "../../core/picture/picture-window";
import type { PicturePoint } from "../../core/picture/place-coupon";
import type { SiteRead } from "../../core/picture/read-picture";
import { BeforeAfterPictures, type EarlierPicture } from "./before-after-pictures";
import { PartsCard } from "./parts-card";
import { PictureOverlay } from "./picture-overlay";
import { PictureResults } from "./picture-results";
import { PictureRoom, type PictureScreenProps } from "./picture-room";
import { ReaderCard } from "./reader-card";
import { ScaleCard } from "./scale-card";
import { TakingBar } from "./taking-bar";
import { useReading } from "./use-reading";

type Props = PictureScreenProps & {
  /** In which readings are shown. */
  unit: LengthUnit;
  /** Of the round before; `null` where it has none. */
  earlier: EarlierPicture | null;
};

/** So much of the coupon is seen around a site that is looked at, mm. */
const CLOSE_MM = 14;

/** Two places that are pressed in the picture, and what for. */
type Pressed = { what: "scale" | "part"; points: readonly PicturePoint[] };

/** One picture: where the coupon lies in it, what every site shows, put right by hand, taken as readings. */
export function PictureReading({ unit, earlier, ...screen }: Props) {
  const { view, n, picture } = screen;
  const reading = useReading({ view, n, picture });
  const { rows, round } = reading;
  const [pressed, press] = useState<Pressed | null>(null);
  const [selected, select] = useState("");
  const [look, setLook] = useState<{ at: PicturePoint; across: number } | null>(null);
  const inHand = rows.find((r) => r.site.id === selected);
  const pointsFor = (what: Pressed["what"]) => (pressed?.what === what ? pressed.points : null);
  const pressFor = (what: Pressed["what"]) => (points: readonly PicturePoint[] | null) =>
    press(points && { what, points });
  const selectSite = (id: string) => {
    select(id);
    const row = rows.find((r) => r.site.id === id);
    const at = row && middleOf(row.read);
    if (at && row.pose) setLook({ at, across: CLOSE_MM / pixelMm(row.pose) });
  };
  return (
    <>
      <PictureRoom
        {...screen}
        heading={`Coupon ${round?.couponCode} in a picture`}
        marks="Marks"
        open={reading}
        look={look}
        onPress={(at) => {
          if (pressed && pressed.points.length < 2) press({ ...pressed, points: [...pressed.points, at] });
        }}
        overlay={(zoom) => (
          <PictureOverlay reading={reading} points={pressed?.points ?? []} selected={selected} zoom={zoom} />
        )}
      >
        <ReaderCard reading={reading} />
        {rows.length > 0 && (
          <PictureResults
            rows={rows}
            unit={unit}
            selected={selected}
            onSelect={selectSite}
            onPutBack={reading.putBack}
          />
        )}
        {earlier && look && inHand?.pose && (
          <BeforeAfterPictures
            trialId={view.id}
            earlier={earlier}
            now={{ n, picture, pose: inHand.pose, at: look.at }}
            site={inHand.site}
            brighter={reading.brighter}
          />
        )}
        <ScaleCard reading={reading} picture={picture} points={pointsFor("scale")} onPoints={pressFor("scale")} />
        <PartsCard reading={reading} picture={picture} corners={pointsFor("part")} onCorners={pressFor("part")} />
      </PictureRoom>
      <TakingBar view={view} n={n} picture={picture} reading={reading} />
    </>
  );
}

function middleOf({ marks }: SiteRead): PicturePoint | null {
  const points = marks.map((m) => (m.kind === "point" ? m.at : m.from));
  if (points.length === 0) return null;
  const sum = points.reduce((s, p) => ({ x: s.x + p.x, y: s.y + p.y }), { x: 0, y: 0 });
  return { x: sum.x / points.length, y: sum.y / points.length };
}
