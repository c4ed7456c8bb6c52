/** Where the jaws go: a cross between four dots at either end of a length. */
import { ASKED, at, box, DATA, FAINT, line, mark, words } from "../../../drawing/close-up";
import type { Detail, Primitive } from "../../../drawing/scene";
import { knownLengthDetail } from "../../../measuring/known-length";
import { plain } from "../../../metrology/quantity-text";
import { withinSentence } from "../../../metrology/sentence-case";
import type { Focus, History, RoundRecord } from "../../../trial/history";
import { lookedAt } from "../../../trial/looked-at";
import { type Vector, worstPoint } from "../map";
import type { FieldPlan } from "../plan";
import { dotsOf, GRID_LENGTHS, gridEndsOf, gridLengthOf, gridLengthsOf, reachMm } from "./lengths";
import { gridIn } from "./observe";

const RADIUS = 3.6;
const HALF = 2.2;
/** The largest error is drawn as this share of half a side, and never so many times larger. */
const [ENLARGED, MOST_TIMES] = [0.12, 200];

export function gridDetail(history: History<FieldPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  const ofKnown = looked && knownLengthDetail(looked);
  if (!looked || ofKnown) return ofKnown;
  const { round, site, text } = looked;
  const { plan } = round;
  const reach = reachMm(plan);
  const scale = HALF / reach;
  const { times, shown } = enlarged(history, round);
  const dots: Primitive[] = dotsOf(plan).map((d) => {
    const lies = shown(d);
    const middle = at(lies.x * scale, lies.y * scale);
    return mark(middle, middle, Math.max(0.04, d.diameterMm * scale), times > 1 ? "ink" : "faint");
  });
  const note = times > 1 ? `errors drawn ${plain(times, 0)} times larger; front below` : "the whole grid; front below";
  const common = [box(-HALF - 0.3, -HALF - 0.3, HALF + 0.3, HALF + 0.3, FAINT), ...dots];
  if (!gridLengthsOf(plan).some((id) => id === site.id))
    return {
      title: `Detail, ${withinSentence(site.label)}`,
      note,
      radius: RADIUS,
      strip: { low: -HALF - 0.5, high: HALF + 0.5 },
      primitives: common,
    };
  const id = gridLengthOf(site.id);
  const { from, to } = gridEndsOf(id, plan);
  const [a, b] = [at(from.x * scale, from.y * scale), at(to.x * scale, to.y * scale)];
  const cross = (p: { x: number; y: number }): Primitive[] => [
    line(at(p.x - 0.16, p.y), at(p.x + 0.16, p.y), DATA),
    line(at(p.x, p.y - 0.16), at(p.x, p.y + 0.16), DATA),
  ];
  return {
    title: `Detail, ${withinSentence(GRID_LENGTHS[id].label)}`,
    note: "from cross to cross; front below",
    radius: RADIUS,
    strip: { low: -HALF - 0.5, high: HALF + 0.5 },
    primitives: [
      ...common,
      line(a, b, DATA),
      ...cross(a),
      ...cross(b),
      words(at((2 * a.x + b.x) / 3, (2 * a.y + b.y) / 3 + 0.3), text, ASKED),
    ],
  };
}

/** Dots with their errors so many times larger that they are seen; as drawn before they are known. */
function enlarged(history: History<FieldPlan>, round: RoundRecord<FieldPlan>) {
  const found = gridIn(history, round)?.found;
  if (!found) return { times: 1, shown: (p: Vector) => p };
  const reach = reachMm(round.plan);
  const largest = Math.max(1e-6, worstPoint(found.to, reach).mm);
  const times = Math.max(1, Math.min(MOST_TIMES, Math.floor((ENLARGED * reach) / largest)));
  return {
    times,
    shown: (p: Vector): Vector => {
      const lies = found.to(p);
      return { x: p.x + times * (lies.x - p.x), y: p.y + times * (lies.y - p.y) };
    },
  };
}
