/** Optics and rotaries: what is known of them, and which is fitted where since when. Texts as typed. */
import { z } from "zod";
import { type PartKind, type PartSpec, setAsideSchema, stepsOfDrive } from "../../core/machine/part-spec";
import { plain } from "../../core/metrology/quantity-text";
import { parseReading } from "../../core/metrology/reading-text";
import type { Db } from "../../data/database";
import { everyMachine, type Machine, machineBySlug } from "../../data/machines";
import {
  addPart,
  allParts,
  archivePart,
  fitPart,
  fittedAt,
  fittedPart,
  fittingsOf,
  partById,
  revisePart,
} from "../../data/parts";
import { FormFaults } from "../form-faults";
import { happenedAt } from "../happened-at";
import { Refusal } from "../refusal";
import { wavelengthNm } from "./wavelength";

const typed = z.string().max(120);

export const partInputSchema = z.object({
  /** `null` = a new one. */
  id: z.number().int().nullable(),
  kind: z.enum(["optic", "rotary"]),
  label: typed,
  /** Optics; empty = not known. */
  focalLength: typed,
  workingDistance: typed,
  field: typed,
  lensWavelength: typed,
  ring: typed,
  printed: typed,
  /** Rotaries. */
  drive: z.enum(["roller", "chuck"]),
  rollerDiameter: typed,
  steps: typed,
  motorSteps: typed,
  microsteps: typed,
  ratio: typed,
  thinnest: typed,
  thickest: typed,
  mostStepsPerS: typed,
  replaces: z.enum(["x", "y"]),
  setAside: z.array(setAsideSchema),
  setAsideToo: typed,
});
export type PartInput = z.infer<typeof partInputSchema>;

const LONGEST_MM = 10_000;
const MOST_STEPS = 100_000_000;

/** Adds a part, or changes one from now on. @returns its id @throws Refusal with all faults of the form */
export function keepPart(db: Db, input: PartInput, now: number): number {
  const form = new FormFaults();
  const label = form.read(() => labelFrom(db, input), "");
  const spec = specOf(form, input, label);
  form.refuse();
  if (input.id === null) return addPart(db, spec, now);
  const known = partById(db, input.id);
  if (!known || known.spec.kind !== input.kind) throw new Refusal("label", "There is no such part.");
  revisePart(db, input.id, spec, now);
  return input.id;
}

function labelFrom(db: Db, input: PartInput): string {
  const label = input.label.trim();
  if (label === "") throw new Refusal("label", "Enter a name, for example 50.8 or F160.");
  if (allParts(db).some((p) => p.id !== input.id && p.spec.label.toLowerCase() === label.toLowerCase()))
    throw new Refusal("label", "Another lens or rotary has this name. Enter a different name.");
  return label;
}

function specOf(form: FormFaults, input: PartInput, label: string): PartSpec {
  if (input.kind === "rotary") return rotaryFrom(form, input, label);
  const lengthOf = (text: string, field: string) => form.read(() => length(text, field), null);
  const nm = () => (input.lensWavelength.trim() === "" ? null : wavelengthNm(input.lensWavelength, "lensWavelength"));
  return {
    kind: "optic",
    label,
    printed: input.printed.trim(),
    focalLengthMm: lengthOf(input.focalLength, "focalLength"),
    workingDistanceMm: lengthOf(input.workingDistance, "workingDistance"),
    fieldMm: lengthOf(input.field, "field"),
    wavelengthNm: form.read(nm, null),
    ringDiameterMm: lengthOf(input.ring, "ring"),
  };
}

