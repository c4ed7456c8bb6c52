/** The square as it came out, its errors enlarged, with the length that is read. */
import { ASKED, at, box, DATA, FAINT, line, outline, path, ring, words } from "../../../drawing/close-up";
import type { Detail, Primitive } from "../../../drawing/scene";
import { knownLengthDetail } from "../../../measuring/known-length";
import { plain } from "../../../metrology/quantity-text";
import { withinSentence } from "../../../metrology/sentence-case";
import type { Focus, History, RoundRecord } from "../../../trial/history";
import { lookedAt } from "../../../trial/looked-at";
import { mapped, type Vector } from "../map";
import { type FieldPlan, limitsOf } from "../plan";
import { endsOf, LENGTHS, lengthOf } from "./lengths";
import { fieldIn } from "./observe";

const RADIUS = 3.6;
const HALF = 2.1;
const STEPS = 12;
/** The largest error is drawn as this share of half a side. */
const ENLARGED = 0.16;

export function fieldDetail(history: History<FieldPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  const ofKnown = looked && knownLengthDetail(looked);
  if (!looked || ofKnown) return ofKnown;
  const { round, site, text } = looked;
  const length = lengthOf(site.id);
  const { times, to } = enlarged(history, round);
  const scale = (2 * HALF) / Math.max(round.plan.sideXMm, round.plan.sideYMm);
  const place = (p: Vector) => at(to(p).x * scale, to(p).y * scale);
  const drawn = (p: Vector) => at(p.x * scale, p.y * scale);
  const { from, to: end } = endsOf(length, round.plan);
  const middle = place({ x: (2 * from.x + end.x) / 3, y: (2 * from.y + end.y) / 3 });
  const [ax, ay] = [round.plan.sideXMm / 2, round.plan.sideYMm / 2];
  return {
    title: `Detail, ${withinSentence(LENGTHS[length].label)}`,
    note: times > 1 ? `errors drawn ${plain(times, 0)} times larger; front below` : "as drawn; front below",
    radius: RADIUS,
    strip: { low: -HALF - 0.5, high: HALF + 0.5 },
    primitives: [
      outline(
        [drawn({ x: -ax, y: -ay }), drawn({ x: ax, y: -ay }), drawn({ x: ax, y: ay }), drawn({ x: -ax, y: ay })],
        FAINT,
      ),
      ...squareLines(round.plan).map((points) => path(points.map(place), { tone: "ink" })),
      line(place(from), place(end), DATA),
      ring(place(from), 0.2),
      ring(place(end), 0.2),
      words(at(middle.x, middle.y + 0.28), text, ASKED),
      ...(round.answers.length === 0 ? limitsDrawn(round, history.machine, scale) : []),
    ],
  };
}

/** Sides and mid-lines as bent lines, from the middle of the field, mm. */
export function squareLines({ sideXMm, sideYMm }: Pick<FieldPlan, "sideXMm" | "sideYMm">): Vector[][] {
  const [ax, ay] = [sideXMm / 2, sideYMm / 2];
  const along = Array.from({ length: STEPS + 1 }, (_, i) => -1 + (2 * i) / STEPS);
  return [-1, 0, 1].flatMap((share) => [
    along.map((t) => ({ x: t * ax, y: share * ay })),
    along.map((t) => ({ x: share * ax, y: t * ay })),
  ]);
}

/** The map with its errors so many times larger that they are seen; as drawn before they are known. */
export function enlarged(
  history: History<FieldPlan>,
  round: RoundRecord<FieldPlan>,
): { times: number; to: (p: Vector) => Vector } {
  const read = fieldIn(history, round);
  if (!read) return { times: 1, to: (p) => p };
  const half = round.plan.fieldMm / 2;
  const shift = (p: Vector) => {
    const to = mapped(read.map, p, half);
    return { x: to.x - p.x, y: to.y - p.y };
  };
  const largest = Math.max(
    1e-6,
    ...squareLines(round.plan)
      .flat()
      .map((p) => Math.hypot(shift(p).x, shift(p).y)),
  );
  const times = Math.max(1, Math.min(100, Math.floor((ENLARGED * half) / largest)));
  return {
    times,
    to: (p) => {
      const by = shift(p);
      return { x: p.x + times * by.x, y: p.y + times * by.y };
    },
  };
}

/** What lens and plate reach, around the square, with their names. @param scale of the close-up */
function limitsDrawn({ plan }: RoundRecord<FieldPlan>, machine: History["machine"], scale: number): Primitive[] {
  const limits = limitsOf(plan, machine).filter((l) => l.from !== "controller");
  if (limits.length === 0) return [];
  const halves = limits.map((l) => (l.sideMm / 2) * scale);
  const names = limits.map((l) => `${l.from} ${plain(l.sideMm, 1)} mm`).join(", ");
  return [
    ...halves.map((half) => box(-half, -half, half, half, FAINT)),
    words(at(0, -Math.max(...halves) - 0.32), names, { tone: "ink", size: 0.8 }),
  ];
}

/** The same over the drawing of the coupon. */
export function bentSquare(history: History<FieldPlan>): Primitive[] {
  const round = history.rounds.at(-1);
  if (!round) return [];
  const { times, to } = enlarged(history, round);
  if (times === 1) return [];
  const middle = round.plan.fieldMm / 2;
  return squareLines(round.plan).map((points) =>
    path(
      points.map((p) => at(to(p).x + middle, to(p).y + middle)),
      { tone: "data" },
    ),
  );
}
