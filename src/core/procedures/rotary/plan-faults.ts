/** Why a rotary cannot be measured as it is laid out, and what is worth saying beforehand. */

import type { MachineSpec } from "../../machine/machine-spec";
import type { RotarySpec } from "../../machine/part-spec";
import { expandedMm } from "../../measuring/baseline";
import { gaugeIn } from "../../measuring/length-gauges";
import { plain } from "../../metrology/quantity-text";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { planForm } from "../../trial/plan-table";
import { ALONG_MM } from "./layout";
import { isBurned, planFields, type RotaryPlan, restsElsewhere, sentMm, sizesNeeded } from "./plan";

/** Thinner than a pencil lead is rather an inch typed as a mm. */
const THIN_MM = 4;

export function rotaryPlan(context: PlanContext): PlanForm<RotaryPlan> {
  return planForm(planFields(context, ALONG_MM), {
    faults: (plan) => [
      ["diameterMm", diameterFault(plan.diameterMm, context)],
      ["restsOnMm", restsElsewhere(plan) ? diameterFault(plan.restsOnMm, context) : null],
      ["spanMm", spanFault(plan, context)],
      ["beginsAtMm", beginsFault(plan, context.machine)],
    ],
  });
}

/** Whether the drive takes a part so thick, and what else the number may be. */
function diameterFault(diameterMm: number, { rotary, machine }: PlanContext): string | null {
  const takes = rotary && limitsText(rotary);
  if (!rotary || !takes || fits(diameterMm, rotary)) return sizeOfMachine(diameterMm, machine);
  const slips = [
    { is: diameterMm / Math.PI, words: "Check whether you entered the circumference. Enter the diameter." },
    { is: diameterMm * 2, words: "Check whether you entered the radius. Enter the diameter." },
    { is: diameterMm * 25.4, words: "Check the unit. Type an inch size with its unit, for example 2.4 in." },
    { is: diameterMm / 25.4, words: "Check the unit. The size seems to be in mm." },
  ];
  const slip = slips.find(({ is }) => fits(is, rotary));
  return `${plain(diameterMm, 1)} mm does not fit ${rotary.label}. ${takes}${slip ? ` ${slip.words}` : ""}`;
}

function sizeOfMachine(diameterMm: number, { name, widthMm, depthMm }: MachineSpec): string | null {
  const most = Math.max(widthMm, depthMm);
  return diameterMm > most
    ? `${name} has no room for a diameter of ${plain(diameterMm, 0)} mm. Enter at most ${plain(most)} mm. Check that this is the diameter, in the right unit.`
    : null;
}

function fits(mm: number, { thinnestMm, thickestMm }: RotarySpec): boolean {
  return mm >= (thinnestMm ?? 0) && mm <= (thickestMm ?? Infinity);
}

function limitsText({ thinnestMm, thickestMm }: RotarySpec): string | null {
  if (thinnestMm !== null && thickestMm !== null)
    return `Enter between ${plain(thinnestMm)} and ${plain(thickestMm)} mm.`;
  if (thickestMm !== null) return `Enter at most ${plain(thickestMm)} mm.`;
  return thinnestMm === null ? null : `Enter at least ${plain(thinnestMm)} mm.`;
}

/** A line that meets its own beginning is no span. */
function spanFault(plan: RotaryPlan, context: PlanContext): string | null {
  const { way, spanMm, diameterMm } = plan;
  if (way === "wrap") return null;
  const around = Math.PI * diameterMm;
  if (spanMm >= around)
    return `The circumference is ${plain(around, 1)} mm. A line of ${plain(spanMm, 1)} mm would overlap its beginning. Enter at most ${plain(Math.floor(0.9 * around), 0)} mm, or choose a line once around.`;
  const { gauge, reachMm } = gaugeIn(plan, context);
  return spanMm > reachMm
    ? `The line is longer than the reach of ${gauge.name}. Enter at most ${plain(reachMm)} mm, or use a longer gauge.`
    : null;
}

function beginsFault(plan: RotaryPlan, machine: MachineSpec): string | null {
  if (!isBurned(plan)) return null;
  const size = plan.replaces === "y" ? machine.widthMm : machine.depthMm;
  const end = plan.beginsAtMm + ALONG_MM;
  return end > size
    ? `The marks would reach to ${plain(end, 1)} mm, outside the working area of ${plain(size)} mm. Enter at most ${plain(size - ALONG_MM)} mm.`
    : null;
}

export function planWarnings(plan: RotaryPlan, context: PlanContext): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  const say = (field: keyof RotaryPlan, message: string) => warnings.push({ field, message });
  if (plan.diameterMm < THIN_MM)
    say("diameterMm", `${plain(plan.diameterMm)} mm is thin. Check that the size is in mm.`);
  if (plan.way !== "wrap" && plan.spanMm > (Math.PI * plan.diameterMm) / 2 && plan.tapeMm > 0)
    say(
      "spanMm",
      "Tape longer than half a turn comes off at the lower side. Use a shorter line, or a line once around.",
    );
  const known = rotaryWarning(plan, context);
  if (known) say("rotary", known);
  const told = toldWithin(plan, context);
  const { gauge } = gaugeIn(plan, context);
  if (context.tolerance !== undefined && told > context.tolerance)
    say(
      plan.way === "wrap" ? "repeats" : "spanMm",
      `The uncertainty with ${gauge.name} is about ± ${plain(100 * told, 2)} %. The tolerance is ${plain(100 * context.tolerance, 2)} %. Use a longer line, a better gauge or more readings.`,
    );
  return warnings;
}

/** Its entry on the page of the machine decides which temporary changes are listed until they are restored. */
function rotaryWarning({ rotary: laid }: RotaryPlan, { rotary }: PlanContext): string | null {
  if (!rotary)
    return "Enter the rotary on the page of the machine. Ustrina then lists its temporary changes until they are restored.";
  if (laid !== rotary.label) return `${rotary.label} is fitted now. Choose it, or fit ${laid} again.`;
  if (rotary.setAside.length === 0 && !rotary.setAsideToo)
    return "No temporary changes are entered for this rotary. Check the travel limits, homing and axes, and enter them with the rotary.";
  return null;
}

/** Expanded uncertainty of the travel, as a share, by what the gauge does: for the layout only. */
function toldWithin(plan: RotaryPlan, context: PlanContext): number {
  const { gauge } = gaugeIn(plan, context);
  const each = expandedMm(gauge, plan.repeats);
  const size = plan.sizedBy === "across" ? Math.PI * each : each;
  const sized = sizesNeeded(plan).length > 0 && plan.way === "wrap" && plan.drive === "roller" ? size : 0;
  return Math.hypot(each, sized) / sentMm(plan);
}
