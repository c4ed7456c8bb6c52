/** Any practice machine. */
import { z } from "zod";
import { FIELD_TERMS } from "../core/geometry/field-term";
import { type AxisTruth, axesFromSeed, movedBy, stretchOf } from "./axes-truth";
import { type BedTruth, bedFromSeed } from "./bed";
import { type HeadDescribed, headFromSeed } from "./galvo-head";
import { type GalvoTruth, galvoFromSeed, galvoTruthSchema } from "./galvo-truth";
import {
  focusOf,
  type GantryTruth,
  gantryFromSeed,
  gantryTruthSchema,
  type PracticeController,
  ROW_SHIFT,
  rowShiftFromSeed,
} from "./gantry-truth";
import { type FocusTruth, focusFromSeed, grained } from "./head-height";
import { type LaserKind, laserSource } from "./laser-source";
import { seeded, seedOf } from "./random";
import { type RotaryTruth, rotaryFromSeed } from "./rotary-truth";

/** Gantries of before there were galvos name no kind. */
export const practiceTruthSchema = z.union([galvoTruthSchema, gantryTruthSchema]);
export type PracticeTruth = z.infer<typeof practiceTruthSchema>;

export function isGalvo(truth: PracticeTruth): truth is GalvoTruth {
  return "kind" in truth;
}

/** The description of a machine. `held` has the settings by key. */
type Described = {
  kind: LaserKind;
  widthMm: number;
  wavelengthNm: number;
  topSpeedMmPerS: number;
  held?: Record<
    string,
    {
      sense: 1 | -1;
      senseAssumed?: true | undefined;
      tableKind: string;
      range?: { low: number; high: number } | null;
      effectMm?: number | undefined;
    }
  >;
};

const TABLE = "scan offset";
const ROW_SHIFT_BY_SPEED = "row shift by speed";

/** The scan-offset table of the described controller. A sense that is not known is random. */
function controllerAs({ held }: Described, seed: number): GantryTruth["controller"] {
  const told = held?.[TABLE];
  return {
    tableKind: told?.tableKind === "exact speed only" ? "exact speed only" : "interpolated",
    sense: told?.senseAssumed ? randomSense(seed) : (told?.sense ?? 1),
  };
}

/** Keys of the settings of a head: that of the swap, and before the name of a term. */
const [SWAP, FIELD] = ["swap x and y", "field "];

/** The head of the described machine: its coefficients have the ranges and effects that the machine page says. */
function headAs({ widthMm, held = {} }: Described): HeadDescribed {
  const swap = held[SWAP];
  return {
    widthMm,
    order: !swap || swap.senseAssumed ? null : swap.sense === 1 ? "swap first" : "invert first",
    coefficients: Object.fromEntries(
      FIELD_TERMS.map((term) => {
        const told = held[`${FIELD}${term}`];
        const halfRange = told?.range ? (told.range.high - told.range.low) / 2 : null;
        return [term, { halfRange, effectMm: told?.effectMm ?? null }];
      }),
    ),
  };
}

/** Which way a larger stored shift moves scanned rows. */
function shiftSense({ held }: Described, seed: number): 1 | -1 {
  const told = held?.[ROW_SHIFT_BY_SPEED] ?? held?.[ROW_SHIFT];
  return told?.senseAssumed ? randomSense(seedOf("row shift", seed)) : (told?.sense ?? 1);
}

function randomSense(seed: number): 1 | -1 {
  return seeded(seedOf("sense", seed)).even() < 0.5 ? 1 : -1;
}

/** A machine drawn by chance for the place of a real one. */
export function practiceFromSeed(seed: number, machine: Described): PracticeTruth {
  const source = laserSource(machine.kind, machine.wavelengthNm, machine.topSpeedMmPerS);
  if (machine.kind === "galvo")
    return { ...galvoFromSeed(seed, source), scaleX: 1, scaleY: 1, head: headFromSeed(seed, headAs(machine)) };
  return {
    ...gantryFromSeed(seed),
    focus: grained(focusFromSeed(seed, source), seed),
    axes: axesFromSeed(seed),
    controller: controllerAs(machine, seed),
    rowShift: rowShiftFromSeed(seed, shiftSense(machine, seed)),
  };
}

/** How it comes to its heights, and its beam. */
export function heightsOf(truth: PracticeTruth): FocusTruth {
  return isGalvo(truth) ? truth.focus : focusOf(truth);
}

/** A rotary as it really is on this machine. */
export function rotaryTruthOf(truth: PracticeTruth, name: string, drive: "roller" | "chuck"): RotaryTruth {
  return truth.rotaries?.[name] ?? rotaryFromSeed(seedOf(truth.seed, name), drive);
}

/** How its bed lies. */
export function bedOf(truth: PracticeTruth, size: { widthMm: number; depthMm: number }): BedTruth {
  return truth.bed ?? bedFromSeed(truth.seed, size, isGalvo(truth));
}

/** By which keys a controller stores the numbers of an axis, whether a larger one lengthens, and whether it is a count. */
export type AxisKeys = {
  lengths: readonly { key: string; lengthens: boolean }[];
  homes: readonly { key: string; counts: boolean }[];
};

/** A gantry as it runs with the numbers that its controller holds now. */
export function asEntered(
  truth: GantryTruth,
  { numbers = {} }: PracticeController,
  keys: { x: AxisKeys; y: AxisKeys },
): GantryTruth {
  const stretch = ({ lengths }: AxisKeys) =>
    lengths.reduce((times, { key, lengthens }) => times * stretchOf(numbers[key], lengthens), 1);
  const { axes } = truth;
  const homed = (own: AxisTruth, { homes }: AxisKeys): AxisTruth => ({
    ...own,
    homeMm: homes.reduce((mm, { key, counts }) => mm + movedBy(numbers[key], own, counts), own.homeMm),
  });
  return {
    ...truth,
    scaleX: truth.scaleX * stretch(keys.x),
    scaleY: truth.scaleY * stretch(keys.y),
    ...(axes ? { axes: { ...axes, x: homed(axes.x, keys.x), y: homed(axes.y, keys.y) } } : {}),
  };
}
