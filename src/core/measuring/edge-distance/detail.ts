/** The close-up: the corner of the stock, the line, and from where to where it is measured. */

import type { Detail, Primitive } from "../../drawing/scene";
import { shownNumber } from "../../metrology/quantity-text";
import { withinSentence } from "../../metrology/sentence-case";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import type { Focus, History } from "../../trial/history";
import { knownLengthDetail } from "../known-length";
import { type EdgeTerms, ofEdge, sideOf } from "./terms";

const RADIUS = 3.4;
/** The corner of the edges, where a line lies from its edge, how long it is drawn. */
const [CORNER, OFF, LONG, LINE] = [-2, 1.6, 4, 0.3];

export function edgeDetail<P extends EdgeTerms>(history: History<P>, focus: Focus): Detail | null {
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const { plan } = round;
  const value = focus.typed ?? quantitiesAt(round.answers, site.id).at(-1) ?? null;
  const text = value === null ? "?" : shownNumber(value, lengthUnitOf(history), 2);
  const ofKnown = knownLengthDetail(site, value === null ? null : text);
  if (ofKnown) return ofKnown;
  const { axis, which } = ofEdge(site.id);
  const turned = ({ u, v }: { u: number; v: number }) => ({
    x: (CORNER + u) * (plan.sideX === "left" ? 1 : -1),
    y: (CORNER + v) * (plan.sideY === "front" ? 1 : -1),
  });
  const stroke = (from: [number, number], to: [number, number], tone: "ink" | "data", widthMm = 0): Primitive => ({
    kind: "stroke",
    closed: false,
    weight: widthMm > 0 ? "mark" : "heavy",
    widthMm,
    dashed: false,
    tone,
    points: [turned({ u: from[0], v: from[1] }), turned({ u: to[0], v: to[1] })],
  });
  const along = { 1: OFF + 0.4, 3: (OFF + LONG) / 2, 2: LONG - 0.2 }[which];
  const mark = plan.measuredTo === "near" ? OFF - LINE / 2 : OFF;
  const [from, to] =
    axis === "x"
      ? [turned({ u: 0, v: along }), turned({ u: mark, v: along })]
      : [turned({ u: along, v: 0 }), turned({ u: along, v: mark })];
  return {
    title: `Detail, ${withinSentence(site.label)}`,
    note: `${plan.measuredTo === "near" ? "to the near edge of the line" : "to the middle of the line"}, from the ${sideOf(plan, axis)}; not to scale`,
    radius: RADIUS,
    strip: { low: -2.6, high: 2.6 },
    primitives: [
      stroke([0, 0], [LONG + 1.2, 0], "ink"),
      stroke([0, 0], [0, LONG + 1.2], "ink"),
      stroke([OFF, OFF], [OFF, LONG], "ink", LINE),
      stroke([OFF, OFF], [LONG, OFF], "ink", LINE),
      {
        kind: "dimension",
        from,
        to,
        along: axis,
        at: axis === "x" ? from.y : from.x,
        text,
        tone: "data",
      },
    ],
  };
}
