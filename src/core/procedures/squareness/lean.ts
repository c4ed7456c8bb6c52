/**
 * How far Y leans toward X, by what was measured between the corners of a rectangle.
 *
 *   diagonals:  sin g = (d2^2 - d1^2) / (4 w h)      d2 from front left to back right
 *   triangle:   sin g = (w^2 + h^2 - d1^2) / (2 w h)
 *
 * Both hold for any parallelogram. g > 0: +Y leans toward +X. What a gauge always reads too much is in every length alike: it all but
 * cancels between the diagonals, and stays in the triangle. [law of cosines]
 */
import { type Budgeted, type BudgetPart, joined } from "../../metrology/budget";
import { commonUncertaintyMm, type Gauge } from "../../metrology/gauge";
import type { RoundRecord } from "../contract";
import { gaugeName, placingOf, readLengths, type SiteRead } from "../read-lengths";
import { lengthsOf } from "./coupon";
import { type LengthId, nominalMm } from "./layout";
import type { SquarenessPlan } from "./plan";

export type Lean = {
  /** sin g. */
  lean: Budgeted;
  read: Partial<Record<LengthId, SiteRead>>;
  /** Root of the sum of the squared diagonals minus what the sides say, mm, and its uncertainty; `null` where not all four are read. */
  misfit: { mm: number; u: number } | null;
};

/** @returns `null` until both diagonals, or two sides and a diagonal, are read, or if no parallelogram has these lengths */
export function leanOf(round: RoundRecord<SquarenessPlan>, gauges: readonly Gauge[]): Lean | null {
  const { plan } = round;
  const read: Partial<Record<LengthId, SiteRead>> = {};
  for (const r of readLengths(round.answers, lengthsOf(plan), gauges))
    read[r.site as LengthId] = betterOf(read[r.site as LengthId], r);
  const length = (id: LengthId) => read[id]?.mean ?? nominalMm(id, plan);
  const [w, h, d1, d2] = [length("width"), length("height"), length("first"), length("second")];
  if (neededFor(plan).some((id) => !read[id])) return null;
  const area = w * h;
  const value = plan.way === "diagonals" ? (d2 ** 2 - d1 ** 2) / (4 * area) : (w ** 2 + h ** 2 - d1 ** 2) / (2 * area);
  if (!(area > 0) || !(Math.abs(value) < 1)) return null;
  // How much the lean changes by a mm in each length.
  const by: Partial<Record<LengthId, number>> =
    plan.way === "diagonals"
      ? { first: -d1 / (2 * area), second: d2 / (2 * area), width: -value / w, height: -value / h }
      : { first: -d1 / area, width: 1 / h - value / w, height: 1 / w - value / h };
  return { lean: joined(value, partsOf(by, read)), read, misfit: misfitOf(read) };
}

/** Lengths that the calculation needs. */
export function neededFor({ way }: Pick<SquarenessPlan, "way">): LengthId[] {
  return way === "diagonals" ? ["first", "second"] : ["width", "height", "first"];
}

/** Of two gauges the one that scatters less. */
function betterOf(known: SiteRead | undefined, other: SiteRead): SiteRead {
  return known && known.u <= other.u ? known : other;
}

function partsOf(by: Partial<Record<LengthId, number>>, read: Lean["read"]): BudgetPart[] {
  const sites = Object.values(read);
  const gauges = [...new Map(sites.map((s) => [s.gauge.id, s])).values()];
  const share = (id: string) => by[id as LengthId] ?? 0;
  return gauges
    .flatMap((first): BudgetPart[] => {
      const own = sites.filter((s) => s.gauge.id === first.gauge.id);
      const common = own.reduce((sum, s) => sum + share(s.site), 0);
      return [
        { ...placingOf(first), standardUncertainty: Math.hypot(...own.map((s) => share(s.site) * s.u)) },
        {
          ...{ id: `limit ${first.gauge.id}`, label: `Limit of error, ${gaugeName(first.gauge)}`, kind: "B" },
          ...{ degreesOfFreedom: "infinite", standardUncertainty: Math.abs(common) * commonUncertaintyMm(first.gauge) },
        },
      ];
    })
    .filter((part) => part.standardUncertainty > 0);
}

/** In a parallelogram d1^2 + d2^2 = 2 (w^2 + h^2). */
function misfitOf({ width, height, first, second }: Lean["read"]): Lean["misfit"] {
  if (!width || !height || !first || !second) return null;
  const bySides = Math.sqrt(2 * (width.mean ** 2 + height.mean ** 2));
  const byDiagonals = Math.hypot(first.mean, second.mean);
  const each = [width, height, first, second];
  const u = Math.hypot(...each.map((r) => r.u), ...each.map((r) => commonUncertaintyMm(r.gauge)));
  return { mm: byDiagonals - bySides, u: Math.SQRT2 * u };
}
