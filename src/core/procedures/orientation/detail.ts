/** The coupon as it lies in front of the operator, with the arrows as they were seen so far. */
import { ASKED, at, box, DATA, FAINT, INK, line, path, words } from "../../drawing/close-up";
import type { Detail, Primitive } from "../../drawing/scene";
import type { Focus, History } from "../../trial/history";
import { lookedAt } from "../../trial/looked-at";
import { MIRRORED, SITES } from "./coupon";
import { ALONG, WAYS, type Way } from "./eight";
import type { OrientationPlan } from "./plan";
import { chosenAt } from "./read";

const RADIUS = 3.6;
const HALF = 2.2;
const LONG = 1.7;

export function orientationDetail(history: History<OrientationPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  if (!looked) return null;
  const { round, site } = looked;
  const seen = (id: string) => WAYS.find((w) => w === chosenAt(round, id));
  const [x, y] = [seen(SITES.x), seen(SITES.y)];
  const isMirrored = chosenAt(round, SITES.words) === MIRRORED;
  return {
    title: "The coupon in front of you",
    note: "The pencil line is toward you.",
    radius: RADIUS,
    strip: { low: -HALF - 0.9, high: HALF + 0.3 },
    primitives: [
      box(-HALF, -HALF, HALF, HALF, INK),
      line(at(-HALF, -HALF - 0.2), at(HALF, -HALF - 0.2), { ...ASKED, weight: "heavy" }),
      words(at(0, -HALF - 0.75), "you stand here", { tone: "ink", size: 0.8 }),
      ...arrow("X", x, x ?? "right", site.id === SITES.x),
      ...arrow("Y", y, y ?? "away", site.id === SITES.y),
      ...(site.id === SITES.words || isMirrored
        ? [words(at(-1.05, -1.8), isMirrored ? "mirrored" : "words", { tone: "needs you", size: 0.8 })]
        : []),
    ],
  };
}

/** Full once it is seen, dashed as drawn before. */
function arrow(name: string, seen: Way | undefined, way: Way, isAsked: boolean): Primitive[] {
  const [dx, dy] = ALONG[way];
  const pen = seen ? DATA : isAsked ? { ...ASKED, dashed: true as const } : FAINT;
  const tip = at(LONG * dx, LONG * dy);
  const barb = (side: 1 | -1) => at(tip.x - 0.4 * dx + side * 0.22 * dy, tip.y - 0.4 * dy - side * 0.22 * dx);
  return [
    line(at(0, 0), tip, pen),
    path([barb(1), tip, barb(-1)], pen),
    words(at(tip.x * 0.6 + 0.45 * Math.abs(dy), tip.y * 0.6 + 0.3 * Math.abs(dx)), seen ? name : `${name}?`, {
      tone: seen ? "data" : isAsked ? "needs you" : "faint",
      size: 0.9,
    }),
  ];
}
