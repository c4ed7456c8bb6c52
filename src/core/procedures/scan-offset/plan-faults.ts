/** What is refused of a scan-offset coupon, each with what to change, and what is worth saying before the burn. */
import type { MachineSpec } from "../../machine/machine-spec";
import { topSpeedReason } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import { tableValueAt } from "../../settings/setting";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { planForm } from "../../trial/plan-table";
import { placeFaults } from "../../trial/shared-fields";
import { blockHeightMm, rowSpan, SPACING_MM, usedHeightMm } from "./layout";
import { hasOutline, planFields, SCAN_OFFSET, type ScanOffsetPlan } from "./plan";
import { heldShift } from "./setting";

/** Run-ups are this much longer than v^2 / (2 a) says. */
const RUN_UP_MARGIN = 1.3;
/** Taken while the acceleration of a machine is not known: slow for a gantry, so that run-ups come out long. */
export const CAUTIOUS_ACCELERATION_MM_PER_S2 = 2000;
const LEAST_RUN_UP_MM = 1;
const MINUTE_S = 60;

/** Straight way in which the head reaches `speed`, mm: v^2 / (2 a) and a margin. */
export function runUpMm(speedMmPerS: number, machine: MachineSpec): number {
  const acceleration = machine.accelerationMmPerS2 ?? CAUTIOUS_ACCELERATION_MM_PER_S2;
  return LEAST_RUN_UP_MM + (RUN_UP_MARGIN * speedMmPerS ** 2) / (2 * acceleration);
}

export function scanOffsetPlan(context: PlanContext): PlanForm<ScanOffsetPlan> {
  const { machine } = context;
  return planForm(planFields(context), {
    faults: (plan) => [
      ["speedsMmPerS", speedFault(plan, machine)],
      ["stockWidthMm", widthFault(plan)],
      ["stockHeightMm", heightFault(plan)],
      ...placeFaults(plan, { widthMm: plan.stockWidthMm, heightMm: plan.stockHeightMm }, machine),
      ["stockAtXMm", runUpFault(plan, machine)],
    ],
  });
}

function speedFault(plan: ScanOffsetPlan, machine: MachineSpec): string | null {
  const top = machine.topSpeedMmPerS;
  const tooFast = plan.speedsMmPerS.find((v) => v > top);
  if (tooFast !== undefined) {
    const meant = tooFast / MINUTE_S;
    const slip = meant <= top ? ` If you mean ${plain(tooFast)} mm/min, enter ${plain(meant)} mm/s.` : "";
    return `${plain(tooFast)} mm/s is too fast. ${topSpeedReason(machine)} Enter at most ${plain(top)} mm/s.${slip}`;
  }
  const twice = plan.speedsMmPerS.find((v, i) => plan.speedsMmPerS.indexOf(v) !== i);
  if (twice !== undefined) return `${plain(twice)} mm/s is entered twice. Enter each speed once.`;
  const slow = machine.assumed?.includes("topSpeedMmPerS") ? undefined : plan.speedsMmPerS.find((v) => v < top / 100);
  if (slow !== undefined)
    return `${plain(slow)} mm/s is too slow for a visible stagger. Enter at least ${plain(top / 100)} mm/s. Check that the speed is in mm/s.`;
  return null;
}

function widthFault(plan: ScanOffsetPlan): string | null {
  const needed = rowSpan(plan).x1 + SPACING_MM.edge;
  return needed > plan.stockWidthMm
    ? `Labels and rows of ${plain(plan.rowLengthMm)} mm need ${plain(needed)} mm. The stock is ${plain(plan.stockWidthMm)} mm wide. Use a wider piece or shorter rows.`
    : null;
}

function heightFault(plan: ScanOffsetPlan): string | null {
  const needed = usedHeightMm(plan);
  return needed > plan.stockHeightMm
    ? `${plan.speedsMmPerS.length} blocks of ${plain(blockHeightMm(plan))} mm need ${plain(needed)} mm. The stock is ${plain(plan.stockHeightMm)} mm high. Use a taller piece, fewer speeds or fewer rows.`
    : null;
}

