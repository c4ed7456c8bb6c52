/**
 * The best value of a ramp from n readings s_i, in mm along a strip of length L:
 *
 *   s^2 = (nu0 (0.03 L)^2 + sum (s_i - mean)^2) / (nu0 + n - 1),   u(mean) = s / sqrt(n),   nu = nu0 + n - 1
 *
 * An eye repeats a reading within 3 % of the strip. This counts like nu0 = 4 readings from before. (common practice, no source) [pooled estimate:
 * JCGM 100:2008, H.3.6] Ramps over the same setting are joined by 1/u^2, in logarithms for settings that count by ratio. If the ramps differ by more than
 * their uncertainties, the difference is added to the uncertainty. [Birge, Phys. Rev. 40 (1932) 207; from memory]
 */
import { type Budgeted, type BudgetPart, joined } from "../../metrology/budget";
import { plain } from "../../metrology/quantity-text";
import { quantitiesAt } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import { BEST_SITE, END_SITE, READ_STEP_MM, START_SITE } from "./coupon";
import { isByRatio, type RampPlan } from "./plan";
import { along, spanOf, valueAt, weakEnd } from "./strip";

const EYE = { share: 0.03, readings: 4 };
/** Readings that differ by more than this share of the strip show several good points. */
const APART = 0.3;
/** Start and end of the good range may be beyond the best point by this share of the strip. */
const WRONG_SIDE = 0.05;

export type Ramp = {
  /** Number of its round. */
  n: number;
  plan: RampPlan;
  /** Readings of the best point and their mean, mm along the strip. */
  readings: readonly number[];
  best: number;
  /** Start and end of the good range, mm along the strip; `null` = not read, or not on the strip. */
  start: number | null;
  end: number | null;
  /** In the units of `along`. */
  value: Budgeted;
};

export type Found = {
  ramps: readonly Ramp[];
  /** The newest ramp. */
  last: Ramp;
  /** All ramps together, in the units of `along`. */
  best: Budgeted;
};

export const READ_FIRST = "Read the best point of the strip.";

export type FoundOrWhy = { ok: true; found: Found } | { ok: false; status: "open" | "unsolvable"; why: string };

/** @param round the newest one to use */
export function foundIn({ rounds }: Pick<History<RampPlan>, "rounds">, round: RoundRecord<RampPlan>): FoundOrWhy {
  const fault = faultOf(round);
  if (fault) return { ok: false, status: "unsolvable", why: fault };
  const ramps = rounds.filter((r) => r.n <= round.n && isAlike(r.plan, round.plan)).flatMap((r) => rampOf(r) ?? []);
  const last = ramps.at(-1);
  if (last?.n !== round.n) return { ok: false, status: "open", why: READ_FIRST };
  return { ok: true, found: { ramps, last, best: together(ramps) } };
}

/** @returns `null` before the best point is read */
function rampOf({ n, plan, answers }: RoundRecord<RampPlan>): Ramp | null {
  const readings = quantitiesAt(answers, BEST_SITE);
  if (readings.length === 0) return null;
  const mean = readings.reduce((s, v) => s + v, 0) / readings.length;
  const freedom = EYE.readings + readings.length - 1;
  const scatter = readings.reduce((s, v) => s + (v - mean) ** 2, 0);
  const sd = Math.sqrt((EYE.readings * (EYE.share * plan.lengthMm) ** 2 + scatter) / freedom);
  const perMm = spanOf(plan) / plan.lengthMm;
  const value = joined(along(plan, valueAt(plan, mean)), [
    {
      id: `eye ${n}`,
      label: `Repeatability of the eye, burn ${n}`,
      kind: "A",
      standardUncertainty: (perMm * sd) / Math.sqrt(readings.length),
      degreesOfFreedom: freedom,
    },
    {
      id: `scale ${n}`,
      label: `Resolution of the scale, burn ${n}`,
      kind: "B",
      standardUncertainty: (perMm * READ_STEP_MM) / Math.sqrt(12),
      degreesOfFreedom: "infinite",
    },
  ]);
  return {
    n,
    plan,
    readings,
    best: mean,
    start: quantitiesAt(answers, START_SITE).at(-1) ?? null,
    end: quantitiesAt(answers, END_SITE).at(-1) ?? null,
    value,
  };
}

