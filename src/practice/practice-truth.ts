/** Any practice machine. */
import { z } from "zod";
import { type BedTruth, bedFromSeed } from "./bed";
import { type GalvoTruth, galvoFromSeed, galvoTruthSchema } from "./galvo-truth";
import { focusOf, gantryFromSeed, gantryTruthSchema } from "./gantry-truth";
import { type FocusTruth, focusFromSeed, grained } from "./head-height";
import { type LaserKind, laserSource } from "./laser-source";

/** Gantries of before there were galvos name no kind. */
export const practiceTruthSchema = z.union([galvoTruthSchema, gantryTruthSchema]);
export type PracticeTruth = z.infer<typeof practiceTruthSchema>;

export function isGalvo(truth: PracticeTruth): truth is GalvoTruth {
  return "kind" in truth;
}

/** A machine drawn by chance for the place of a real one. */
export function practiceFromSeed(
  seed: number,
  machine: { kind: LaserKind; wavelengthNm: number; topSpeedMmPerS: number },
): PracticeTruth {
  const source = laserSource(machine.kind, machine.wavelengthNm, machine.topSpeedMmPerS);
  if (machine.kind === "galvo") return galvoFromSeed(seed, source);
  return { ...gantryFromSeed(seed), focus: grained(focusFromSeed(seed, source), seed) };
}

/** How it comes to its heights, and its beam. */
export function heightsOf(truth: PracticeTruth): FocusTruth {
  return isGalvo(truth) ? truth.focus : focusOf(truth);
}

/** How its bed lies. */
export function bedOf(truth: PracticeTruth, size: { widthMm: number; depthMm: number }): BedTruth {
  return truth.bed ?? bedFromSeed(truth.seed, size, isGalvo(truth));
}
