/** Why a rotary cannot be measured as it is laid out, and what is worth saying beforehand. */

import type { MachineSpec } from "../../machine/machine-spec";
import type { RotarySpec } from "../../machine/part-spec";
import { expandedMm } from "../../measuring/baseline";
import { endingOf, gaugeIn } from "../../measuring/length-gauges";
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
    { is: diameterMm / Math.PI, words: "Was it measured around instead of across?" },
    { is: diameterMm * 2, words: "Is it the radius?" },
    { is: diameterMm * 25.4, words: "Was it an inch size? Type its unit: 2.4 in." },
    { is: diameterMm / 25.4, words: "Was a mm typed as an inch?" },
  ];
  const slip = slips.find(({ is }) => fits(is, rotary));
  return `${rotary.label} takes parts ${takes}.${slip ? ` ${slip.words}` : ""}`;
}

function sizeOfMachine(diameterMm: number, { name, widthMm, depthMm }: MachineSpec): string | null {
  const most = Math.max(widthMm, depthMm);
  return diameterMm > most
    ? `${name} has no room for a part ${plain(diameterMm, 0)} mm thick. Was it measured around, or typed in another unit?`
    : null;
}

function fits(mm: number, { thinnestMm, thickestMm }: RotarySpec): boolean {
  return mm >= (thinnestMm ?? 0) && mm <= (thickestMm ?? Infinity);
}

function limitsText({ thinnestMm, thickestMm }: RotarySpec): string | null {
  if (thinnestMm !== null && thickestMm !== null) return `from ${plain(thinnestMm)} to ${plain(thickestMm)} mm thick`;
  if (thickestMm !== null) return `up to ${plain(thickestMm)} mm thick`;
  return thinnestMm === null ? null : `from ${plain(thinnestMm)} mm on`;
}

/** A line that meets its own beginning is no span. */
function spanFault(plan: RotaryPlan, context: PlanContext): string | null {
  const { way, spanMm, diameterMm } = plan;
  if (way === "wrap") return null;
  const around = Math.PI * diameterMm;
  if (spanMm >= around)
    return `The part is ${plain(around, 1)} mm around: a line of ${plain(spanMm, 1)} mm would run over its own beginning. At most ${plain(Math.floor(0.9 * around), 0)} mm, or take the line once around.`;
  const { gauge, reachMm } = gaugeIn(plan, context);
  return spanMm > reachMm
    ? `${gauge.name} ${endingOf(gauge, "reach", "es")} ${plain(reachMm)} mm, as said below.`
    : null;
}

function beginsFault(plan: RotaryPlan, machine: MachineSpec): string | null {
  if (!isBurned(plan)) return null;
  const size = plan.replaces === "y" ? machine.widthMm : machine.depthMm;
  const end = plan.beginsAtMm + ALONG_MM;
  return end > size ? `The marks would reach ${plain(end, 1)} mm; the working area ends at ${plain(size)} mm.` : null;
}

export function planWarnings(plan: RotaryPlan, context: PlanContext): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  const say = (field: keyof RotaryPlan, message: string) => warnings.push({ field, message });
  if (plan.diameterMm < THIN_MM)
    say("diameterMm", `${plain(plan.diameterMm)} mm is thin. Was an inch size typed as mm?`);
  if (plan.way !== "wrap" && plan.spanMm > (Math.PI * plan.diameterMm) / 2 && plan.tapeMm > 0)
    say("spanMm", "Longer than half a turn, the tape sags on the lower side and comes off. Shorter, or once around.");
  const known = rotaryWarning(plan, context);
  if (known) say("rotary", known);
  const told = toldWithin(plan, context);
  const { gauge } = gaugeIn(plan, context);
  if (context.tolerance !== undefined && told > context.tolerance)
    say(
      plan.way === "wrap" ? "repeats" : "spanMm",
      `${gauge.name} ${endingOf(gauge, "tell", "s")} it to ± ${plain(100 * told, 2)} %, and ${plain(100 * context.tolerance, 2)} % is wanted: a longer line, a finer gauge, or more readings.`,
    );
  return warnings;
}

/** What is written down of the rotary decides what is kept until it is put back. */
function rotaryWarning({ rotary: laid }: RotaryPlan, { rotary }: PlanContext): string | null {
  if (!rotary)
    return "Write the rotary down on the page of the machine: what is switched off for it is then kept until it is put back.";
  if (laid !== rotary.label) return `${rotary.label} is fitted now: choose it, or fit ${laid} again.`;
  if (rotary.setAside.length === 0 && !rotary.setAsideToo)
    return "Nothing is said to be switched off for it: travel limits, homing, an axis? Say so where the rotary is described.";
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
