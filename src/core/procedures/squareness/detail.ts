/** The rectangle with the length that is asked for, leaning as it is found. */
import { at, DATA, FAINT, INK, line, outline, ring, words } from "../../drawing/close-up";
import type { Detail } from "../../drawing/scene";
import type { Focus, History } from "../../trial/history";
import { lookedAt } from "../../trial/looked-at";
import { CORNERS, type Corner, LENGTHS, type LengthId } from "./layout";
import { leanOf } from "./lean";
import type { SquarenessPlan } from "./plan";

const RADIUS = 3.6;
const HALF = { x: 2.1, y: 1.5 };
/** A lean is drawn so many times larger, and no more than this. */
const [LARGER, MOST] = [100, 0.35];

export function detailOf(history: History<SquarenessPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  if (!looked) return null;
  const { round, site, text } = looked;
  const lean = leanOf(history, round)?.lean.quantity.value ?? 0;
  const shear = Math.max(-MOST, Math.min(MOST, LARGER * lean));
  const cornerAt = (corner: Corner) => {
    const y = corner.startsWith("back") ? HALF.y : -HALF.y;
    return at((corner.endsWith("right") ? HALF.x : -HALF.x) + shear * (y + HALF.y) * 0.5, y);
  };
  const { from, to } = LENGTHS[site.id as LengthId];
  const [a, b] = [cornerAt(from), cornerAt(to)];
  return {
    title: `Detail, ${site.label}`,
    note: lean === 0 ? "where the lines cross; front below" : `lean drawn ${LARGER} times larger; front below`,
    radius: RADIUS,
    strip: { low: -HALF.y - 0.5, high: HALF.y + 0.5 },
    primitives: [
      outline(CORNERS.map(cornerAt), INK),
      line(cornerAt("front right"), cornerAt("back left"), FAINT),
      line(cornerAt("front left"), cornerAt("back right"), FAINT),
      line(a, b, DATA),
      ring(a, 0.2),
      ring(b, 0.2),
      words(at((a.x + b.x) / 2, (a.y + b.y) / 2 + 0.3), text, { tone: "data" }),
    ],
  };
}
