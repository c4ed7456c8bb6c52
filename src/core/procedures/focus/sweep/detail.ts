/** The close-up: how bright the mark is by the height, and which way it is come to. */
import type { Detail, Primitive } from "../../../drawing/scene";
import type { Focus, History } from "../../../trial/history";
import type { SweepPlan } from "../plan";
import { FALLING_SITE, RISING_SITE } from "./coupon";

const RADIUS = 3.4;
const RAYS = 11;

export function detailOf(_: History<SweepPlan>, { site }: Focus): Detail | null {
  if (site !== RISING_SITE && site !== FALLING_SITE) return null;
  const y = (i: number) => -2.4 + (4.8 * i) / (RAYS - 1);
  const rays = Array.from({ length: RAYS }, (_, i): Primitive => {
    const half = 0.2 + 2 * Math.exp(-((y(i) / 1.1) ** 2));
    return line(-half, y(i), half, y(i), i === (RAYS - 1) / 2 ? "needs you" : "ink");
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
      line(2.4, -tip, 2.4, tip, "data"),
      line(2.4, tip, 2.1, back, "data"),
      line(2.4, tip, 2.7, back, "data"),
    ],
  };
}

function line(x0: number, y0: number, x1: number, y1: number, tone: "ink" | "needs you" | "data"): Primitive {
  return {
    kind: "stroke",
    closed: false,
    weight: tone === "data" ? "thin" : "heavy",
    widthMm: 0,
    dashed: false,
    tone,
    points: [
      { x: x0, y: y0 },
      { x: x1, y: y1 },
    ],
  };
}
