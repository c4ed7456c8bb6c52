/** What a reading is taken with, and what its maker or long use says of its errors. */
import { z } from "zod";
import { MM_PER_INCH } from "./units";

export const gaugeKindSchema = z.enum(["rule", "calipers", "microscope", "scan", "eye"]);
export type GaugeKind = z.infer<typeof gaugeKindSchema>;

/** Repeatability to expect before there are repeats. */
export const placingSchema = z.object({
  sdMm: z.number().nonnegative(),
  /** Relative uncertainty of `sdMm`. */
  relativeDoubt: z.number().positive(),
});

export const gaugeSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  kind: gaugeKindSchema,
  /** In which it shows what it reads. */
  unit: z.enum(["mm", "in", "thou"]),
  /** Smallest step shown, mm. */
  resolutionMm: z.number().positive(),
  /** Limit of error, mm: common to all readings of this gauge, so repeats do not shrink it. */
  limitMm: z.number().nonnegative(),
  /** `null` = not known: then only repeats tell it. */
  placing: placingSchema.nullable(),
});

export type Gauge = z.infer<typeof gaugeSchema>;

/** Which pair of jaws is used: each pair has a zero of its own. */
export const jawsSchema = z.enum(["outside", "inside"]);
export type Jaws = z.infer<typeof jawsSchema>;

/** What pictures are read with: it is no gauge that a hand could take up. */
export const PICTURE_READER = "picture-reader";

type GaugeFacts = Pick<Gauge, "resolutionMm" | "limitMm" | "placing">;

/** What is usual for a kind of gauge. (common practice, no source; caliper limit as in ISO 13385-1, from memory) */
const USUAL_GAUGES: Readonly<Record<GaugeKind, GaugeFacts>> = {
  rule: { resolutionMm: 0.5, limitMm: 0.2, placing: { sdMm: 0.15, relativeDoubt: 0.5 } },
  calipers: { resolutionMm: 0.01, limitMm: 0.02, placing: { sdMm: 0.02, relativeDoubt: 0.5 } },
  microscope: { resolutionMm: 0.001, limitMm: 0.003, placing: { sdMm: 0.004, relativeDoubt: 0.5 } },
  scan: { resolutionMm: 0.01, limitMm: 0.02, placing: { sdMm: 0.01, relativeDoubt: 0.5 } },
  eye: { resolutionMm: 0.5, limitMm: 0.25, placing: null },
};

/** Digital calipers that show inches step by half a thou. (common practice, no source) */
const USUAL_INCH_CALIPERS = {
  resolutionMm: 0.0005 * MM_PER_INCH,
  limitMm: 0.001 * MM_PER_INCH,
  placing: { sdMm: 0.0008 * MM_PER_INCH, relativeDoubt: 0.5 },
};

/** What is usual of a gauge before anything is said of it, mm. (common practice, no source) */
export function usualGauge(kind: GaugeKind, unit: Gauge["unit"]): GaugeFacts {
  return kind === "calipers" && unit !== "mm"
    ? { ...USUAL_GAUGES.calipers, ...USUAL_INCH_CALIPERS }
    : USUAL_GAUGES[kind];
}

const NAMES: Readonly<Record<GaugeKind, string>> = {
  rule: "Rule",
  calipers: "Calipers",
  microscope: "Microscope picture",
  scan: "Scan",
  eye: "Eye",
};

/** A whole gauge of which nothing else is said: shows mm, and goes by its kind. */
export function gaugeAsUsual(kind: GaugeKind, own: Partial<Pick<Gauge, "id" | "name" | "unit">> = {}): Gauge {
  const { id = kind, name = NAMES[kind], unit = "mm" } = own;
  return { id, name, kind, unit, ...usualGauge(kind, unit) };
}

/** Only calipers have jaws that can be closed to see their zero. */
export function hasJaws(kind: GaugeKind): boolean {
  return kind === "calipers";
}

/** Standard uncertainty of what all readings of a gauge have in common: a limit a is a rectangle, a/sqrt(3). [JCGM 100:2008 4.3.7] */
export function commonUncertaintyMm(gauge: Gauge): number {
  return gauge.limitMm / Math.sqrt(3);
}

/** Standard uncertainty of rounding to the gauge's step, r/sqrt(12). [JCGM 100:2008 F.2.2.1] */
export function resolutionUncertaintyMm(gauge: Gauge): number {
  return gauge.resolutionMm / Math.sqrt(12);
}

/** Standard uncertainty of one reading, placing and rounding, without what all readings of the gauge have in common. */
export function readingUncertaintyMm(gauge: Gauge): number {
  return Math.hypot(gauge.placing?.sdMm ?? 0, resolutionUncertaintyMm(gauge));
}

/** Standard uncertainty of the zero seen on closed jaws, common to all readings of a session: its step. */
export function zeroUncertaintyMm(gauge: Gauge): number {
  return hasJaws(gauge.kind) ? resolutionUncertaintyMm(gauge) : 0;
}

/** Degrees of freedom of a standard deviation with this relative uncertainty d: 1/(2 d^2). [JCGM 100:2008 G.4.2] */
export function degreesOfFreedomFrom(relativeUncertainty: number): number {
  return 1 / (2 * relativeUncertainty ** 2);
}

/** Relative uncertainty of a standard deviation with these degrees of freedom: 1/sqrt(2 nu). [JCGM 100:2008 E.4.3] */
export function relativeUncertaintyFrom(degreesOfFreedom: number): number {
  return 1 / Math.sqrt(2 * degreesOfFreedom);
}
