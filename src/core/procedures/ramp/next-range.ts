/** Ranges that the machine and the stock allow: of the next ramp where the best point is at an end, and of any ramp. */
import type { MachineSpec } from "../../machine/machine-spec";
import { CELL_SETTINGS } from "../../marking/cell-settings";
import { doseOf } from "../../marking/dose";
import { fastestRow } from "../../marking/run-up";
import { endWithBest, type Found, valueOfAlong } from "./found";
import { type RampPlan, type Range, rangeOf, withRange } from "./plan";
import { along, settingsAt, spanOf } from "./strip";

/** Overlap of the next ramp with this one, as a share of its range. */
const OVERLAP = 0.35;
const MOST_RAMPS = 3;

/** @returns `null` if the best point is inside the strip, or the machine cannot go further */
export function beyond({ last, ramps }: Found, machine: MachineSpec): RampPlan | null {
  const end = endWithBest(last);
  if (!end || ramps.length >= MOST_RAMPS) return null;
  const { plan } = last;
  const { from, to } = rangeOf(plan);
  const [a, b] = [along(plan, from), along(plan, to)];
  const shift = (1 - OVERLAP) * (b - a) * (end === "end" ? 1 : -1);
  const next = possible(plan, a + shift, b + shift, machine);
  const moved = Math.abs(along(plan, end === "end" ? next.to : next.from) - (end === "end" ? b : a));
  return moved > 0.1 * spanOf(plan) ? withRange(plan, next) : null;
}

/** Both ends as typed values, within the limits of machine and stock. */
export function possible(plan: RampPlan, a: number, b: number, machine: MachineSpec): Range {
  const { byRatio, decimals } = CELL_SETTINGS[plan.varied];
  const { least, most } = limitsOf(plan, machine);
  const step = 10 ** -decimals;
  const typed = (at: number) => {
    const value = Number(valueOfAlong(plan, at).toFixed(decimals));
    const low = Math.ceil(least / step - 1e-9) * step;
    const high = Math.floor(most / step + 1e-9) * step;
    return Number(Math.max(byRatio ? Math.max(step, low) : low, Math.min(high, value)).toFixed(decimals));
  };
  return { from: typed(a), to: typed(b) };
}

function limitsOf(plan: RampPlan, machine: MachineSpec): { least: number; most: number } {
  const jPerMm2 = plan.from?.mostJPerMm2 ?? Number.POSITIVE_INFINITY;
  const energyAt = (value: number) =>
    doseOf(settingsAt(plan, value), {
      wattsAtFull: plan.wattsAtFull,
      lineMm: plan.lineMm,
      isPulsed: false,
      isFilled: true,
    }).energy;
  switch (plan.varied) {
    // Energy grows with power, and falls as the speed grows.
    case "powerPct":
      return { least: 0, most: Math.min(100, jPerMm2 / energyAt(1)) };
    case "speedMmPerS":
      return { least: energyAt(1) / jPerMm2, most: Math.min(machine.topSpeedMmPerS, fastestRow(plan, machine)) };
    case "aboveFocusMm":
      return { least: Number.NEGATIVE_INFINITY, most: Number.POSITIVE_INFINITY };
  }
}
