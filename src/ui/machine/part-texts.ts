/** What is known of an optic or a rotary, as texts to type in. */

import type { RotarySpec, SetAside } from "../../core/machine/part-spec";
import { inUnit, plain } from "../../core/metrology/quantity-text";
import type { PartView } from "../../server/screens/machine-view";

const OPTIC = ["focalLength", "workingDistance", "field", "lensWavelength", "ring", "printed"] as const;
const DRIVE = ["rollerDiameter", "steps", "motorSteps", "microsteps", "ratio"] as const;
const USE = ["thinnest", "thickest", "mostStepsPerS", "setAsideToo"] as const;
const TYPED = ["label", ...OPTIC, ...DRIVE, ...USE] as const;

export type PartTexts = Record<(typeof TYPED)[number], string> &
  Pick<RotarySpec, "drive" | "replaces"> & { setAside: SetAside[] };

const EMPTY: PartTexts = {
  ...(Object.fromEntries(TYPED.map((key) => [key, ""])) as Record<(typeof TYPED)[number], string>),
  drive: "roller",
  replaces: "y",
  setAside: [],
};

export function partTexts(part: PartView | null): PartTexts {
  if (!part) return EMPTY;
  const { spec } = part;
  const mm = (value: number | null) => (value === null ? "" : inUnit(value, "mm"));
  const number = (value: number | null) => (value === null ? "" : plain(value, 6));
  if (spec.kind === "optic")
    return {
      ...EMPTY,
      label: spec.label,
      printed: spec.printed,
      focalLength: mm(spec.focalLengthMm),
      workingDistance: mm(spec.workingDistanceMm),
      field: mm(spec.fieldMm),
      ring: mm(spec.ringDiameterMm),
      lensWavelength: number(spec.wavelengthNm),
    };
  return {
    ...EMPTY,
    label: spec.label,
    drive: spec.drive,
    replaces: spec.replaces,
    rollerDiameter: mm(spec.rollerDiameterMm),
    motorSteps: number(spec.motorSteps),
    microsteps: number(spec.microsteps),
    ratio: number(spec.ratio),
    thinnest: mm(spec.thinnestMm),
    thickest: mm(spec.thickestMm),
    mostStepsPerS: number(spec.mostStepsPerS),
    setAside: spec.setAside,
    setAsideToo: spec.setAsideToo,
    // What its motor and gear make is not typed a second time.
    steps:
      spec.motorSteps !== null && spec.microsteps !== null && spec.ratio !== null
        ? ""
        : number(spec.stepsPerRevolution),
  };
}
