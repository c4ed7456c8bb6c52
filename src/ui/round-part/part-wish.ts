/** A round part as typed, and what follows from it: the order for its artwork, and a message at each field that cannot be read. */
import type { DevelopOrder, PartShape } from "../../artwork/develop";
import type { SvgUnit } from "../../artwork/read-drawing";
import type { RotaryDrive } from "../../core/machine/part-spec";
import { parseReading } from "../../core/metrology/reading-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { DriveNumbers } from "../../core/round-part/round-part";
import { type Lay, type Level, sideAngleRad } from "../../core/round-part/taper";

export const SHAPES = {
  tube: "A tube: one diameter",
  neck: "A neck: it lies on another diameter",
  taper: "A taper: a cup, a cone",
} as const;
export type Shape = keyof typeof SHAPES;

export type PartWish = {
  shape: Shape;
  drive: RotaryDrive;
  around: "x" | "y";
  /** Typed. */
  marked: string;
  turnsBy: string;
  first: string;
  last: string;
  length: string;
  begins: string;
  steps: string;
  roller: string;
  mostSteps: string;
  artwork: string;
  lay: Lay;
  level: Level;
};
export type WishField = Exclude<keyof PartWish, "shape" | "drive" | "around" | "lay" | "level">;

export type Drawing = { name: string; text: string; unit: SvgUnit | null };

export type ReadWish = {
  faults: Partial<Record<WishField, string>>;
  /** `null` while something is missing that it needs. */
  part: PartShape | null;
  drive: DriveNumbers | null;
  /** Typed length of artwork around, mm; `null` where none is. */
  artworkMm: number | null;
};

/** Steeper than this nothing is marked on the side of a part, rad. */
const STEEPEST_RAD = (60 * Math.PI) / 180;

export function readWish(wish: PartWish, unit: LengthUnit): ReadWish {
  const faults: ReadWish["faults"] = {};
  const number = (field: WishField, dimension: "length" | "ratio", needed: string): number | null => {
    const text = wish[field].trim();
    if (text === "") {
      if (needed) faults[field] = needed;
      return null;
    }
    const read = parseReading(text, dimension, dimension === "length" ? unit : "one");
    if (!read.ok) faults[field] = read.message;
    else if (!(read.value > 0) && field !== "begins") faults[field] = "It must be larger than 0.";
    else return read.value;
    return null;
  };
  const shape = shapeOf(wish);
  const part = shape === "taper" ? taperIn(wish, number, faults) : straightIn(shape, number);
  const stepsPerRevolution = number("steps", "ratio", "");
  const rollerDiameterMm = wish.drive === "roller" ? number("roller", "length", "") : null;
  const mostStepsPerS = number("mostSteps", "ratio", "");
  return {
    faults,
    part,
    artworkMm: number("artwork", "length", ""),
    drive: stepsPerRevolution === null ? null : { stepsPerRevolution, rollerDiameterMm, mostStepsPerS },
  };
}

type ReadNumber = (field: WishField, dimension: "length" | "ratio", needed: string) => number | null;

/** In a chuck it matters to no place where else the part is held. */
export function shapeOf({ shape, drive }: Pick<PartWish, "shape" | "drive">): Shape {
  return drive === "chuck" && shape === "neck" ? "tube" : shape;
}

function straightIn(shape: Shape, number: ReadNumber): PartShape | null {
  const markedMm = number("marked", "length", "Give how thick the part is where it is marked.");
  const turnsByMm =
    shape === "neck" ? number("turnsBy", "length", "Give how thick it is where it lies on the rollers.") : markedMm;
  return markedMm === null || turnsByMm === null ? null : { kind: "straight", markedMm, turnsByMm };
}

function taperIn({ drive, lay, level }: PartWish, number: ReadNumber, faults: ReadWish["faults"]): PartShape | null {
  const firstMm = number("first", "length", "Give how thick it is at its first end.");
  const lastMm = number("last", "length", "Give how thick it is at its other end.");
  const lengthMm = number("length", "length", "Give how far the two ends lie apart, along the axis.");
  const turnsByMm = number(
    "turnsBy",
    "length",
    drive === "roller" ? "Give how thick it is where it lies on the rollers." : "Give what the machine is told.",
  );
  const beginsMm = number("begins", "length", "") ?? 0;
  if (firstMm === null || lastMm === null || lengthMm === null || turnsByMm === null) return null;
  const taper = { firstMm, lastMm, lengthMm };
  if (Math.abs(sideAngleRad(taper)) > STEEPEST_RAD) {
    faults.length = "That is nearly a flat disc. Give the distance between the ends along the axis.";
    return null;
  }
  return { kind: "taper", ...taper, turnsByMm, beginsMm, lay, level };
}

const CHORD_MM = 0.01;

/** @returns `null` while there is no drawing, or the part is not known */
export function orderFor(drawing: Drawing | null, part: PartShape | null, around: "x" | "y"): DevelopOrder | null {
  if (!drawing || !part) return null;
  return { text: drawing.text, unit: drawing.unit, chordErrorMm: CHORD_MM, around, shape: part };
}