function together(ramps: readonly Ramp[]): Budgeted {
  const weights = ramps.map(({ value: { quantity } }) => 1 / quantity.standardUncertainty ** 2);
  const all = weights.reduce((s, w) => s + w, 0);
  const share = (i: number) => (weights[i] ?? 0) / all;
  const mean = ramps.reduce((s, r, i) => s + share(i) * r.value.quantity.value, 0);
  const own = ramps.flatMap((r, i) =>
    r.value.parts.map((part) => ({ ...part, standardUncertainty: share(i) * part.standardUncertainty })),
  );
  const squares = ramps.reduce((s, r, i) => s + (weights[i] ?? 0) * (r.value.quantity.value - mean) ** 2, 0);
  return joined(mean, [...own, ...differencePart(squares, ramps.length - 1, 1 / Math.sqrt(all))]);
}

/** What the burns differ by beyond their own uncertainties. @param u of their mean */
function differencePart(squares: number, freedom: number, u: number): BudgetPart[] {
  const ratio = freedom > 0 ? squares / freedom : 0;
  if (ratio <= 1) return [];
  const standardUncertainty = u * Math.sqrt(ratio - 1);
  return [
    { id: "burns", label: "Difference between the burns", kind: "A", standardUncertainty, degreesOfFreedom: freedom },
  ];
}

/** Ramps over the same setting of the same stock, with the same other settings. */
function isAlike(a: RampPlan, b: RampPlan): boolean {
  const fixed = (["speedMmPerS", "powerPct", "rowPitchMm", "passes", "pulseKHz", "pulseNs"] as const).filter(
    (key) => key !== a.varied,
  );
  return (
    a.varied === b.varied && a.stock === b.stock && a.purpose === b.purpose && fixed.every((key) => a[key] === b[key])
  );
}

/** Why the readings contradict each other, with the remedy; `null` if they agree. */
function faultOf(round: RoundRecord<RampPlan>): string | null {
  const ramp = rampOf(round);
  if (!ramp) return null;
  const { plan, readings, best, start, end } = ramp;
  const beyond = [...readings, start, end].find((s) => s !== null && (s < 0 || s > plan.lengthMm));
  if (beyond !== undefined && beyond !== null)
    return `The reading ${plain(beyond)} mm is beyond the scale. The scale ends at ${plain(plan.lengthMm)} mm. Undo this reading and read again.`;
  const fromWeak = (s: number) => (weakEnd(plan) === "start" ? s : plan.lengthMm - s);
  const reach = WRONG_SIDE * plan.lengthMm;
  if (start !== null && fromWeak(start) > fromWeak(best) + reach)
    return `The good range starts at ${plain(start)} mm, after the best point at ${plain(best, 1)} mm. Read both points again.`;
  if (end !== null && fromWeak(end) < fromWeak(best) - reach)
    return `The good range ends at ${plain(end)} mm, before the best point at ${plain(best, 1)} mm. Read both points again.`;
  return null;
}

/** By how much the readings of the best point differ, mm; `null` if one point explains them. */
export function spreadOf({ readings, plan }: Ramp): number | null {
  const spread = Math.max(...readings) - Math.min(...readings);
  return spread > APART * plan.lengthMm ? spread : null;
}

/** A best point within this share of the strip from an end may really be beyond the end. */
const AT_END = 0.08;

/** The end with the best point; `null` if the best point is inside the strip. */
export function endWithBest({ best, plan }: Ramp): "start" | "end" | null {
  const share = best / plan.lengthMm;
  if (share < AT_END) return "start";
  return share > 1 - AT_END ? "end" : null;
}

/** Inverse of `along`. */
export function valueOfAlong(plan: RampPlan, at: number): number {
  return isByRatio(plan) ? Math.exp(at) : at;
}
