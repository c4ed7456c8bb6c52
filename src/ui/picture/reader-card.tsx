"use client";
import type { ReactNode } from "react";
import { plain } from "../../core/metrology/quantity-text";
import { MM_PER_INCH } from "../../core/metrology/units";
import { FILE_SCALE_ERROR, type PictureScale, scaleFromCoupon } from "../../core/picture/picture-scale";
import { Button } from "../primitives/button";
import { Fault, Notice } from "../primitives/notice";
import type { Reading } from "./use-reading";

const DOING = {
  loading: "The picture is coming …",
  looking: "Looking for the coupon …",
  reading: "Found. Reading its sites …",
} as const;

/** Parts of a reading that this card needs. */
type ReadReading = Pick<Reading, "scale" | "stopped" | "giving" | "giveScale" | "stop" | "readOn"> & {
  state: Pick<Reading["state"], "why" | "doing" | "scaleTimes" | "placement">;
};

/** What the reader is doing, or what it needs. */
export function ReaderCard({ reading }: { reading: ReadReading }) {
  const { state, scale, stopped, giving } = reading;
  const unplaced = giving.fault.field === "" ? giving.fault.message : "";
  if (state.why)
    return (
      <Card>
        <Notice tone="needs you" headline="Not read.">
          {state.why}
        </Notice>
        <ByRows reading={reading} times={state.scaleTimes} />
        {unplaced && <Fault>{unplaced}</Fault>}
      </Card>
    );
  if (state.doing !== "nothing")
    return (
      <section className="card flex items-center justify-between gap-3 p-4" role="status">
        {DOING[state.doing]}
        {state.doing !== "loading" && (
          <Button weight="small" onClick={reading.stop}>
            Stop
          </Button>
        )}
      </section>
    );
  if (stopped)
    return (
      <section className="card flex items-center justify-between gap-3 p-4" role="status">
        Stopped.
        <Button weight="small" onClick={reading.readOn}>
          Read it
        </Button>
      </section>
    );
  if (!scale)
    return (
      <Card>
        <Notice tone="needs you" headline="No scale yet.">
          Type the dots per inch that it was scanned with, or press two points a known distance apart.
        </Notice>
      </Card>
    );
  const error = state.placement?.scaleError ?? 0;
  if (Math.abs(error) <= FILE_SCALE_ERROR) return null;
  return (
    <Card>
      <Notice tone="needs you" headline="The scale contradicts the coupon.">
        Rows lie {plain(Math.abs(100 * error), 1)} % {error > 0 ? "further apart" : "closer together"} than drawn. Is
        the number of dots right? If it is, the axis of the machine is off by that much.
      </Notice>
      <ByRows reading={reading} times={1 + error} />
      {unplaced && <Fault>{unplaced}</Fault>}
    </Card>
  );
}

function Card({ children }: { children: ReactNode }) {
  return <section className="card grid justify-items-start gap-3 p-4">{children}</section>;
}

/** A scale that differs by less is the same. */
const SAME_SHARE = 0.0005;

/** Offers the scale that the coupon tells; nothing where it tells none, or the one there is. */
export function ByRows({
  reading,
  times,
}: {
  reading: Pick<Reading, "scale" | "giving" | "giveScale">;
  times: number | null;
}) {
  const { scale, giving } = reading;
  if (!scale || times === null || Math.abs(times - 1) < SAME_SHARE) return null;
  const next = scaleFromCoupon(scale, times);
  return (
    <Button className="justify-self-start" disabled={giving.busy} onClick={() => reading.giveScale(next)}>
      Go by its rows: {dotsText(next)}
    </Button>
  );
}

/** A scale in dots per inch, X and Y apart where they differ. */
export function dotsText({ xPixelsPerMm, yPixelsPerMm }: PictureScale): string {
  const [x, y] = [xPixelsPerMm, yPixelsPerMm].map((perMm) => plain(perMm * MM_PER_INCH, 1));
  return `${x === y ? x : `${x} × ${y}`} dots per inch`;
}
