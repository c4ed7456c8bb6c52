/** What may be chosen before a rotary is measured, and what is refused by name. */
import { z } from "zod";
import { GAUGE_SHAPE, lengthGauges, USUAL_REACHES } from "../../measuring/length-gauges";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { oneOf, POWER_SHAPE, positive, REPEATS_SHAPE, speedShape } from "../../trial/plan-form";
import { ALONG_MM } from "./layout";
import { beginsFault, diameterFault, restFault, spanFault } from "./plan-faults";
import { fieldsFor } from "./plan-fields";
import {
  BACK,
  DRIVES,
  HELD,
  isBurned,
  NO_NAME,
  REPLACED,
  RESTS,
  type RotaryPlan,
  restsElsewhere,
  SIZED,
  WAYS,
} from "./plan-type";
import { ROLLER_DIAMETER, ROTARY_STEPS } from "./setting";

/** A bottle or a tube of this size is usual. (common practice, no source) */
const USUAL_DIAMETER_MM = 60;
/** Half the largest swing that an eye tolerates at a chuck, mm. (common practice, no source) */
const USUAL_RUNOUT_MM = 0.1;
const USUAL_TAPE_MM = 0.1;
const USUAL_DOT_MM = 0.2;

export function planForm(context: PlanContext): PlanForm<RotaryPlan> {
  return { schema: schemaFor(context), defaults: defaultsFor(context), fields: fieldsFor(context) };
}

function defaultsFor(context: PlanContext): RotaryPlan {
  const { machine, rotary } = context;
  const drive = rotary?.drive ?? "roller";
  const replaces = rotary?.replaces ?? "y";
  const [gauge] = lengthGauges(context);
  const size = replaces === "y" ? machine.widthMm : machine.depthMm;
  return {
    way: "wrap",
    drive,
    rotary: rotary?.label ?? NO_NAME,
    replaces,
    holds: heldBy(context),
    diameterMm: USUAL_DIAMETER_MM,
    sizedBy: "across",
    rests: "same",
    restsOnMm: USUAL_DIAMETER_MM,
    runoutMm: USUAL_RUNOUT_MM,
    spanMm: 80,
    tapeMm: USUAL_TAPE_MM,
    thereAndBack: "yes",
    readoutStepMm: 0.1,
    dotMm: USUAL_DOT_MM,
    gauge: gauge?.id ?? "",
    repeats: 3,
    ...USUAL_REACHES,
    speedMmPerS: Math.min(50, machine.topSpeedMmPerS / 8),
    powerPct: 14,
    beginsAtMm: Math.max(0, Math.floor((size - ALONG_MM) / 2)),
  };
}

/** As it is said of the machine; both where nothing is. */
function heldBy({ machine: { held } }: PlanContext): keyof typeof HELD {
  const [steps, roller] = [held[ROTARY_STEPS] !== undefined, held[ROLLER_DIAMETER] !== undefined];
  return steps === roller ? "both" : steps ? "steps" : "diameter";
}

function schemaFor(context: PlanContext): z.ZodType<RotaryPlan> {
  const { machine } = context;
  return z
    .object({
      way: oneOf(WAYS),
      drive: oneOf(DRIVES),
      rotary: z.string({ error: "Choose the rotary." }),
      replaces: oneOf(REPLACED),
      holds: oneOf(HELD).optional(),
      diameterMm: positive("how thick the part is where it is marked, for example 60 mm"),
      sizedBy: oneOf(SIZED),
      rests: oneOf(RESTS).optional(),
      restsOnMm: positive("how thick the part is where it lies on the rollers, for example 72 mm").optional(),
      runoutMm: z
        .number({ error: "Give by how much it runs out, 0 where it does not." })
        .min(0, "No less than 0.")
        .max(5, "So much runs out of focus: true it up first.")
        .optional(),
      spanMm: positive("the length, for example 80 mm").min(20, "At least 20 mm: a longer one tells more.").optional(),
      tapeMm: z
        .number({ error: "Give how thick the tape is, 0 where there is none." })
        .min(0, "No less than 0.")
        .max(2, "So thick is no tape.")
        .optional(),
      thereAndBack: oneOf(BACK),
      readoutStepMm: positive("the step of the readout, for example 0.1 mm").optional(),
      dotMm: positive("within what the dot is set on a line, for example 0.2 mm")
        .max(2, "Within 2 mm at most.")
        .optional(),
      ...GAUGE_SHAPE,
      repeats: REPEATS_SHAPE,
      speedMmPerS: speedShape(machine, "the speed").optional(),
      powerPct: POWER_SHAPE.optional(),
      beginsAtMm: z
        .number({ error: "Give where the marks begin." })
        .min(0, "The marks must lie inside the working area.")
        .optional(),
    })
    .superRefine((plan, issues) => {
      const say = (field: keyof RotaryPlan, message: string | undefined) => {
        if (message) issues.addIssue({ code: "custom", path: [field], message });
      };
      say("diameterMm", diameterFault(plan.diameterMm, context));
      say("restsOnMm", restFault(plan, context));
      say("spanMm", spanFault(plan, context));
      say("beginsAtMm", beginsFault(plan, machine));
    })
    .transform(onlyAsked);
}

/** What another way or drive asks for is no part of this plan. */
function onlyAsked(plan: RotaryPlan): RotaryPlan {
  const { holds, rests, restsOnMm, runoutMm, spanMm, tapeMm, readoutStepMm, dotMm, ...rest } = plan;
  const { speedMmPerS, powerPct, beginsAtMm, ...always } = rest;
  return {
    ...always,
    ...(plan.drive === "roller" ? { holds, rests } : { runoutMm }),
    ...(restsElsewhere(plan) ? { restsOnMm } : {}),
    ...(plan.way === "wrap" ? {} : { spanMm, tapeMm }),
    ...(plan.way === "traced" ? { readoutStepMm, dotMm } : {}),
    ...(isBurned(plan) ? { speedMmPerS, powerPct, beginsAtMm } : {}),
  };
}
