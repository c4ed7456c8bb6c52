/** What may be chosen before a field is measured, and what is refused by name. */

import { FIELD_TERMS, type FieldTerm } from "../../geometry/field-term";
import type { MachineSpec } from "../../machine/machine-spec";
import { type FieldLimit, fieldLimits, USUAL_BEAM_RAD, workingFieldMm } from "../../machine/working-field";
import { knownLengthField } from "../../measuring/known-length";
import { gaugeFields, gaugeIn } from "../../measuring/length-gauges";
import { holdOf } from "../../measuring/number-correction";
import { plain } from "../../metrology/quantity-text";
import { field } from "../../trial/plan-field";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { type PlanOf, planForm } from "../../trial/plan-table";
import { lineFields, repeatsField } from "../../trial/shared-fields";
import { FOCUS_HEIGHT } from "../focus/plan";
import { longestRead } from "./grid/lengths";
import { gridFaults, gridFields } from "./grid/plan";
import { GRID_ONLY, SEEINGS, SQUARE_ONLY } from "./how";
import { type MapTerm, termName } from "./map";
import { FIELD_SCALE, fieldKey, fieldSetting, MAP_KEYS } from "./setting";
import { tableIn } from "./table";

/** Coefficients of the controller when a table is used. */
const REPLACED = {
  stay: "Stay as they are",
  replaced: "Set to 0, and replaced by the table",
} as const;
export const WAYS = {
  scale: "Scale alone",
  seven: "Scale, bow, keystone and shear",
  nine: "Scale, bow, keystone, shear and own cubics",
} as const;
const TABLES = {
  none: "No table, or switched off",
  on: "A table is switched on",
} as const;
/** Ways to prove a correction. */
const PROVED = {
  grid: "The same grid",
  square: "A square with mid-lines, measured with calipers",
} as const;
/** In which form the correction is taken. */
export const TAKEN = {
  coefficients: "Scale and coefficients of the controller",
  table: "A correction table in the controller",
  artwork: "Bent artwork",
} as const;

/** Shares of the half field at which the sides are drawn: they differ, so that X and Y cannot be mixed up unseen. */
const SHARES = { x: 0.94, y: 0.91 } as const;
const [LEAST_SHARE, MOST_SHARE] = [0.9, 0.95];
const DEGREE = Math.PI / 180;

const FORM: readonly FieldTerm[] = ["bow x", "bow y", "keystone x", "keystone y", "shear"];
const CUBICS: readonly FieldTerm[] = ["own cubic x", "own cubic y"];

/** How it is set: older plans say the way alone. */
type Taking = Pick<FieldPlan, "way"> & Partial<Pick<FieldPlan, "takes">>;

/** In which form the correction is taken. */
export function takenAs({ takes = "coefficients" }: Partial<Pick<FieldPlan, "takes">>): FieldPlan["takes"] {
  return takes;
}

/** Coefficients that are set, besides the scale. */
export function formTermsOf(plan: Taking): readonly FieldTerm[] {
  if (plan.way === "scale" || takenAs(plan) !== "coefficients") return [];
  return plan.way === "seven" ? FORM : [...FORM, ...CUBICS];
}

/** All coefficients that are set, as terms of the map. */
export function settableTerms(plan: Taking): MapTerm[] {
  return takenAs(plan) === "coefficients" ? ["scale x", "scale y", ...formTermsOf(plan)] : [];
}

/** Keys of the settings that a burn with this plan corrects. */
export function settingsOf(plan: Taking & Partial<Pick<FieldPlan, "coefficients">>, machine: Held): string[] {
  const taken = takenAs(plan);
  if (taken === "coefficients") return settableTerms(plan).map(keyOf);
  const replaced = isReplacing(plan) ? heldCoefficients(machine).map(fieldKey) : [];
  return [MAP_KEYS[taken], ...replaced];
}

type Held = Pick<MachineSpec, "held">;

/** Coefficients that the controller has. */
export function heldCoefficients({ held }: Held): FieldTerm[] {
  return FIELD_TERMS.filter((term) => held[fieldKey(term)] !== undefined);
}

/** Whether a table takes the place of the coefficients. */
export function isReplacing({ takes, coefficients }: Partial<Pick<FieldPlan, "takes" | "coefficients">>): boolean {
  return takes === "table" && coefficients === "replaced";
}

/** Key of the setting of a term. */
export function keyOf(term: MapTerm): string {
  if (term === "scale x") return FIELD_SCALE.x;
  if (term === "scale y") return FIELD_SCALE.y;
  const form = FIELD_TERMS.find((t) => t === term);
  if (!form) throw new RangeError(`${term}: no controller holds it`);
  return fieldKey(form);
}

type LensAsked = { focalMm: number; plateMm: number; beamDeg: number };