function runUpFault(plan: ScanOffsetPlan, machine: MachineSpec): string | null {
  if (plan.stockAtXMm + plan.stockWidthMm > machine.widthMm) return null;
  const fastest = Math.max(...plan.speedsMmPerS);
  const runUp = runUpMm(fastest, machine);
  const { x0, x1 } = rowSpan(plan);
  const left = plan.stockAtXMm + x0 - runUp;
  const right = machine.widthMm - (plan.stockAtXMm + x1 + runUp);
  if (left >= 0 && right >= 0) return null;
  const whole = x1 - x0 + 2 * runUp;
  if (whole > machine.widthMm)
    return `At ${plain(fastest)} mm/s the head needs ${plain(runUp, 1)} mm of run-up on each side. The total of ${plain(whole, 0)} mm is more than the ${plain(machine.widthMm)} mm of ${machine.name}. Leave out this speed or shorten the rows.`;
  const side = left < 0 ? "left" : "right";
  return `At ${plain(fastest)} mm/s the head needs ${plain(runUp, 1)} mm of run-up. ${plain(-Math.min(left, right), 1)} mm are missing on the ${side}. Move the stock to the ${side === "left" ? "right" : "left"} or leave out this speed.`;
}

/** What is worth knowing before the burn, though it does not stop it. */
export function planWarnings(plan: ScanOffsetPlan, context: PlanContext): PlanWarning[] {
  const { machine } = context;
  const warnings: PlanWarning[] = [];
  if (machine.accelerationMmPerS2 === null)
    warnings.push({
      field: "speedsMmPerS",
      message: `The acceleration of ${machine.name} is not known. Run-ups are laid out for ${CAUTIOUS_ACCELERATION_MM_PER_S2} mm/s².`,
    });
  if (plan.speedsMmPerS.length < 3)
    warnings.push({
      field: "speedsMmPerS",
      message: "Use at least three speeds to fit a line and to notice a wrong reading.",
    });
  if (plan.way === "bare strokes" && machine.scansBlocks)
    warnings.push({
      field: "way",
      message: "The table in the controller does not act on strokes. The proof will be burned as closed blocks.",
    });
  if (plan.way === "closed blocks" && !machine.scansBlocks)
    warnings.push({
      field: "way",
      message: `${machine.name} runs G-code and probably scans no blocks itself. Choose rows as strokes if you are not sure.`,
    });
  if (hasOutline(plan) && plan.way === "closed blocks" && heldShift(plan, machine) === null)
    warnings.push({
      field: "outline",
      message: `The page of ${machine.name} names no setting for the shift of scanned rows. The gaps show the shift. To correct it, enter on that page how the controller stores it.`,
    });
  const held = machine.held[SCAN_OFFSET];
  const table = context.inForce[SCAN_OFFSET];
  if (held?.tableKind === "exact speed only") {
    const bare = machine.workingSpeedsMmPerS.filter((v) => !plan.speedsMmPerS.includes(v));
    if (bare.length > 0)
      warnings.push({
        field: "speedsMmPerS",
        message: `This controller uses exact speeds only, and your work also uses ${bare.map((v) => plain(v)).join(", ")} mm/s. Burn these speeds too, or use the values of the fitted line.`,
      });
  }
  if (held?.tableKind === "not known" && table?.shape === "table") {
    const between = plan.speedsMmPerS.filter((v) => tableValueAt(table, v, "not known") === null);
    if (between.length > 0)
      warnings.push({
        field: "speedsMmPerS",
        message: `Ustrina does not know whether this controller interpolates between its entries. No correction can be computed at ${between.map((v) => plain(v)).join(", ")} mm/s. Use the speeds of the table.`,
      });
  }
  return warnings;
}
