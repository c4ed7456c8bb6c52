/** A square with mid-lines, in the working field, with the names of the lengths that are read. */
import { lengthAsk } from "../../../coupon/ask";
import { fittingLetters, letterStrokes } from "../../../coupon/lettering";
import { type CouponPath, lineSettings } from "../../../coupon/piece";
import type { RoundSpec } from "../../../coupon/round-spec";
import type { Site } from "../../../coupon/site";
import type { CouponPoint } from "../../../geometry/frames";
import { knownLengthSites } from "../../../measuring/known-length";
import { withinSentence } from "../../../metrology/sentence-case";
import type { Purpose } from "../../../trial/history";
import type { PlanContext } from "../../../trial/plan-form";
import { fieldBurn, onCoupon, signatureText } from "../field-burn";
import type { Vector } from "../map";
import type { FieldPlan } from "../plan";
import { endsOf, LENGTHS, type LengthId, lengthsOf, nominalMm } from "./lengths";

const PIECE = "field";
const LINES = "lines";
/** Lines go on beyond their crossings by this share of the field. */
const BEYOND = 0.018;
/** Letters, and how far names lie beside their lines, shares of the field. */
const [LETTERS, BESIDE] = [0.024, 0.05];
/** Half of a quarter tick, a share of the field. */
const TICK = 0.025;
const RADIUS = 0.07;
/** Between which shares of half a diagonal a stretch of it is drawn. */
const DRAWN = { from: 0.62, to: 0.74 } as const;
const PLAUSIBLE_SHARE = 1.12;

export function fieldRound(plan: FieldPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const sites = lengthsOf(plan).map((id) => siteOf(plan, id));
  return fieldBurn(plan, context, purpose, {
    id: PIECE,
    settings: lineSettings(LINES, "Lines and words", plan.speedMmPerS, plan.powerPct),
    paths: pathsOf(plan, context),
    sites: [...sites, ...knownLengthSites(plan, sites)],
    delivery: "A square in the middle of the field",
    checks: [],
  });
}

function pathsOf(plan: FieldPlan, context: PlanContext): CouponPath[] {
  const { fieldMm, sideXMm, sideYMm } = plan;
  const [ax, ay, beyond, tick] = [sideXMm / 2, sideYMm / 2, BEYOND * fieldMm, TICK * fieldMm];
  const at = (x: number, y: number) => onCoupon({ x, y }, plan);
  const path = (...points: CouponPoint[]): CouponPath => ({ points, closed: false, settings: LINES });
  const level = (y: number) => path(at(-ax - beyond, y), at(ax + beyond, y));
  const upright = (x: number) => path(at(x, -ay - beyond), at(x, ay + beyond));
  const ticks =
    plan.way === "nine"
      ? [-0.5, 0.5].flatMap((share) => [
          path(at(share * ax, -tick), at(share * ax, tick)),
          path(at(-tick, share * ay), at(tick, share * ay)),
        ])
      : [];
  return [
    ...[-ay, 0, ay].map(level),
    ...[-ax, 0, ax].map(upright),
    ...ticks,
    ...([-1, 1] as const).flatMap((a) =>
      ([-1, 1] as const).map((b) =>
        path(at(a * DRAWN.from * ax, b * DRAWN.from * ay), at(a * DRAWN.to * ax, b * DRAWN.to * ay)),
      ),
    ),
    ...namesOf(plan),
    ...signatureOf(plan, signatureText(context)),
  ];
}

function namesOf(plan: FieldPlan): CouponPath[] {
  const letters = LETTERS * plan.fieldMm;
  const beside = BESIDE * plan.fieldMm;
  return lengthsOf(plan).flatMap((id) => {
    const { from } = endsOf(id, plan);
    const p = nameAt(id, plan);
    const isLevel = id.startsWith("x");
    const inward = (v: number) => (v > 0 ? -beside : beside);
    const where = id.startsWith("diagonal")
      ? { x: p.x - Math.sign(p.x) * beside, y: p.y }
      : isLevel
        ? { x: p.x, y: p.y + inward(from.y) - (from.y > 0 ? 0 : letters / 2) }
        : { x: p.x + inward(from.x), y: p.y };
    return letterStrokes(LENGTHS[id].mark, onCoupon(where, plan), letters, "middle").map(
      (points): CouponPath => ({ points, closed: false, settings: LINES }),
    );
  });
}

/** A place on a line that is clear of every crossing. */
function nameAt(id: LengthId, plan: FieldPlan): Vector {
  const { from, to } = endsOf(id, plan);
  const share = id.startsWith("diagonal") ? 0.84 : id.endsWith("half") ? 0.5 : id.endsWith("quarter") ? 0.25 : 0.32;
  return { x: from.x + share * (to.x - from.x), y: from.y + share * (to.y - from.y) };
}

/** In the quarter at the front left, where no line is. */
function signatureOf(plan: FieldPlan, text: string): CouponPath[] {
  const letters = fittingLetters(text, 0.32 * plan.sideXMm, LETTERS * plan.fieldMm);
  const at = onCoupon({ x: -plan.sideXMm / 4, y: -plan.sideYMm / 4 }, plan);
  return letterStrokes(text, at, letters, "middle").map(
    (points): CouponPath => ({ points, closed: false, settings: LINES }),
  );
}

function siteOf(plan: FieldPlan, id: LengthId): Site {
  const { label } = LENGTHS[id];
  const { from, to } = endsOf(id, plan);
  const [a, b] = [onCoupon(from, plan), onCoupon(to, plan)];
  return {
    id,
    label,
    question: `How long is the ${withinSentence(label)}? Measure between the crossings of the lines.`,
    ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_SHARE * nominalMm(id, plan) }),
    measurand: { kind: "span", from: { kind: "cross", near: a }, to: { kind: "cross", near: b } },
    place: { piece: PIECE, at: onCoupon(nameAt(id, plan), plan), radiusMm: RADIUS * plan.fieldMm },
    repeats: plan.repeats,
    openEnded: false,
  };
}
