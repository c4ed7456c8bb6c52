/**
 * A result as it was recorded, beside the same readings worked out by the present methods. What was recorded never changes; methods
 * get better, and readings are added.
 */
import { z } from "zod";
import { expandedUncertainty, type Measured } from "../metrology/measured";
import { measuredSchema } from "../metrology/measured-schema";
import { unitIdSchema } from "../metrology/unit-schema";
import type { UnitId } from "../metrology/units";
import type { Outcome } from "./outcome";

/** Only what is compared: the rest of an outcome may have had another shape when it was recorded. */
export const recordedEstimatesSchema = z.object({
  estimates: z.array(z.object({ id: z.string(), label: z.string(), quantity: measuredSchema, unit: unitIdSchema })),
});
export type RecordedEstimate = z.infer<typeof recordedEstimatesSchema>["estimates"][number];

export type ComparedResult = {
  id: string;
  label: string;
  unit: UnitId;
  recorded: Measured;
  /** `null` where the readings give no such result any more. */
  now: Measured | null;
  /** `same`: a person would read the same. `within`: the intervals hold each other's value. `outside`: one of them does not. */
  differs: "same" | "within" | "outside";
};

/** Values that differ by less than this share of the uncertainty read the same, and uncertainties by less than this share of themselves. */
const READS_THE_SAME = 0.05;

/** Each recorded result beside the one of now. */
export function comparedResults(recorded: readonly RecordedEstimate[], outcome: Outcome): ComparedResult[] {
  const estimates = outcome.status === "solved" ? outcome.estimates : [];
  return recorded.map(({ id, label, unit, quantity }) => {
    const now = estimates.find((e) => e.id === id)?.quantity ?? null;
    return { id, label, unit, now, recorded: quantity, differs: now ? howFar(quantity, now) : "outside" };
  });
}

function howFar(recorded: Measured, now: Measured): ComparedResult["differs"] {
  const [before, after] = [expandedUncertainty(recorded), expandedUncertainty(now)];
  const by = Math.abs(now.value - recorded.value);
  const rounding = 1e-9 * Math.abs(recorded.value);
  if (by <= READS_THE_SAME * before + rounding && Math.abs(after - before) <= READS_THE_SAME * before) return "same";
  return by <= Math.min(before, after) + rounding ? "within" : "outside";
}
