/** What may be chosen before a scan-offset coupon is burned, and what is refused by name. */

import { z } from "zod";
import type { MachineSpec } from "../../machine/machine-spec";
import { topSpeedText } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import { atBeginning } from "../../metrology/sentence-case";
import { tableValueAt } from "../../settings/setting";
import type { FieldSpec, PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { choice, oneOf } from "../../trial/plan-form";
import { blockHeightMm, rowSpan, SPACING_MM, usedHeightMm } from "./layout";
import { hasOutline, OUTLINES, SCAN_OFFSET, type ScanOffsetPlan, WAYS, type Way } from "./plan-type";
import { heldShift } from "./setting";

/** Run-ups are this much longer than v^2 / (2 a) says. */
const RUN_UP_MARGIN = 1.3;
/** Taken while the acceleration of a machine is not known: slow for a gantry, so that run-ups come out long. */
export const CAUTIOUS_ACCELERATION_MM_PER_S2 = 2000;
const LEAST_RUN_UP_MM = 1;
/** Below this there is no room to set calipers on both ends. (common practice, no source) */
const SHORTEST_ROW_MM = 20;
const MINUTE_S = 60;

/** Straight way in which the head reaches `speed`, mm: v^2 / (2 a) and a margin. */
export function runUpMm(speedMmPerS: number, machine: MachineSpec): number {
  const acceleration = machine.accelerationMmPerS2 ?? CAUTIOUS_ACCELERATION_MM_PER_S2;
  return LEAST_RUN_UP_MM + (RUN_UP_MARGIN * speedMmPerS ** 2) / (2 * acceleration);
}

export function planForm(context: PlanContext): PlanForm<ScanOffsetPlan> {
  return {
    schema: schemaFor(context),
    defaults: defaultsFor(context),
    fields: FIELDS,
  };
}

function defaultsFor({ machine }: PlanContext): ScanOffsetPlan {
  const top = machine.topSpeedMmPerS;
  const step = top >= 500 ? 100 : top / 6;
  const speeds = [1, 2, 3, 4, 5, 6].map((n) => Math.round(n * step)).filter((v) => v <= top);
  return {
    way: machine.scansBlocks ? "closed blocks" : "own strokes",
    speedsMmPerS: speeds,
    rowLengthMm: 50,
    rowPitchMm: 0.8,
    rowsPerBlock: 8,
    powerPct: 14,
    referenceStepMm: 0.3,
    repeats: 3,
    outline: "none",
    stockWidthMm: 90,
    stockHeightMm: 120,
    stockAtXMm: Math.round(Math.max(60, (machine.widthMm - 90) / 2)),
    stockAtYMm: Math.round(Math.max(20, (machine.depthMm - 120) / 2)),
  };
}

function schemaFor({ machine }: PlanContext): z.ZodType<ScanOffsetPlan> {
  const positive = (what: string) =>
    z.number({ error: `Give ${what}.` }).positive(`${atBeginning(what)} must be larger than 0.`);
  return z
    .object({
      way: z.enum(Object.keys(WAYS) as [Way, ...Way[]]),
      speedsMmPerS: z.array(positive("a speed")).min(1, "Give at least one speed, for example 100 200 300."),
      rowLengthMm: positive("the row length, for example 50 mm").min(
        SHORTEST_ROW_MM,
        `Rows under ${SHORTEST_ROW_MM} mm leave no room for calipers at both ends.`,
      ),
      rowPitchMm: positive("the row pitch, for example 0.8 mm")
        .min(0.2, "Below 0.2 mm neighbouring rows touch; 0.5 to 1 mm is usual.")
        .max(3, "Above 3 mm neighbouring tips cannot be compared; 0.5 to 1 mm is usual."),
      rowsPerBlock: z
        .number({ error: "Give the number of rows, for example 8." })
        .int("Rows are counted in whole numbers.")
        .min(4, "At least 4 rows: two each way.")
        .max(40, "40 rows are more than can be compared."),
      powerPct: positive("the power").max(100, "Power goes up to 100 %."),
      referenceStepMm: positive("the reference step, for example 0.3 mm")
        .min(0.1, "Below 0.1 mm the step cannot be measured well.")
        .max(2, "Above 2 mm the step leaves the range of the stagger."),
      repeats: z
        .number({ error: "Give how often each site is read." })
        .int("A whole number.")
        .min(1, "At least 1.")
        .max(20, "20 readings a site are more than help."),
      outline: oneOf(OUTLINES).default("none"),
      stockWidthMm: positive("the width of the stock"),
      stockHeightMm: positive("the height of the stock"),
      stockAtXMm: z
        .number({ error: "Give where the stock lies in X." })
        .min(0, "The stock must lie inside the working area."),
      stockAtYMm: z
        .number({ error: "Give where the stock lies in Y." })
        .min(0, "The stock must lie inside the working area."),
    })
    .superRefine((plan, issues) => {
      const say = (path: keyof ScanOffsetPlan, message: string | undefined) => {
        if (message) issues.addIssue({ code: "custom", path: [path], message });
      };
      say("speedsMmPerS", speedFault(plan, machine));
      say("stockWidthMm", widthFault(plan));
      say("stockHeightMm", heightFault(plan));
      say("stockAtXMm", acrossFault(plan, machine));
      say("stockAtYMm", upFault(plan, machine));
    });
}

function speedFault(plan: ScanOffsetPlan, machine: MachineSpec): string | undefined {
  const top = machine.topSpeedMmPerS;
  const tooFast = plan.speedsMmPerS.find((v) => v > top);
  if (tooFast !== undefined) {
    const meant = tooFast / MINUTE_S;
    const slip =
      meant <= top ? ` Was ${plain(tooFast)} mm/min meant? That is ${plain(meant)} mm/s: type the unit with it.` : "";
    return `${plain(tooFast)} mm/s is too fast. ${topSpeedText(machine)}${slip}`;
  }
  const twice = plan.speedsMmPerS.find((v, i) => plan.speedsMmPerS.indexOf(v) !== i);
  if (twice !== undefined) return `${plain(twice)} mm/s is there twice: each block needs a speed of its own.`;
  const slow = machine.assumed?.includes("topSpeedMmPerS") ? undefined : plan.speedsMmPerS.find((v) => v < top / 100);
  if (slow !== undefined)
    return `At ${plain(slow)} mm/s there is no stagger to see on a machine that does ${plain(top)} mm/s. Was mm/min mixed up with mm/s?`;
  return undefined;
}

function widthFault(plan: ScanOffsetPlan): string | undefined {
  const needed = rowSpan(plan).x1 + SPACING_MM.edge;
  return needed > plan.stockWidthMm
    ? `Labels and rows of ${plain(plan.rowLengthMm)} mm need ${plain(needed)} mm; the stock is ${plain(plan.stockWidthMm)} mm wide. Use a wider piece or shorter rows.`
    : undefined;
}

function heightFault(plan: ScanOffsetPlan): string | undefined {
  const needed = usedHeightMm(plan);
  return needed > plan.stockHeightMm
    ? `${plan.speedsMmPerS.length} blocks of ${plain(blockHeightMm(plan))} mm need ${plain(needed)} mm; the stock is ${plain(plan.stockHeightMm)} mm high. Use a taller piece, fewer speeds or fewer rows.`
    : undefined;
}

function acrossFault(plan: ScanOffsetPlan, machine: MachineSpec): string | undefined {
  if (plan.stockAtXMm + plan.stockWidthMm > machine.widthMm)
    return `The stock would reach ${plain(plan.stockAtXMm + plan.stockWidthMm)} mm; the working area ends at ${plain(machine.widthMm)} mm.`;
  if (plan.speedsMmPerS.length === 0) return undefined;
  const fastest = Math.max(...plan.speedsMmPerS);
  const runUp = runUpMm(fastest, machine);
  const { x0, x1 } = rowSpan(plan);
  const left = plan.stockAtXMm + x0 - runUp;
  const right = machine.widthMm - (plan.stockAtXMm + x1 + runUp);
  if (left >= 0 && right >= 0) return undefined;
  const whole = x1 - x0 + 2 * runUp;
  if (whole > machine.widthMm)
    return `At ${plain(fastest)} mm/s the head needs ${plain(runUp, 1)} mm of run-up each side: ${plain(whole, 0)} mm in all, more than the ${plain(machine.widthMm)} mm of ${machine.name}. Leave out this speed or shorten the rows.`;
  const side = left < 0 ? "left" : "right";
  return `At ${plain(fastest)} mm/s the head needs ${plain(runUp, 1)} mm of run-up; on the ${side} ${plain(-Math.min(left, right), 1)} mm are missing. Move the stock to the ${side === "left" ? "right" : "left"} or leave out this speed.`;
}

function upFault(plan: ScanOffsetPlan, machine: MachineSpec): string | undefined {
  const end = plan.stockAtYMm + plan.stockHeightMm;
  return end > machine.depthMm
    ? `The stock would reach ${plain(end)} mm; the working area ends at ${plain(machine.depthMm)} mm.`
    : undefined;
}

/** What is worth knowing before the burn, though it does not stop it. */
export function planWarnings(plan: ScanOffsetPlan, context: PlanContext): PlanWarning[] {
  const { machine } = context;
  const warnings: PlanWarning[] = [];
  if (machine.accelerationMmPerS2 === null)
    warnings.push({
      field: "speedsMmPerS",
      message: `The acceleration of ${machine.name} is not known: run-ups are laid out for ${CAUTIOUS_ACCELERATION_MM_PER_S2} mm/s².`,
    });
  if (plan.speedsMmPerS.length < 3)
    warnings.push({
      field: "speedsMmPerS",
      message: "From three speeds on a line can be fitted and a misreading noticed.",
    });
  if (plan.way === "bare strokes" && machine.scansBlocks)
    warnings.push({
      field: "way",
      message:
        "The controller's table does nothing to strokes: this measures only. The proof will be burned as closed blocks.",
    });
  if (plan.way === "closed blocks" && !machine.scansBlocks)
    warnings.push({
      field: "way",
      message: `${machine.name} runs G-code and scans no blocks by itself, as far as is known.`,
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
        message: `This controller uses exact speeds only, and work is done at ${bare.map((v) => plain(v)).join(", ")} mm/s too: burn these as well, or take them from the line.`,
      });
  }
  if (held?.tableKind === "not known" && table?.shape === "table") {
    const between = plan.speedsMmPerS.filter((v) => tableValueAt(table, v, "not known") === null);
    if (between.length > 0)
      warnings.push({
        field: "speedsMmPerS",
        message: `Whether the controller goes by the line between its entries is not known: ${between.map((v) => plain(v)).join(", ")} mm/s will show the stagger, but the entry in force there cannot be told.`,
      });
  }
  return warnings;
}