/** What lens and controller allow; 0 = not known. */
export function limitsOf(
  { focalMm, plateMm, beamDeg }: LensAsked,
  machine: Pick<MachineSpec, "widthMm" | "depthMm">,
): FieldLimit[] {
  return fieldLimits({
    focalMm: focalMm || null,
    beamRad: beamDeg * DEGREE,
    plateMm: plateMm || null,
    controllerMm: Math.min(machine.widthMm, machine.depthMm),
  });
}

/** As it is corrected now. */
function usualTaken({ inForce }: PlanContext): keyof typeof TAKEN {
  const taken = (["table", "artwork"] as const).find((key) => isOn(inForce, MAP_KEYS[key]));
  return taken ?? "coefficients";
}

function isOn(inForce: PlanContext["inForce"], key: string): boolean {
  return (tableIn(inForce, key)?.undone.length ?? 0) > 0;
}

function planFields(context: PlanContext) {
  const { machine, inForce, optic } = context;
  const lens: LensAsked = {
    focalMm: optic?.focalLengthMm ?? 0,
    plateMm: optic?.fieldMm ?? 0,
    beamDeg: Number((USUAL_BEAM_RAD / DEGREE).toFixed(6)),
  };
  const usualField = workingFieldMm(limitsOf(lens, machine));
  const side = (share: number) => Math.round(share * usualField * 2) / 2;
  const height = inForce[FOCUS_HEIGHT];
  const heldTerms = (terms: readonly FieldTerm[]) => terms.some((t) => machine.held[fieldKey(t)] !== undefined);
  return {
    how: field.choice(SEEINGS, {
      label: "How the field is measured",
      group: "Way",
      usual: "square",
      whys: {
        square: "A few lengths, and no scanner.",
        grid: "The whole map of the field. You need a flatbed scanner and calipers.",
      },
    }),
    focalMm: field.length({
      label: "Focal length of the lens",
      group: "Working field",
      why: "Enter 0 if unknown.",
      usual: lens.focalMm,
      min: 0,
    }),
    plateMm: field.length({
      label: "Field on the plate of the lens",
      group: "Working field",
      why: "The number on the lens. Enter 0 if there is none.",
      usual: lens.plateMm,
      min: 0,
    }),
    fieldMm: field.length({
      label: "Working field, side",
      group: "Working field",
      why: "Calibrate the field you work in, not the largest one.",
      usual: usualField,
      min: [20, "A smaller field shows too little."],
      max: [Math.min(machine.widthMm, machine.depthMm), "The field of the machine page is no larger."],
    }),
    beamDeg: field.number({
      label: "Beam angle at the edge, °",
      group: "Working field",
      why: "Twice the angle of the mirror; 20° is usual.",
      usual: lens.beamDeg,
      max: [45, "No scan head goes further."],
    }),
    sideXMm: field.length({
      label: "Square along X",
      group: "Square",
      why: "0.90 to 0.95 of the working field.",
      usual: side(SHARES.x),
      when: SQUARE_ONLY,
    }),
    sideYMm: field.length({
      label: "Square along Y",
      group: "Square",
      why: "A little different from X, to notice a mix-up.",
      usual: side(SHARES.y),
      when: SQUARE_ONLY,
    }),
    ...gridFields(),
    proved: field.choice(PROVED, { label: "Proved with", group: "Way", usual: "grid", when: GRID_ONLY }),
    takes: field.choice(TAKEN, {
      label: "Form of the correction",
      group: "Controller",
      usual: usualTaken(context),
      before: "coefficients",
      whys: {
        table: "The table corrects the whole field. Only a grid of dots can make one.",
        artwork: "For controllers without a table. Bend every drawing before you send it.",
      },
    }),
    way: field.choice(WAYS, {
      label: "Settings of the controller",
      group: "Controller",
      usual: heldTerms(CUBICS) ? "nine" : heldTerms(FORM) ? "seven" : "scale",
      when: { field: "takes", is: ["coefficients"] },
      whys: {
        scale: "Bow and keystone are measured, and remain.",
        nine: "Quarter ticks on the mid-lines are measured too.",
      },
    }),
    coefficients: field.choice(REPLACED, {
      label: "Bow, keystone, shear and cubics of the controller",
      group: "Controller",
      usual: "stay",
      when: heldCoefficients(machine).length > 0 ? { field: "takes", is: ["table"] } : false,
    }),
    table: field.choice(TABLES, {
      label: "Correction table in the controller",
      group: "Controller",
      usual: "none",
      when: SQUARE_ONLY,
    }),
    ...gaugeFields(context, "The diagonal must not be longer."),
    repeats: { ...repeatsField(2), when: [SQUARE_ONLY] },
    knownMm: knownLengthField(context),
    heightMm: field.signedLength({
      label: "Focus height",
      group: "Burn",
      why: "Enter the value of the scale or readout.",
      usual: height?.shape === "scalar" ? height.value : 0,
      when: height?.shape === "scalar" ? undefined : false,
    }),
    stockMm: field.length({
      label: "Stock thickness",
      group: "Burn",
      why: "Set the focus on the top face of the stock.",
      usual: 1,
    }),
    ...lineFields(machine),
  };
}

export type FieldPlan = PlanOf<ReturnType<typeof planFields>>;

