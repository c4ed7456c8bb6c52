/** Adding a machine to the bench, and changing what is known of one from now on. Texts as typed. */
import { z } from "zod";
import { USUAL_DIALECT } from "../../core/machine/gcode-dialect";
import { burnFileOf } from "../../core/machine/machine-kind";
import { axesSchema, type MachineSpec, machineKindSchema } from "../../core/machine/machine-spec";
import { USUAL_OF_KIND } from "../../core/machine/not-known";
import { parseReading, parseSignedReading } from "../../core/metrology/reading-text";
import { unitIdSchema } from "../../core/metrology/unit-schema";
import { type Dimension, UNITS, type UnitId } from "../../core/metrology/units";
import {
  type HeldSetting,
  type SettingSpec,
  senseFixedBy,
  tableKindSchema,
  unitsOf,
} from "../../core/settings/setting";
import { readQuantities } from "../../core/trial/draft";
import type { Db } from "../../data/database";
import { toColumn } from "../../data/json-column";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { addMachine, everyMachine, type Machine, machineSlugs, reviseMachine } from "../../data/machines";
import { addPractice } from "../../data/practice";
import type { PracticeController } from "../../practice/gantry-truth";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seedOf } from "../../practice/random";
import { FormFaults } from "../form-faults";
import { freeSlug } from "../free-slug";
import { declareUsualGauges } from "../gauges/usual-gauges";
import { settingsOf } from "../procedures/settings";
import { Refusal } from "../refusal";
import { numberIn, wavelengthNm } from "./wavelength";

const typed = z.string().max(120);

export const machineInputSchema = z.object({
  /** `null` = a new machine. */
  slug: z.string().nullable(),
  kind: machineKindSchema,
  name: typed,
  width: typed,
  depth: typed,
  /** Empty = not known. */
  topSpeed: typed,
  wavelength: typed,
  workingSpeeds: typed,
  /** mm/s²; empty = not known. */
  acceleration: typed,
  axes: axesSchema,
  /** Whether its controller fills closed outlines with rows of its own. */
  scansBlocks: z.boolean(),
  /** How its controller takes each setting, by key. */
  held: z.record(
    z.string(),
    z.object({
      unit: unitIdSchema,
      step: typed,
      low: typed,
      high: typed,
      tableKind: tableKindSchema,
      /** What one more of a coefficient moves, as typed; empty or left out = not known. */
      effect: typed.optional(),
      sense: z.union([z.literal(1), z.literal(-1), z.literal("not known")]),
    }),
  ),
  /** A practice machine beside a new one. */
  practice: z.boolean(),
});
export type MachineInput = z.infer<typeof machineInputSchema>;

const LARGEST_MM = 10_000;
const FASTEST_MM_PER_S = 20_000;
const HARDEST_MM_PER_S2 = 1_000_000;

/**
 * Adds a machine, or revises one: trials begun before keep what they began with.
 *
 * @returns its slug
 * @throws Refusal with all faults of the form
 */
export function keepMachine(db: Db, input: MachineInput, now: number): string {
  const machines = everyMachine(db);
  const known = input.slug === null ? null : machines.find((m) => m.slug === input.slug);
  if (known === undefined) throw new Refusal("name", "There is no such machine.");
  const form = new FormFaults();
  const name = form.read(() => nameFrom(input, machines, known), "");
  if (known && known.spec.kind !== input.kind)
    throw new Refusal("kind", "The kind of a machine cannot change. Add another machine instead.");
  const spec = specFrom(form, input, name, known?.spec ?? null);
  if (known) form.read(() => refuseOtherKindsOfUnit(db, known, spec), undefined);
  form.refuse();
  if (known) {
    reviseMachine(db, known.id, spec, now);
    return known.slug;
  }
  return db.transaction((tx) => {
    const machine = standOnBench(tx, spec, now);
    declareUsualGauges(tx, now);
    if (input.practice) addStandIn(tx, machine);
    return machine.slug;
  });
}

function nameFrom(input: MachineInput, machines: readonly Machine[], known: Machine | null): string {
  const name = input.name.trim();
  if (name === "") throw new Refusal("name", "Enter a name.");
  const namesake = machines.find((m) => m !== known && m.spec.name.toLowerCase() === name.toLowerCase());
  if (namesake)
    throw new Refusal(
      "name",
      namesake.archivedAt === null
        ? "Another machine has this name. Enter a different name."
        : "An archived machine has this name. Restore it, or enter a different name.",
    );
  return name;
}

