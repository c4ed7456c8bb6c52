/** The straight edge, the line with its turn enlarged, and the distance that is read. */
import { at, DATA, dimensionUp, FAINT, line, quarterTurn } from "../../drawing/close-up";
import type { Detail, Primitive } from "../../drawing/scene";
import { withinSentence } from "../../metrology/sentence-case";
import type { Focus, History } from "../../trial/history";
import { lookedAt } from "../../trial/looked-at";
import type { TurnPlan } from "./plan";
import { turnIn } from "./solve";

const RADIUS = 3.4;
const [HALF, EDGE, LINE] = [2.2, -1.4, 0.4];
/** A turn is drawn so many times larger, and no more than this. */
const [LARGER, MOST] = [20, 0.22];

export function turnDetail(history: History<TurnPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  if (!looked) return null;
  const { round, site, text } = looked;
  const turn = turnIn(history, round)?.quantity.value ?? 0;
  const isFront = round.plan.fence === "front";
  // Drawn with the edge in front; an edge to the left is the same picture turned, with the ends the other way round.
  const slope = Math.max(-MOST, Math.min(MOST, LARGER * turn));
  const x = (site.id === "second") === isFront ? HALF * 0.8 : -HALF * 0.8;
  const y = (there: number) => LINE + slope * there;
  const drawn: Primitive[] = [
    line(at(-HALF - 0.4, EDGE), at(HALF + 0.4, EDGE), { tone: "ink", weight: "heavy" }),
    line(at(-HALF, LINE), at(HALF, LINE), FAINT),
    line(at(-HALF, y(-HALF)), at(HALF, y(HALF)), DATA),
    dimensionUp(at(x, EDGE), at(x, y(x)), x, text),
  ];
  return {
    title: `Detail, ${withinSentence(site.label)}`,
    note: turn === 0 ? "the straight edge is the heavy line" : `turn drawn ${LARGER} times larger`,
    radius: RADIUS,
    strip: { low: -HALF, high: HALF },
    primitives: isFront ? drawn : drawn.map((p) => quarterTurn(quarterTurn(quarterTurn(p)))),
  };
}
