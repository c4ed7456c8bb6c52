/** The rectangle with the length that is asked for, leaning as it is found. */
import type { Detail, Primitive } from "../../drawing/scene";
import { shownNumber } from "../../metrology/quantity-text";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import type { Focus, History } from "../../trial/history";
import { CORNERS, type Corner, LENGTHS, type LengthId } from "./layout";
import { leanOf } from "./lean";
import type { SquarenessPlan } from "./plan";

const RADIUS = 3.6;
const HALF = { x: 2.1, y: 1.5 };
/** A lean is drawn so many times larger, and no more than this. */
const [LARGER, MOST] = [100, 0.35];

export function detailOf(history: History<SquarenessPlan>, focus: Focus): Detail | null {
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const lean = leanOf(history, round)?.lean.quantity.value ?? 0;
  const shear = Math.max(-MOST, Math.min(MOST, LARGER * lean));
  const at = (corner: Corner) => {
    const y = corner.startsWith("back") ? HALF.y : -HALF.y;
    return { x: (corner.endsWith("right") ? HALF.x : -HALF.x) + shear * (y + HALF.y) * 0.5, y };
  };
  const value = focus.typed ?? quantitiesAt(round.answers, site.id).at(-1) ?? null;
  const { from, to } = LENGTHS[site.id as LengthId];
  const line = (points: { x: number; y: number }[], tone: "ink" | "faint" | "data", closed: boolean): Primitive => ({
    kind: "stroke",
    closed,
    weight: tone === "data" ? "heavy" : "thin",
    widthMm: 0,
    dashed: tone === "faint",
    tone,
    points,
  });
  const [a, b] = [at(from), at(to)];
  const text = value === null ? "?" : shownNumber(value, lengthUnitOf(history), 2);
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 + 0.3 };
  return {
    title: `Detail, ${site.label}`,
    note: lean === 0 ? "where the lines cross; front below" : `lean drawn ${LARGER} times larger; front below`,
    radius: RADIUS,
    strip: { low: -HALF.y - 0.5, high: HALF.y + 0.5 },
    primitives: [
      line(CORNERS.map(at), "ink", true),
      line([at("front right"), at("back left")], "faint", false),
      line([at("front left"), at("back right")], "faint", false),
      line([a, b], "data", false),
      { kind: "highlight", at: a, radiusMm: 0.2, sign: "ring", tone: "needs you" },
      { kind: "highlight", at: b, radiusMm: 0.2, sign: "ring", tone: "needs you" },
      { kind: "text", at: middle, text, size: 1, anchor: "middle", tone: "data" },
    ],
  };
}