/** What is written down is a number of one kind of unit: pulses per mm do not turn into a way per pulse by saying so. */
function refuseOtherKindsOfUnit(db: Db, known: Machine, spec: MachineSpec): void {
  const written = entriesOf(db, ownerOfMachine(known.id)).filter((e) => e.undoneAt === null && e.value !== null);
  for (const { key, label } of settingsOf(spec.kind)) {
    const unit = spec.held[key]?.unit;
    const other = written.find((e) => e.setting === key && unit && UNITS[e.unit].dimension !== UNITS[unit].dimension);
    if (other)
      throw new Refusal(
        `held.${key}.unit`,
        `${label} is written down in ${UNITS[other.unit].symbol} in the ledger. Keep a unit of that kind, or take those entries back first.`,
      );
  }
}

/** A new machine with a controller and, where it takes G-code, Ustrina's own as its holders; the one that acts on burns first. */
export function standOnBench(db: Db, spec: MachineSpec, now: number): Machine {
  // `new` is an address of its own.
  const slug = freeSlug(spec.name, "machine", new Set(["new", ...machineSlugs(db)]));
  const controller = { name: `Controller of ${spec.name}`, role: "controller" as const };
  if (burnFileOf(spec.kind) !== "g-code") return addMachine(db, slug, spec, [controller], now);
  const holders = [controller, { name: "Ustrina's own G-code", role: "ustrina" as const }];
  return addMachine(db, slug, spec, spec.scansBlocks ? holders : [...holders].reverse(), now);
}

function addStandIn(db: Db, machine: Machine): void {
  const controller: PracticeController = { table: [], switchedOn: true };
  const truth = practiceFromSeed(seedOf(machine.slug, machine.id), machine.spec);
  addPractice(db, { machineId: machine.id, truth: toColumn(truth), controller: toColumn(controller) });
}

function specFrom(form: FormFaults, input: MachineInput, name: string, before: MachineSpec | null): MachineSpec {
  const usual = USUAL_OF_KIND[input.kind];
  const size = (field: "width" | "depth") => form.read(() => quantity(input, field, "length", "mm", LARGEST_MM), 1);
  const [widthMm, depthMm] = [size("width"), size("depth")];
  const topSpeed = form.read(
    () => (isEmpty(input.topSpeed) ? null : quantity(input, "topSpeed", "speed", "mmPerS", FASTEST_MM_PER_S)),
    null,
  );
  const wavelength = form.read(
    () => (isEmpty(input.wavelength) ? null : wavelengthNm(input.wavelength, "wavelength")),
    null,
  );
  const assumed = [
    ...(topSpeed === null ? (["topSpeedMmPerS"] as const) : []),
    ...(wavelength === null ? (["wavelengthNm"] as const) : []),
  ];
  const { assumed: _, ...kept } = before ?? { gcode: USUAL_DIALECT, tolerances: {}, recheckDays: {}, assumed: [] };
  return {
    ...kept,
    name,
    kind: input.kind,
    axes: input.axes,
    scansBlocks: input.scansBlocks,
    widthMm,
    depthMm,
    topSpeedMmPerS: topSpeed ?? usual.topSpeedMmPerS,
    accelerationMmPerS2: form.read(() => (isEmpty(input.acceleration) ? null : acceleration(input.acceleration)), null),
    wavelengthNm: wavelength ?? usual.wavelengthNm,
    ...(assumed.length > 0 ? { assumed } : {}),
    workingSpeedsMmPerS: form.read(() => workingSpeeds(input), []),
    held: { ...withoutDropped(input, before?.held ?? {}), ...heldFrom(form, input) },
  };
}

function isEmpty(text: string): boolean {
  return text.trim() === "";
}

function quantity(
  input: MachineInput,
  field: "width" | "depth" | "topSpeed",
  dimension: Dimension,
  unit: UnitId,
  most: number,
): number {
  if (isEmpty(input[field])) throw new Refusal(field, `Give it, for example ${EXAMPLES[field]}.`);
  const read = parseReading(input[field], dimension, unit);
  if (!read.ok) throw new Refusal(field, read.message);
  if (!(read.value > 0 && read.value <= most))
    throw new Refusal(
      field,
      `It must be larger than 0 and no more than ${most}${dimension === "speed" ? " mm/s. Were mm/min meant?" : " mm."}`,
    );
  return read.value;
}

const EXAMPLES = { width: "900 mm", depth: "600 mm", topSpeed: "600 mm/s" } as const;

