/** Another lens than the one that is written down shows first in the heights at which it is looked for. */

import type { MachineSpec } from "../../machine/machine-spec";
import { knownWavelengthNm } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import type { PlanContext, PlanWarning } from "../../trial/plan-form";
import type { HeightTerms } from "./plan";

/** A focus that differs by more from what the maker gives is another lens, or read otherwise. */
const USUAL_MISS_MM = 12;

/** @param low,high heights that are burned @param field at which they are chosen */
export function opticWarnings(
  { plan, low, high, field }: { plan: HeightTerms; low: number; high: number; field: string },
  machine: MachineSpec,
  optic: PlanContext["optic"],
): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  const known = knownWavelengthNm(machine);
  if (optic?.wavelengthNm && known !== null && optic.wavelengthNm !== known)
    warnings.push({
      field,
      message: `${optic.label} is written down as a lens for ${plain(optic.wavelengthNm)} nm, ${machine.name} as ${plain(known)} nm. Look at what is printed on it.`,
    });
  const nominal = optic?.workingDistanceMm;
  // Only a rule shows the gap itself, which can be held against it.
  if (!nominal || plan.readAt !== "rule") return warnings;
  const more = plan.allowanceMm;
  if (nominal < low + more - USUAL_MISS_MM || nominal > high + more + USUAL_MISS_MM)
    warnings.push({
      field,
      message: `${optic.label} works at about ${plain(nominal)} mm, by its maker; this burn is at ${plain(low + more)} to ${plain(high + more)} mm. Is it the lens that is fitted?`,
    });
  return warnings;
}
