/**
 * The best value of a ramp from looks at its strip. With n looks s_i mm along a strip of length L:
 *
 *   s^2 = (nu0 (0.03 L)^2 + sum (s_i - mean)^2) / (nu0 + n - 1),   u(mean) = s / sqrt(n),   nu = nu0 + n - 1
 *
 * An eye repeats a place within 3 % of the strip: as if seen in nu0 = 4 looks before. (common practice, no source) [pooled estimate: JCGM 100:2008,
 * H.3.6] Ramps over the same setting are joined by 1/u^2, in logarithms where ratios count.
 */
import { type Budgeted, joined } from "../../metrology/budget";
import { quantitiesAt } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import { BEGINS_SITE, BEST_SITE, READ_STEP_MM, TOO_MUCH_SITE } from "./coupon";
import { isByRatio, type RampPlan } from "./plan";
import { along, spanOf, valueAt, weakEnd } from "./strip";

const EYE = { share: 0.03, looks: 4 };
/** Looks that differ by more than this share of the strip show more than one good place. */
const APART = 0.3;
/** A place may lie on the wrong side of the best by this share of the strip. */
const WRONG_SIDE = 0.05;

export type Ramp = {
  /** Number of its round. */
  n: number;
  plan: RampPlan;
  /** mm along the strip: each look, and their mean. */
  looks: readonly number[];
  best: number;
  begins: number | null;
  tooMuch: number | null;
  /** As `along` has it. */
  value: Budgeted;
};

export type Found = {
  ramps: readonly Ramp[];
  /** The newest. */
  last: Ramp;
  /** Of all ramps together, as `along` has it. */
  best: Budgeted;
};

export type FoundOrWhy = { ok: true; found: Found } | { ok: false; status: "open" | "unsolvable"; why: string };

/** @param round the newest that counts */
export function foundIn({ rounds }: Pick<History<RampPlan>, "rounds">, round: RoundRecord<RampPlan>): FoundOrWhy {
  const fault = faultOf(round);
  if (fault) return { ok: false, status: "unsolvable", why: fault };
  const ramps = rounds.filter((r) => r.n <= round.n && isAlike(r.plan, round.plan)).flatMap((r) => rampOf(r) ?? []);
  const last = ramps.at(-1);
  if (last?.n !== round.n) return { ok: false, status: "open", why: "Read where the strip is best." };
  return { ok: true, found: { ramps, last, best: together(ramps) } };
}

/** @returns `null` before the best place is read */
function rampOf({ n, plan, answers }: RoundRecord<RampPlan>): Ramp | null {
  const looks = quantitiesAt(answers, BEST_SITE);
  if (looks.length === 0) return null;
  const mean = looks.reduce((s, v) => s + v, 0) / looks.length;
  const freedom = EYE.looks + looks.length - 1;
  const scatter = looks.reduce((s, v) => s + (v - mean) ** 2, 0);
  const sd = Math.sqrt((EYE.looks * (EYE.share * plan.lengthMm) ** 2 + scatter) / freedom);
  const perMm = spanOf(plan) / plan.lengthMm;
  const value = joined(along(plan, valueAt(plan, mean)), [
    {
      id: `eye ${n}`,
      label: `Repeatability of the eye, burn ${n}`,
      kind: "A",
      standardUncertainty: (perMm * sd) / Math.sqrt(looks.length),
      degreesOfFreedom: freedom,
    },
    {
      id: `scale ${n}`,
      label: `Step of the scale, burn ${n}`,
      kind: "B",
      standardUncertainty: (perMm * READ_STEP_MM) / Math.sqrt(12),
      degreesOfFreedom: "infinite",
    },
  ]);
  return {
    n,
    plan,
    looks,
    best: mean,
    begins: quantitiesAt(answers, BEGINS_SITE).at(-1) ?? null,
    tooMuch: quantitiesAt(answers, TOO_MUCH_SITE).at(-1) ?? null,
    value,
  };
}

function together(ramps: readonly Ramp[]): Budgeted {
  const weights = ramps.map(({ value: { quantity } }) => 1 / quantity.standardUncertainty ** 2);
  const all = weights.reduce((s, w) => s + w, 0);
  const share = (i: number) => (weights[i] ?? 0) / all;
  return joined(
    ramps.reduce((s, r, i) => s + share(i) * r.value.quantity.value, 0),
    ramps.flatMap((r, i) =>
      r.value.parts.map((part) => ({ ...part, standardUncertainty: share(i) * part.standardUncertainty })),
    ),
  );
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

/** Why the places that were read cannot all be right, and what to do; `null` where they can. */
function faultOf(round: RoundRecord<RampPlan>): string | null {
  const ramp = rampOf(round);
  if (!ramp) return null;
  const { plan, looks, best, begins, tooMuch } = ramp;
  const beyond = [...looks, begins, tooMuch].find((s) => s !== null && (s < 0 || s > plan.lengthMm));
  if (beyond !== undefined && beyond !== null)
    return `${beyond} mm is not on the scale, which ends at ${plan.lengthMm} mm. Take that reading back and read it again.`;
  const fromWeak = (s: number) => (weakEnd(plan) === "start" ? s : plan.lengthMm - s);
  const reach = WRONG_SIDE * plan.lengthMm;
  if (begins !== null && fromWeak(begins) > fromWeak(best) + reach)
    return `The mark begins at ${begins} mm and is best at ${round1(best)} mm, on the weak side of it. Read both places again.`;
  if (tooMuch !== null && fromWeak(tooMuch) < fromWeak(best) - reach)
    return `It is too much at ${tooMuch} mm and best at ${round1(best)} mm, on the strong side of it. Read both places again.`;
  return null;
}

function round1(mm: number): number {
  return Math.round(10 * mm) / 10;
}

/** Whether the looks show more than one good place. */
export function isApart({ looks, plan }: Ramp): boolean {
  return Math.max(...looks) - Math.min(...looks) > APART * plan.lengthMm;
}

/** Nearer to an end of the strip than this, the best may lie beyond it. */
const AT_END = 0.08;

/** The end at which the best lies; `null` where it lies inside. */
export function endOf({ best, plan }: Ramp): "start" | "end" | null {
  const share = best / plan.lengthMm;
  if (share < AT_END) return "start";
  return share > 1 - AT_END ? "end" : null;
}

/** The value of the setting, from what `along` makes of it. */
export function valueOfAlong(plan: RampPlan, at: number): number {
  return isByRatio(plan) ? Math.exp(at) : at;
}
