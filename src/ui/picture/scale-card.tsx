"use client";
import { useMemo, useState } from "react";
import type { Piece } from "../../core/coupon/piece";
import { plain } from "../../core/metrology/quantity-text";
import { parseReading } from "../../core/metrology/reading-text";
import { nominalLines } from "../../core/picture/nominal-lines";
import { type PictureScale, scaleFromDpi, scaleFromPoints } from "../../core/picture/picture-scale";
import type { PicturePoint } from "../../core/picture/place-coupon";
import type { PictureFacts } from "../../server/pictures/picture-view";
import { Button } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { Fault } from "../primitives/notice";
import { PressedPoints } from "./pressed-points";
import { ByRows, dotsText } from "./reader-card";
import type { Reading } from "./use-reading";

/** Parts of a reading that concern its scale. */
export type ScaledReading = Pick<Reading, "scale" | "piece" | "giving" | "giveScale"> & {
  state: Pick<Reading["state"], "placement">;
};

type Props = {
  reading: ScaledReading;
  picture: PictureFacts;
  /** The two points pressed so far; `null` while they are not asked for. */
  points: readonly PicturePoint[] | null;
  onPoints: (points: readonly PicturePoint[] | null) => void;
};

const SOURCES: Record<PictureScale["source"], string> = {
  file: "as the file says",
  typed: "as typed",
  "two points": "from two points",
  coupon: "from the coupon",
};

const AT_FIELDS = ["x", "y", "mm", "good"];
const NO_DOTS = "Type dots per inch, for example 1200.";
const [FEWEST_DOTS, MOST_DOTS] = [20, 200_000];
/** A length on the coupon is taken to be good to this, until somebody says better. */
const GOOD_SHARE = 0.005;

/** How large a pixel is: from the file, as typed, or from two points a known distance apart. */
export function ScaleCard({ reading, picture, points, onPoints }: Props) {
  const { scale, piece, state } = reading;
  const [open, setOpen] = useState(scale === null);
  const [texts, setTexts] = useState({ x: dpiText(picture.xDpi), y: dpiText(picture.yDpi), mm: "", good: "0.05" });
  const { busy, fault, setFault } = reading.giving;
  const set = (key: keyof typeof texts) => (value: string) => setTexts((t) => ({ ...t, [key]: value }));
  const keep = (next: PictureScale) =>
    reading.giveScale(next, () => {
      onPoints(null);
      setOpen(false);
    });

  const scaleError = state.placement?.scaleError;
  const longest = useMemo(() => (piece ? longestLine(piece) : 0), [piece]);
  const field = (key: keyof typeof texts, label: string) => (
    <TextField label={label} value={texts[key]} onChange={set(key)} fault={fault.field === key ? fault.message : ""} />
  );

  function byDpi() {
    const x = dotsIn(texts.x);
    if (x === null) return setFault({ field: "x", message: NO_DOTS });
    const y = texts.y.trim() === "" ? x : dotsIn(texts.y);
    if (y === null) return setFault({ field: "y", message: NO_DOTS });
    keep(scaleFromDpi(x, y, "typed"));
  }

  function byPoints() {
    const [a, b] = points ?? [];
    if (!a || !b) return setFault({ field: "mm", message: "Press two points in the picture first." });
    const mm = parseReading(texts.mm, "length", "mm");
    if (!mm.ok) return setFault({ field: "mm", message: mm.message });
    const good = parseReading(texts.good, "length", "mm");
    if (!good.ok) return setFault({ field: "good", message: good.message });
    const next = scaleFromPoints(a, b, mm.value, good.value / Math.sqrt(3));
    if (!next) return setFault({ field: "mm", message: "Two different points, and a distance larger than 0." });
    keep(next);
  }

  return (
    <section className="card grid gap-3 p-5" aria-label="Scale">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-[17px] font-bold">Scale</h2>
        {scale && (
          <Button weight="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? "Leave it" : "Change"}
          </Button>
        )}
      </div>
      {scale ? (
        <p className="num text-[14px]">
          {dotsText(scale)}, {SOURCES[scale.source]}; lengths to ± {plain(200 * scale.relative, 2)} %
        </p>
      ) : (
        <p className="text-ink2">This file does not say how large its pixels are.</p>
      )}
      {open && (
        <>
          <form
            className="flex flex-wrap items-start gap-3"
            aria-label="Dots per inch"
            onSubmit={(e) => {
              e.preventDefault();
              byDpi();
            }}
          >
            <div className="w-28">{field("x", "Dots per inch, X")}</div>
            <div className="w-28">{field("y", "Y")}</div>
            <Button type="submit" disabled={busy}>
              Go by these
            </Button>
          </form>
          {points === null ? (
            <Button className="justify-self-start" onClick={() => onPoints([])}>
              By two points in the picture
            </Button>
          ) : (
            <form
              className="grid gap-2"
              aria-label="Two points"
              onSubmit={(e) => {
                e.preventDefault();
                byPoints();
              }}
            >
              <PressedPoints
                points={points}
                words={["Press the first point in the picture.", "Press the second point.", "Both points are set."]}
                onPoints={onPoints}
                others="Other points"
                goOn={
                  <Button type="submit" disabled={busy || points.length < 2}>
                    Go by these points
                  </Button>
                }
              >
                {longest > 0 && (
                  <Button
                    weight="small"
                    className="justify-self-start"
                    onClick={() =>
                      setTexts((t) => ({ ...t, mm: `${plain(longest, 2)} mm`, good: plain(GOOD_SHARE * longest, 2) }))
                    }
                  >
                    They are the ends of its longest line: {plain(longest, 2)} mm
                  </Button>
                )}
                <div className="flex flex-wrap items-start gap-3">
                  <div className="w-32">{field("mm", "They are apart by")}</div>
                  <div className="w-32">{field("good", "Good to")}</div>
                </div>
              </PressedPoints>
            </form>
          )}
          {scaleError != null && <ByRows reading={reading} times={1 + scaleError} />}
          {!AT_FIELDS.includes(fault.field ?? "") && fault.message && <Fault>{fault.message}</Fault>}
        </>
      )}
    </section>
  );
}

/** Of the straight lines of a coupon, mm: what anybody can find and point at. 0 where there is none. */
function longestLine(piece: Piece): number {
  return nominalLines(piece).reduce((most, l) => Math.max(most, Math.hypot(l.x1 - l.x0, l.y1 - l.y0)), 0);
}

/** @returns `null` for what no scanner or microscope has */
function dotsIn(text: string): number | null {
  const read = parseReading(text, "ratio", "one");
  return read.ok && read.value >= FEWEST_DOTS && read.value <= MOST_DOTS ? read.value : null;
}

function dpiText(dpi: number | null): string {
  return dpi === null ? "" : plain(dpi, 1);
}
