/**
 * Where the uncertainty of a result comes from, part by part.
 *
 *   u^2 = sum u_i^2,  share_i = u_i^2 / u^2,  nu_eff = u^4 / sum u_i^4 / nu_i       [JCGM 100:2008 5.1.2, G.4.1]
 */
import { z } from "zod";
import { effectiveFreedom } from "../fitting/student-t";
import { freedomOf, type Measured, measured } from "./measured";
import { degreesOfFreedomSchema } from "./measured-schema";

export const budgetPartSchema = z.object({
  id: z.string(),
  /** `Repeatability, calipers`. */
  label: z.string(),
  /** A: from scatter seen; B: from what is stated or known. */
  kind: z.enum(["A", "B"]),
  /** Its part of the standard uncertainty, unit of the result. */
  standardUncertainty: z.number().nonnegative(),
  degreesOfFreedom: degreesOfFreedomSchema,
});
export type BudgetPart = z.infer<typeof budgetPartSchema>;

/** A value with the parts that its uncertainty is made of. */
export type Budgeted = { quantity: Measured; parts: BudgetPart[] };

/** Joins independent parts. */
export function joined(value: number, parts: readonly BudgetPart[]): Budgeted {
  const sources = parts.map((p) => ({ u: p.standardUncertainty, degreesOfFreedom: freedomOfPart(p) }));
  const quantity = measured(value, Math.hypot(...sources.map((s) => s.u)), effectiveFreedom(sources));
  return { quantity, parts: [...parts].sort((a, b) => b.standardUncertainty - a.standardUncertainty) };
}

/** The same result in other terms: times a factor. */
export function times(budgeted: Budgeted, factor: number): Budgeted {
  const size = Math.abs(factor);
  return {
    quantity: {
      ...budgeted.quantity,
      value: budgeted.quantity.value * factor,
      standardUncertainty: budgeted.quantity.standardUncertainty * size,
    },
    parts: budgeted.parts.map((p) => ({ ...p, standardUncertainty: p.standardUncertainty * size })),
  };
}

/** Share of a part in the variance of the whole, 0 to 1. */
export function shareOf(part: BudgetPart, parts: readonly BudgetPart[]): number {
  const variance = parts.reduce((sum, p) => sum + p.standardUncertainty ** 2, 0);
  return variance > 0 ? part.standardUncertainty ** 2 / variance : 0;
}

function freedomOfPart(part: BudgetPart): number {
  return freedomOf({ value: 0, standardUncertainty: 0, degreesOfFreedom: part.degreesOfFreedom });
}