function acceleration(text: string): number {
  const value = numberIn(text, /\s*mm\/s(²|2|\^2)$/);
  if (!(value > 0 && value <= HARDEST_MM_PER_S2))
    throw new Refusal(
      "acceleration",
      "Type a number of mm/s², for example 6000, or leave it empty where it is not known.",
    );
  return value;
}

function workingSpeeds(input: MachineInput): number[] {
  const read = readQuantities(input.workingSpeeds, "speed", "mmPerS");
  if (!read.ok) throw new Refusal("workingSpeeds", read.message);
  if (read.value.some((v) => !(v > 0 && v <= FASTEST_MM_PER_S)))
    throw new Refusal("workingSpeeds", "Speeds must be larger than 0: for example 150 300 mm/s.");
  return [...new Set(read.value)].sort((a, b) => a - b);
}

/** What no longer stands on the form, because the machine has it no more, is dropped; what the form does not know of stays. */
function withoutDropped(input: MachineInput, held: MachineSpec["held"]): MachineSpec["held"] {
  const dropped = settingsOf(input.kind).filter((s) => s.onlyWhere !== undefined && !input.held[s.key]);
  return Object.fromEntries(Object.entries(held).filter(([key]) => dropped.every((s) => s.key !== key)));
}

/** Just the settings that procedures of its kind correct. */
function heldFrom(form: FormFaults, input: MachineInput): Record<string, HeldSetting> {
  const settings = settingsOf(input.kind);
  return Object.fromEntries(
    settings.flatMap((setting) => {
      const given = input.held[setting.key];
      if (!given) return [];
      const { unit, tableKind } = given;
      const fieldOf = (name: string) => `held.${setting.key}.${name}`;
      const step = form.read(() => stepFrom(given, setting, fieldOf), 1);
      const range = form.read(() => rangeFrom(given, fieldOf), null);
      const effectMm = form.read(() => effectFrom(given, setting, fieldOf), null);
      const effect = effectMm === null ? {} : { effectMm };
      return [[setting.key, { unit, step, range, tableKind, ...senseFrom(given, setting), ...effect }]];
    }),
  );
}

function stepFrom(
  { unit, step }: MachineInput["held"][string],
  setting: SettingSpec,
  fieldOf: (name: string) => string,
): number {
  if (!unitsOf(setting).includes(unit))
    throw new Refusal(fieldOf("unit"), `${setting.label} has no values in ${UNITS[unit].symbol}. Choose another unit.`);
  const read = parseReading(step, UNITS[unit].dimension, unit);
  if (!read.ok) throw new Refusal(fieldOf("step"), read.message);
  if (!(read.value > 0)) throw new Refusal(fieldOf("step"), "The smallest step must be larger than 0.");
  return read.value;
}

/** @returns mm; `null` where it is not known, or where the unit says it */
function effectFrom(
  { effect = "" }: MachineInput["held"][string],
  setting: SettingSpec,
  fieldOf: (name: string) => string,
): number | null {
  if (setting.effect === undefined || isEmpty(effect)) return null;
  const read = parseSignedReading(effect, "length", "mm");
  if (!read.ok) throw new Refusal(fieldOf("effect"), read.message);
  if (read.value === 0)
    throw new Refusal(fieldOf("effect"), "The effect is 0. Enter another value, or leave the field empty.");
  return read.value;
}

function senseFrom(
  { unit, sense }: MachineInput["held"][string],
  setting: SettingSpec,
): Pick<HeldSetting, "sense" | "senseAssumed"> {
  const fixedByUnit = senseFixedBy(setting, unit);
  if (fixedByUnit !== null) return { sense: fixedByUnit };
  if (sense !== "not known") return { sense };
  return { sense: setting.usualSense?.otherwise ?? 1, ...(setting.larger ? { senseAssumed: true } : {}) };
}

/** Both ends, or neither: not known. A minus is typed as such. */
function rangeFrom(
  { unit, low, high }: MachineInput["held"][string],
  fieldOf: (name: string) => string,
): HeldSetting["range"] {
  if (low.trim() === "" && high.trim() === "") return null;
  const end = (name: "low" | "high", text: string) => {
    if (text.trim() === "") throw new Refusal(fieldOf(name), "Give both ends of the range, or neither.");
    const read = parseSignedReading(text, UNITS[unit].dimension, unit);
    if (!read.ok) throw new Refusal(fieldOf(name), read.message);
    return read.value;
  };
  const range = { low: end("low", low), high: end("high", high) };
  if (!(range.low < range.high))
    throw new Refusal(fieldOf("high"), "The largest value must be larger than the smallest.");
  return range;
}
