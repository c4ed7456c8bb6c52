/** The close-up: how bright the mark is by the height, and which way it is come to. */
import { at, line, type Pen } from "../../../drawing/close-up";
import type { Detail } from "../../../drawing/scene";
import type { Focus, History } from "../../../trial/history";
import type { SweepPlan } from "../plan";
import { FALLING_SITE, RISING_SITE } from "./coupon";

const RADIUS = 3.4;
const RAYS = 11;
const ARROW: Pen = { tone: "data" };

export function detailOf(_: History<SweepPlan>, { site }: Focus): Detail | null {
  if (site !== RISING_SITE && site !== FALLING_SITE) return null;
  const y = (i: number) => -2.4 + (4.8 * i) / (RAYS - 1);
  const rays = Array.from({ length: RAYS }, (_, i) => {
    const half = 0.2 + 2 * Math.exp(-((y(i) / 1.1) ** 2));
    return line(at(-half, y(i)), at(half, y(i)), { tone: i === (RAYS - 1) / 2 ? "needs you" : "ink", weight: "heavy" });
  });
  const tip = site === RISING_SITE ? 1.9 : -1.9;
  const back = tip - Math.sign(tip) * 0.5;
  return {
    title: site === RISING_SITE ? "Detail, number rising" : "Detail, number falling",
    note: "the longest ray is the brightest, loudest point",
    radius: RADIUS,
    strip: { low: -2.5, high: 2.5 },
    primitives: [
      ...rays,
      line(at(2.4, -tip), at(2.4, tip), ARROW),
      line(at(2.4, tip), at(2.1, back), ARROW),
      line(at(2.4, tip), at(2.7, back), ARROW),
    ],
  };
}
