/** Sites that need nothing more are ticked on the drawing of the coupon. */
import type { Primitive } from "../drawing/scene";
import { siteIsDone } from "../trial/answer";
import type { History } from "../trial/history";

const BESIDE = { x: 2.6, y: 2.6, radiusMm: 1.2 };

/** A tick beside each point that is done. */
export function readTicks<P>(history: History<P>): Primitive[] {
  const round = history.rounds.at(-1);
  return (round?.spec.sites ?? []).flatMap((site): Primitive[] => {
    if (!site.place || !siteIsDone(site, round?.answers ?? [])) return [];
    const { x, y } = site.place.at;
    return [
      {
        kind: "highlight",
        at: { x: x + BESIDE.x, y: y + BESIDE.y },
        radiusMm: BESIDE.radiusMm,
        sign: "tick",
        tone: "proved",
      },
    ];
  });
}
