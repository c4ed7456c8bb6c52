/** The close-up: the corner of the stock, the line, and from where to where it is measured. */

import { at, dimensionAcross, dimensionUp, line, mark, type Pen } from "../../drawing/close-up";
import type { Detail } from "../../drawing/scene";
import { withinSentence } from "../../metrology/sentence-case";
import type { Focus, History } from "../../trial/history";
import { lookedAt } from "../../trial/looked-at";
import { knownLengthDetail } from "../known-length";
import { type EdgeTerms, ofEdge, sideOf } from "./terms";

const RADIUS = 3.4;
const EDGE: Pen = { tone: "ink", weight: "heavy" };
/** The corner of the edges, where a line lies from its edge, how long it is drawn. */
const [CORNER, OFF, LONG, LINE] = [-2, 1.6, 4, 0.3];

/** The corner of the stock, the line and where the jaws go; `null` for a point that the burn does not have. */
export function edgeDetail<P extends EdgeTerms>(history: History<P>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  const ofKnown = looked && knownLengthDetail(looked);
  if (!looked || ofKnown) return ofKnown;
  const { site, text } = looked;
  const { plan } = looked.round;
  const { axis, which } = ofEdge(site.id);
  const on = (u: number, v: number) =>
    at((CORNER + u) * (plan.sideX === "left" ? 1 : -1), (CORNER + v) * (plan.sideY === "front" ? 1 : -1));
  const along = { 1: OFF + 0.4, 3: (OFF + LONG) / 2, 2: LONG - 0.2 }[which];
  const reach = plan.measuredTo === "near" ? OFF - LINE / 2 : OFF;
  const [from, to] = axis === "x" ? [on(0, along), on(reach, along)] : [on(along, 0), on(along, reach)];
  return {
    title: `Detail, ${withinSentence(site.label)}`,
    note: `${plan.measuredTo === "near" ? "to the near edge of the line" : "to the middle of the line"}, from the ${sideOf(plan, axis)}; not to scale`,
    radius: RADIUS,
    strip: { low: -2.6, high: 2.6 },
    primitives: [
      line(on(0, 0), on(LONG + 1.2, 0), EDGE),
      line(on(0, 0), on(0, LONG + 1.2), EDGE),
      mark(on(OFF, OFF), on(OFF, LONG), LINE),
      mark(on(OFF, OFF), on(LONG, OFF), LINE),
      axis === "x" ? dimensionAcross(from, to, from.y, text) : dimensionUp(from, to, from.x, text),
    ],
  };
}