const FIELDS: FieldSpec[] = [
  {
    key: "speedsMmPerS",
    label: "Speeds",
    why: "One block each. Take the speeds of your work.",
    group: "Blocks",
    kind: "quantities",
    dimension: "speed",
    unit: "mmPerS",
  },
  {
    key: "way",
    label: "How rows reach the machine",
    why: "Use the way in which work is engraved here.",
    group: "Blocks",
    kind: "choice",
    options: [
      { value: "closed blocks", label: WAYS["closed blocks"], why: "Its own table acts on them." },
      { value: "own strokes", label: WAYS["own strokes"], why: "The table is applied when the file is written." },
      { value: "bare strokes", label: WAYS["bare strokes"], why: "Measures the machine; a table changes nothing." },
    ],
  },
  {
    key: "outline",
    label: "Outline",
    group: "Blocks",
    ...choice(OUTLINES),
    why: "Shows whether scanned rows are shifted against drawn lines. Four more readings per speed.",
  },
  {
    key: "rowLengthMm",
    label: "Row length",
    why: "50 mm is usually enough.",
    group: "Blocks",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
  },
  {
    key: "rowPitchMm",
    label: "Row pitch",
    why: "0.5 to 1 mm, so that tips stand apart.",
    group: "Blocks",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
  },
  { key: "rowsPerBlock", label: "Rows in a block", why: "Half of them go each way.", group: "Blocks", kind: "count" },
  { key: "powerPct", label: "Power, %", why: "Low: thin, clear tips.", group: "Blocks", kind: "count" },
  {
    key: "repeats",
    label: "Readings a site",
    why: "Three, at different rows, tell the scatter.",
    group: "Reading",
    kind: "count",
  },
  {
    key: "referenceStepMm",
    label: "Reference step",
    why: "A step of known size: reading it takes out what the calipers always read wrong.",
    group: "Reading",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
  },
  {
    key: "stockWidthMm",
    label: "Stock width",
    why: "",
    group: "Stock",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
  },
  {
    key: "stockHeightMm",
    label: "Stock height",
    why: "",
    group: "Stock",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
  },
  {
    key: "stockAtXMm",
    label: "Lies at X",
    why: "Lower left corner, from the left edge of the working area.",
    group: "Stock",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
  },
  {
    key: "stockAtYMm",
    label: "Lies at Y",
    why: "From its front edge.",
    group: "Stock",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
  },
];
