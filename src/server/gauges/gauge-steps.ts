/** Declaring gauges: what they show, their limit of error, and how they scatter in the hand. */
import { z } from "zod";
import { median } from "../../core/fitting/median";
import {
  type Gauge,
  gaugeKindSchema,
  gaugeSchema,
  PICTURE_READER,
  relativeUncertaintyFrom,
  usualGauge,
} from "../../core/metrology/gauge";
import { parseReading } from "../../core/metrology/reading-text";
import type { Db } from "../../data/database";
import {
  addGauge,
  addGaugeFault,
  allGauges,
  gaugeKeys,
  type KnownGauge,
  reviseGauge,
  takeBackGaugeFault,
} from "../../data/gauges";
import { FormFaults } from "../form-faults";
import { happenedAt } from "../happened-at";
import { Refusal } from "../refusal";

/** Texts as typed; lengths in the unit of the gauge unless they carry their own. */
export const gaugeInputSchema = z.object({
  /** `null` = a new gauge. */
  id: z.string().nullable(),
  name: z.string().max(80),
  kind: gaugeKindSchema,
  unit: gaugeSchema.shape.unit,
  resolution: z.string().max(60),
  /** Empty = not known: one step is taken. */
  limit: z.string().max(60),
  /** Empty = not known: repeats have to tell. */
  placing: z.string().max(60),
});
export type GaugeInput = z.infer<typeof gaugeInputSchema>;

/** How well a scatter typed from experience is known, as a share. (common practice, no source) */
const EXPERIENCE_RELATIVE_U = 0.5;
const COARSEST_MM = 20;

/** Declares a gauge, or changes one from now on. @returns its id @throws Refusal with all faults of the form */
export function declareGauge(db: Db, input: GaugeInput, now: number): string {
  const known = allGauges(db).map((g) => g.spec);
  const form = new FormFaults();
  const name = form.read(() => nameFrom(input, known), "");
  const resolutionMm = form.read(() => resolutionFrom(input), 1);
  const placingMm = form.read(() => (input.placing.trim() === "" ? null : length(input, "placing", "")), null);
  const limitMm = form.read(
    () => (input.limit.trim() === "" ? unknownLimitMm(input, resolutionMm) : length(input, "limit", "")),
    0,
  );
  form.refuse();
  const spec: Gauge = {
    id: input.id ?? keyFor(name, gaugeKeys(db)),
    name,
    kind: input.kind,
    unit: input.unit,
    resolutionMm,
    limitMm,
    placing: placingMm === null ? null : { sdMm: placingMm, relativeDoubt: EXPERIENCE_RELATIVE_U },
  };
  if (input.id === null) addGauge(db, spec, now);
  else if (!reviseGauge(db, spec, now)) throw new Refusal("name", "There is no such gauge.");
  return spec.id;
}

function nameFrom(input: GaugeInput, known: readonly Gauge[]): string {
  const name = input.name.trim();
  if (name === "") throw new Refusal("name", "Enter a name.");
  if (known.some((g) => g.id !== input.id && g.name.toLowerCase() === name.toLowerCase()))
    throw new Refusal("name", "Another gauge has this name. Enter a different name.");
  return name;
}

function resolutionFrom(input: GaugeInput): number {
  const resolutionMm = length(input, "resolution", "Enter the smallest step it shows, for example 0.01 mm or 1/64 in.");
  if (!(resolutionMm > 0)) throw new Refusal("resolution", "Enter a resolution larger than 0.");
  if (resolutionMm > COARSEST_MM) throw new Refusal("resolution", `Enter a resolution of at most ${COARSEST_MM} mm.`);
  return resolutionMm;
}

/** The eye of this workshop, declared where there is none yet. */
export function knownEye(db: Db, now: number): KnownGauge {
  const eye = () => allGauges(db).find((g) => g.spec.kind === "eye");
  const known = eye();
  if (known) return known;
  addGauge(
    db,
    { id: keyFor("Eye", gaugeKeys(db)), name: "Eye", kind: "eye", unit: "mm", ...usualGauge("eye", "mm") },
    now,
  );
  return eye() as KnownGauge;
}

/** Where a burned edge is taken to be differs by this from picture to picture, mm. (from memory, no source) */
const EDGE_LIMIT_MM = 0.002;
const FINEST_MM = 1e-4;

/** Standard uncertainty of one reading from a picture, mm, and its degrees of freedom. */
type ReaderUncertainty = { uMm: number; degreesOfFreedom: number };

/** The picture reader as a gauge. Its repeatability is the median uncertainty of these readings. */
export function knownReader(db: Db, read: readonly ReaderUncertainty[], now: number): KnownGauge {
  const reader = () => allGauges(db).find((g) => g.spec.id === PICTURE_READER);
  const sdMm = Math.max(FINEST_MM, median(read.map((r) => r.uMm).concat(read.length > 0 ? [] : [0])));
  const freedom = median(read.map((r) => r.degreesOfFreedom).concat(read.length > 0 ? [] : [1]));
  const spec: Gauge = {
    id: PICTURE_READER,
    name: "Picture reader",
    kind: "scan",
    unit: "mm",
    resolutionMm: FINEST_MM,
    limitMm: EDGE_LIMIT_MM,
    placing: { sdMm, relativeDoubt: relativeUncertaintyFrom(freedom) },
  };
  if (!reviseGauge(db, spec, now)) addGauge(db, spec, now);
  return reader() as KnownGauge;
}

/**
 * A gauge was found wrong: what was proved with it is stale.
 *
 * @param since when it was last known to be right, milliseconds; `null` = never
 */
export function foundWrong(db: Db, key: string, typed: { note: string; since: number | null }, now: number): void {
  const form = new FormFaults();
  const since = form.read(() => (typed.since === null ? null : happenedAt(typed.since, now)), null);
  const note = form.read(() => faultNote(typed.note), "");
  form.refuse();
  if (!addGaugeFault(db, key, { note, since, at: now })) throw new Refusal("gauge", "There is no such gauge.");
}

function faultNote(text: string): string {
  const note = text.trim();
  if (note === "") throw new Refusal("note", "Enter the fault, for example: reads 0.08 mm short.");
  return note;
}

export function takeBackFault(db: Db, id: number, now: number): void {
  if (!takeBackGaugeFault(db, id, now)) throw new Refusal("gauge", "This was taken back already.");
}

/** Nobody said: an eye is right to half a step, anything else to a step, or to what is usual for its kind. */
function unknownLimitMm({ kind, unit }: GaugeInput, resolutionMm: number): number {
  return kind === "eye" ? resolutionMm / 2 : Math.max(resolutionMm, usualGauge(kind, unit).limitMm);
}

function length(input: GaugeInput, field: "resolution" | "limit" | "placing", missing: string): number {
  const text = input[field];
  if (text.trim() === "") throw new Refusal(field, missing);
  const read = parseReading(text.replace(/^\s*±/, ""), "length", input.unit);
  if (!read.ok) throw new Refusal(field, read.message);
  return read.value;
}

/** `Inch calipers` becomes `inch-calipers`; a number follows where that is taken. */
function keyFor(name: string, taken: readonly string[]): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "") || "gauge";
  for (let i = 1; ; i++) {
    const key = i === 1 ? base : `${base}-${i}`;
    if (!taken.includes(key)) return key;
  }
}
