"use client";
import { useMemo, useState } from "react";
import type { PicturePoint } from "../../core/picture/place-coupon";
import { isSeen, type PixelBox } from "../../core/picture/read-part";
import type { PictureFacts } from "../../server/pictures/picture-view";
import { Button } from "../primitives/button";
import { PickField } from "../primitives/fields";
import { PressedPoints } from "./pressed-points";
import type { Reading } from "./use-reading";

type Props = {
  reading: Reading;
  picture: PictureFacts;
  /** Corners of a box pressed so far; `null` while they are not asked for. */
  corners: readonly PicturePoint[] | null;
  onCorners: (corners: readonly PicturePoint[] | null) => void;
};

/** Narrower boxes are presses that went wrong, pixels. */
const LEAST_SIDE_PX = 20;

/** Which place of the coupon a picture shows that does not show all of it. */
export function PartsCard({ reading, picture, corners, onCorners }: Props) {
  const { piece, sites, parts, setParts } = reading;
  const [open, setOpen] = useState(false);
  const places = useMemo(() => (piece ? sites.filter((s) => isSeen(piece, s)) : []), [piece, sites]);
  const left = places.filter((s) => parts.every((p) => p.site !== s.id));
  const [wanted, choose] = useState("");
  const place = left.find((s) => s.id === wanted) ?? left[0];
  const say = (box: PixelBox) => {
    if (place) setParts([...parts, { site: place.id, box }]);
    onCorners(null);
  };
  const [a, b] = corners ?? [];
  const box = a && b ? boxOf(a, b, picture) : null;
  if (places.length === 0) return null;
  if (!open && parts.length === 0)
    return (
      <Button weight="quiet" className="justify-self-start" onClick={() => setOpen(true)}>
        It shows a part of the coupon only
      </Button>
    );
  return (
    <section className="card grid gap-3 p-5" aria-label="Which part is which">
      <h2 className="text-[17px] font-bold">Which part is which</h2>
      <p className="text-[14px] text-ink2">
        A shot of one place, upright as it is drawn, with all its marks: say which place it is. Where the picture shows
        several, press two corners around each.
      </p>
      {parts.length > 0 && (
        <ul>
          {parts.map((part) => (
            <li
              key={part.site}
              className="flex items-center justify-between gap-2 border-t border-hair py-1 first:border-0"
            >
              <span>
                {sites.find((s) => s.id === part.site)?.label}
                <span className="block text-[14px] text-ink2">{boxText(part.box, picture)}</span>
              </span>
              <Button weight="quiet" onClick={() => setParts(parts.filter((p) => p !== part))}>
                Leave it out
              </Button>
            </li>
          ))}
        </ul>
      )}
      {place && corners === null && (
        <>
          <PickField
            label="Place"
            value={place.id}
            choices={left.map((s) => ({ value: s.id, label: s.label }))}
            onChange={choose}
          />
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => say({ x0: 0, y0: 0, x1: picture.width, y1: picture.height })}>
              The whole picture shows it
            </Button>
            <Button onClick={() => onCorners([])}>Two corners around it</Button>
          </div>
        </>
      )}
      {place && corners !== null && (
        <PressedPoints
          points={corners}
          words={[
            `Press one corner of a box around “${place.label}”.`,
            "Press the corner across from it.",
            box ? "Both corners are set." : "These corners are too close together: press others.",
          ]}
          onPoints={onCorners}
          others="Other corners"
          goOn={
            <Button weight="primary" disabled={!box} onClick={() => box && say(box)}>
              It shows this place
            </Button>
          }
        />
      )}
      <Button
        weight="quiet"
        className="justify-self-start"
        onClick={() => {
          setOpen(false);
          onCorners(null);
          if (parts.length > 0) setParts([]);
        }}
      >
        It shows the whole coupon
      </Button>
    </section>
  );
}

function boxOf(a: PicturePoint, b: PicturePoint, { width, height }: PictureFacts): PixelBox | null {
  const within = (value: number, most: number) => Math.max(0, Math.min(most, Math.round(value)));
  const [x0, x1] = [a.x, b.x].map((x) => within(x, width)).sort((p, q) => p - q) as [number, number];
  const [y0, y1] = [a.y, b.y].map((y) => within(y, height)).sort((p, q) => p - q) as [number, number];
  return x1 - x0 >= LEAST_SIDE_PX && y1 - y0 >= LEAST_SIDE_PX ? { x0, y0, x1, y1 } : null;
}

function boxText({ x0, y0, x1, y1 }: PixelBox, { width, height }: PictureFacts): string {
  return x1 - x0 === width && y1 - y0 === height ? "the whole picture" : `${x1 - x0} × ${y1 - y0} pixels of it`;
}
