/**
 * Heights along a propped plate. With rise and run, theta the angle of the plate, t the sheet on it:
 *
 *   at a distance X of the job from the low end   z = z_low - X tan(theta) - t / cos(theta)
 *   at a place s along the plate itself           z = z_low - s sin(theta) - t / cos(theta)
 *
 * since a mark of length X of the job comes out X / cos(theta) long on the plate. tan(theta) = rise/run where the run is level,
 * sin(theta) = rise/run where it is measured along the plate. Numbers that count the other way grow instead.
 */
import { elementAt } from "../../../fitting/element-at";
import { plain } from "../../../metrology/quantity-text";
import { apartSense, type RampPlan } from "../plan";

export type Slope = { tangent: number; sine: number; cosine: number };

/** Around line, scale and letters, mm. */
export const RAMP_SPACING = { edge: 8, line: 9, tick: 1.6, tickLength: 2.6, letters: 2.2, title: 8 } as const;
/** Ticks at one of these steps of height, as close as can be read, mm. */
const STEPS = [0.5, 1, 2, 5, 10, 20];
const CLOSEST_TICKS_MM = 4.5;
/** A place between two ticks is told to this share of a step, half width. (common practice, no source) */
export const OF_STEP = 0.2;

/** `null` where rise and run make no angle. */
export function slopeOf({ riseMm, runMm, runAlong }: Pick<RampPlan, "riseMm" | "runMm" | "runAlong">): Slope | null {
  if (runAlong === "plate" && runMm <= riseMm) return null;
  const tangent = runAlong === "plate" ? riseMm / Math.sqrt(runMm ** 2 - riseMm ** 2) : riseMm / runMm;
  const cosine = 1 / Math.hypot(1, tangent);
  return { tangent, cosine, sine: tangent * cosine };
}

/** Length of the line in the job, from its low end, mm. */
export function lineLength({ stockWidthMm }: Pick<RampPlan, "stockWidthMm">, { cosine }: Slope): number {
  return stockWidthMm * cosine - 2 * RAMP_SPACING.edge;
}

/** By how much the high end of the line is higher than its low end, mm. */
export function liftMm(plan: Pick<RampPlan, "stockWidthMm">, slope: Slope): number {
  return lineLength(plan, slope) * slope.tangent;
}

/** Standard uncertainty of a lift that is measured from the bed at both ends, mm. (common practice, no source) */
const LIFT_READ_MM = 0.15;
/** A lift that differs by so many standard uncertainties contradicts rise and run. */
const CONTRADICTS_AT = 3;

/** What is said of rise and run, as a share of the slope: standard uncertainty. */
export function slopeShare({ slopeGoodMm, riseMm, runMm }: Pick<RampPlan, "slopeGoodMm" | "riseMm" | "runMm">): number {
  const good = slopeGoodMm / Math.sqrt(3);
  return Math.hypot(good / riseMm, good / runMm);
}

/** Why a lift that was read contradicts rise and run; `null` where it does not. */
export function liftContradiction(plan: RampPlan, slope: Slope, read: number): string | null {
  const due = liftMm(plan, slope);
  const u = Math.hypot(slopeShare(plan) * due, LIFT_READ_MM);
  if (Math.abs(read - due) <= CONTRADICTS_AT * u) return null;
  return `The slope of the ramp contradicts the lift of the line: ${plain(due, 1)} mm by rise and run, ${plain(read, 1)} mm measured. Measure rise, run and lift again.`;
}

/** The number that would be read in focus at a distance of the job from the low end. */
export function heightAt(plan: RampPlan, { tangent, cosine }: Slope, jobMm: number): number {
  return plan.lowMm - apartSense(plan) * (jobMm * tangent + plan.thicknessMm / cosine);
}

/** Where on the job that number lies. */
export function jobAt(plan: RampPlan, { tangent, cosine }: Slope, heightMm: number): number {
  return (apartSense(plan) * (plan.lowMm - heightMm) - plan.thicknessMm / cosine) / tangent;
}

/** What a place along the plate, from the low end of the line, stands for. */
export function heightAlongPlate(plan: RampPlan, slope: Slope, plateMm: number): number {
  return heightAt(plan, slope, plateMm * slope.cosine);
}

/** Smallest and largest number along the line. */
export function numbersAlong(plan: RampPlan, slope: Slope): { low: number; high: number } {
  const ends = [heightAt(plan, slope, 0), heightAt(plan, slope, lineLength(plan, slope))];
  return { low: Math.min(...ends), high: Math.max(...ends) };
}

/** What is left between the head and the plate at its highest place under the head, by the lowest number at which nothing touches, mm. */
export function clearanceOver(plan: RampPlan): number {
  const slope = slopeOf(plan);
  if (!slope) return 0;
  const uphill = Math.min(
    lineLength(plan, slope) + plan.headReachMm,
    plan.stockWidthMm * slope.cosine - RAMP_SPACING.edge,
  );
  const number = heightAt(plan, slope, uphill);
  return apartSense(plan) > 0 ? number - plan.lowestMm : plan.highestMm - number;
}

/** Height of stock that line, scale and letters need, mm. */
export function usedRampMm(): number {
  const { edge, line, tick, tickLength, letters, title } = RAMP_SPACING;
  return edge + line + tick + tickLength + letters + 2 + title;
}

export type Tick = { heightMm: number; jobMm: number };

/** Ticks at round heights along the line. */
export function ticksOf(plan: RampPlan): { ticks: Tick[]; stepMm: number } {
  const slope = slopeOf(plan);
  if (!slope) return { ticks: [], stepMm: 0 };
  const stepMm = STEPS.find((step) => step / slope.tangent >= CLOSEST_TICKS_MM) ?? elementAt(STEPS, STEPS.length - 1);
  const { low, high } = numbersAlong(plan, slope);
  const ticks: Tick[] = [];
  for (let k = Math.ceil(low / stepMm - 1e-9); k * stepMm <= high + 1e-9; k++) {
    const heightMm = Number((k * stepMm).toFixed(6));
    ticks.push({ heightMm, jobMm: jobAt(plan, slope, heightMm) });
  }
  return { ticks: ticks.sort((a, b) => a.jobMm - b.jobMm), stepMm };
}