export function fieldPlan(context: PlanContext): PlanForm<FieldPlan> {
  return planForm(planFields(context), {
    faults: (plan) => [
      ...(plan.how === "grid"
        ? gridFaults(plan)
        : ([
            ["sideXMm", sideFault(plan.sideXMm, plan.fieldMm)],
            ["sideYMm", sideFault(plan.sideYMm, plan.fieldMm)],
            ["table", plan.table === "on" && takenAs(plan) === "coefficients" ? TABLE_ON : null],
          ] as const)),
      ["gauge", reachFault(plan, context)],
      ["way", rangeMissing(plan, context)],
      ["takes", twiceCorrected(plan, context)],
      ["coefficients", effectMissing(plan, context)],
    ],
  });
}

const TABLE_ON =
  "A correction table and these settings act on the same field. Switch the table off for this burn, then choose “No table”.";

/** A table can take the place of a coefficient only where it is known what the coefficient does. */
function effectMissing(plan: FieldPlan, { machine }: PlanContext): string | null {
  if (!isReplacing(plan)) return null;
  const open = heldCoefficients(machine).find((term) => machine.held[fieldKey(term)]?.effectMm === undefined);
  return open
    ? `The effect of ${termName(open)} is not known. Keep the coefficients, or set this one to 0 before the burn.`
    : null;
}

/** Table, coefficients and bent artwork act on the same field: what else is in force would be corrected twice. */
function twiceCorrected(plan: FieldPlan, { inForce }: PlanContext): string | null {
  const taken = takenAs(plan);
  if (taken !== "table" && isOn(inForce, MAP_KEYS.table))
    return taken === "artwork"
      ? "A correction table is in force. With bent artwork the field would be corrected twice. Choose the table, or enter in the ledger that it was removed."
      : "A correction table is in force. Choose the table, or enter in the ledger that it was removed.";
  if (taken !== "artwork" && isOn(inForce, MAP_KEYS.artwork))
    return "Drawings are bent for this lens. The field would be corrected twice. Choose bent artwork, or enter in the ledger that drawings are not bent any more.";
  return null;
}

function sideFault(sideMm: number, fieldMm: number): string | null {
  const share = sideMm / fieldMm;
  if (sideMm > fieldMm)
    return `The square is larger than the working field of ${plain(fieldMm)} mm. Enter at most ${plain(MOST_SHARE * fieldMm, 1)} mm.`;
  if (share >= LEAST_SHARE - 1e-9 && share <= MOST_SHARE + 1e-9) return null;
  return `The square is ${plain(share, 2)} of the working field. Enter between ${plain(LEAST_SHARE * fieldMm, 1)} and ${plain(MOST_SHARE * fieldMm, 1)} mm.`;
}

function reachFault(plan: FieldPlan, context: PlanContext): string | null {
  const longest = plan.how === "grid" ? longestRead(plan) : Math.hypot(plan.sideXMm, plan.sideYMm);
  const { gauge, reachMm } = gaugeIn(plan, context);
  return longest > reachMm
    ? `The longest length is ${plain(longest, 1)} mm. The reach of ${gauge.name} is ${plain(reachMm)} mm. Choose a longer gauge.`
    : null;
}

/** Values of a coefficient whose effect is not known can be tried only within its range. */
function rangeMissing(plan: FieldPlan, { machine }: PlanContext): string | null {
  const open = formTermsOf(plan).filter((term) => {
    const held = machine.held[fieldKey(term)];
    return held !== undefined && held.effectMm === undefined && held.range === null;
  });
  const [first] = open;
  return first
    ? `The range of ${termName(first)} is not known. Enter its smallest and largest value on the machine page, or choose fewer settings.`
    : null;
}

export function planWarnings(plan: FieldPlan, context: PlanContext): PlanWarning[] {
  const limits = limitsOf(plan, context.machine);
  const beyond = limits.filter((l) => l.from !== "controller" && plan.fieldMm > l.sideMm);
  const warnings: PlanWarning[] = beyond.map((l) => ({
    field: "fieldMm",
    message: `${l.text} Use a smaller working field.`,
  }));
  const plate = limits.find((l) => l.from === "plate");
  if (plate && plan.fieldMm <= plate.sideMm && plan.fieldMm > workingFieldMm([plate]))
    warnings.push({
      field: "fieldMm",
      message: `${plate.text} Near that edge the spot grows and the power falls. Calibrate at most ${workingFieldMm([plate])} mm.`,
    });
  if (formTermsOf(plan).some((t) => machineEffect(context, t) === null))
    warnings.push({
      field: "way",
      message:
        "The effect of some coefficients is not known. Ustrina tries values, one burn each, until the field is right.",
    });
  return warnings;
}

/** What one more of a coefficient moves the corner of the working field, mm; `null` = not known. */
function machineEffect({ machine }: PlanContext, term: FieldTerm): number | null {
  return holdOf(machine, fieldSetting(fieldKey(term))).effectMm ?? null;
}
