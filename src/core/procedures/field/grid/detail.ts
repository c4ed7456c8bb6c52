/** Where the jaws go: a cross between four dots at either end of a length. */
import { ASKED, at, box, DATA, FAINT, line, mark, words } from "../../../drawing/close-up";
import type { Detail, Primitive } from "../../../drawing/scene";
import { knownLengthDetail } from "../../../measuring/known-length";
import { withinSentence } from "../../../metrology/sentence-case";
import type { Focus, History } from "../../../trial/history";
import { lookedAt } from "../../../trial/looked-at";
import type { FieldPlan } from "../plan";
import { dotsOf, GRID_LENGTHS, gridEndsOf, gridLengthOf, gridLengthsOf, reachMm } from "./lengths";

const RADIUS = 3.6;
const HALF = 2.2;

export function gridDetail(history: History<FieldPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  const ofKnown = looked && knownLengthDetail(looked);
  if (!looked || ofKnown) return ofKnown;
  const { round, site, text } = looked;
  const { plan } = round;
  const reach = reachMm(plan);
  const scale = HALF / reach;
  const dots: Primitive[] = dotsOf(plan).map((d) => {
    const r = Math.max(0.02, (d.diameterMm / 2) * scale);
    return mark(at(d.x * scale - r / 2, d.y * scale), at(d.x * scale + r / 2, d.y * scale), 2 * r, "faint");
  });
  const common = [box(-HALF - 0.3, -HALF - 0.3, HALF + 0.3, HALF + 0.3, FAINT), ...dots];
  if (!gridLengthsOf(plan).some((id) => id === site.id))
    return {
      title: `Detail, ${withinSentence(site.label)}`,
      note: "the whole grid; front below",
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