function rotaryFrom(form: FormFaults, input: PartInput, label: string): PartSpec {
  const lengthOf = (text: string, field: string) => form.read(() => length(text, field), null);
  const numberOf = (text: string, field: string, help: string) => form.read(() => number(text, field, help), null);
  const motorSteps = form.read(() => whole(input.motorSteps, "motorSteps"), null);
  const microsteps = form.read(() => whole(input.microsteps, "microsteps"), null);
  const ratio = numberOf(
    input.ratio,
    "ratio",
    "Enter the turns of the motor per turn of the workpiece, for example 3.5 or 60/20.",
  );
  const said = numberOf(input.steps, "steps", "Enter the steps per revolution.");
  const [thinnestMm, thickestMm] = [lengthOf(input.thinnest, "thinnest"), lengthOf(input.thickest, "thickest")];
  const rotary = {
    label,
    drive: input.drive,
    replaces: input.replaces,
    motorSteps,
    microsteps,
    ratio,
    rollerDiameterMm: input.drive === "roller" ? lengthOf(input.rollerDiameter, "rollerDiameter") : null,
    thinnestMm,
    thickestMm,
    stepsPerRevolution: said,
    mostStepsPerS: numberOf(input.mostStepsPerS, "mostStepsPerS", "Enter steps per second, for example 20000."),
    setAside: [...new Set(input.setAside)],
    setAsideToo: input.setAsideToo.trim(),
  };
  const made = stepsOfDrive(rotary);
  form.read(() => {
    if (thinnestMm !== null && thickestMm !== null && thinnestMm >= thickestMm)
      throw new Refusal("thickest", "The largest diameter must be larger than the smallest.");
  }, undefined);
  form.read(() => {
    if (said !== null && made !== null && Math.abs(made - said) > SAME_STEPS * said)
      throw new Refusal(
        "steps",
        `Motor, microsteps and ratio make ${plain(made, 1)}, not ${plain(said, 1)}. Leave this field empty, or correct one of the values.`,
      );
  }, undefined);
  return { kind: "rotary", ...rotary, stepsPerRevolution: made };
}

/** Steps that are typed and steps that are made agree within this share: ratios are rounded. */
const SAME_STEPS = 0.001;

function length(text: string, field: string): number | null {
  if (text.trim() === "") return null;
  const read = parseReading(text, "length", "mm");
  if (!read.ok) throw new Refusal(field, read.message);
  if (!(read.value > 0 && read.value <= LONGEST_MM))
    throw new Refusal(field, `It must be larger than 0 and no more than ${LONGEST_MM} mm.`);
  return read.value;
}

function number(text: string, field: string, help: string): number | null {
  if (text.trim() === "") return null;
  const read = parseReading(text, "ratio", "one");
  if (!read.ok) throw new Refusal(field, read.message);
  if (!(read.value > 0 && read.value <= MOST_STEPS))
    throw new Refusal(field, `${help} Leave it empty where it is not known.`);
  return read.value;
}

function whole(text: string, field: string): number | null {
  const value = number(text, field, "Type a whole number, for example 200 or 16.");
  if (value !== null && !Number.isInteger(value))
    throw new Refusal(field, "Pulses are whole: type a whole number, for example 200 or 16.");
  return value;
}

/**
 * Fits a part in the place of what was there, or with `null` takes that off: one action with one date.
 *
 * @throws Refusal when it is fitted elsewhere, or the date lies before the fitting that is there
 */
export function swapPart(
  db: Db,
  input: { machine: string; kind: PartKind; partId: number | null; at: number | null },
  now: number,
): void {
  const machine = machineBySlug(db, input.machine);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  const at = happenedAt(input.at, now);
  const present = fittedPart(db, machine.id, input.kind, now);
  if (input.partId === null && !present) throw new Refusal("part", "Nothing is fitted.");
  if (input.partId !== null) refuseUnfit(db, machine, input.kind, input.partId, present?.partId ?? null);
  const newest = fittingsOf(db, machine.id)
    .filter((f) => f.kind === input.kind)
    .at(-1);
  if (newest && at <= Math.max(newest.from, newest.to ?? 0))
    throw new Refusal("at", `${newest.label} was fitted or taken off after that. Give a later time.`);
  fitPart(db, machine.id, input.kind, input.partId, at);
}

function refuseUnfit(db: Db, machine: Machine, kind: PartKind, partId: number, presentId: number | null): void {
  const part = partById(db, partId);
  if (!part || part.spec.kind !== kind || part.archivedAt !== null) throw new Refusal("part", "Choose what is fitted.");
  if (presentId === partId) throw new Refusal("part", `${part.spec.label} is fitted already.`);
  const there = fittedAt(db, partId);
  if (there && there.machineId !== machine.id) {
    const name = everyMachine(db).find((m) => m.id === there.machineId)?.spec.name ?? "another machine";
    throw new Refusal(
      "part",
      `${part.spec.label} is fitted to ${name}: it cannot be on two machines. Take it off there first.`,
    );
  }
}

/** Out of the way, or back; what was measured with it stays. */
export function putPartAway(db: Db, id: number, away: boolean, now: number): void {
  const part = partById(db, id);
  if (!part) throw new Refusal("part", "There is no such part.");
  const there = fittedAt(db, id);
  if (away && there) throw new Refusal("part", `${part.spec.label} is fitted: take it off first.`);
  archivePart(db, id, away ? now : null);
}
