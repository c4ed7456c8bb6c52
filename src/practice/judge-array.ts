/** What a practice scanner or a practice eye says of the cells of an array. */
import type { Measurand } from "../core/coupon/site";
import type { CellLook } from "./cell-look";
import type { Random } from "./random";

/** SD of a score from one scan to the next. */
const SCAN_SD = 0.003;
/** SD of the eye, as a share of the best, and within which cells look alike to it. */
const EYE = { sd: 0.04, alike: 0.03 };
/** A cell of which more is burnt looks charred. */
const CHARRED = 0.35;
/** Smear of the scanner, SD, mm; and the 10 % to 90 % width of an edge by its SD. */
const EDGE = { smearMm: 0.05, widthBySd: 2.563 };

type Scored = Extract<Measurand, { kind: "cell look" }>["of"];

/** @returns a score a cell, `null` for a cell without marks */
export function scoresOf(of: Scored, looks: readonly (CellLook | null)[], random: Random): (number | null)[] {
  return looks.map((look) => (look ? scoreOf(of, look) * (1 + SCAN_SD * random.normal()) : null));
}

function scoreOf(of: Scored, { darkness, unevenness, raggedMm }: CellLook): number {
  switch (of) {
    case "darkness":
      return darkness;
    case "contrast":
      return darkness / (2 - darkness);
    case "evenness":
      return Math.max(0, 1 - unevenness);
    case "sharpness":
      return 1 / (EDGE.widthBySd * Math.hypot(raggedMm, EDGE.smearMm));
  }
}

/** Two cells whose looks differ by less are called alike, as a share of a whole mark. */
export const ALIKE = 0.015;

/** One look at one cell, from 0 to about 1. */
export function seenQuality(looks: readonly (CellLook | null)[], cell: number, random: Random): number {
  return (looks[cell]?.quality ?? 0) + EYE.sd * random.normal();
}

/** @returns indices of cells */
export function cellsByEye(
  what: "best" | "as good" | "charred",
  looks: readonly (CellLook | null)[],
  random: Random,
): number[] {
  if (what === "charred") return looks.flatMap((look, i) => (look && look.burnt > CHARRED ? [i] : []));
  const best = Math.max(...looks.map((look) => look?.quality ?? 0));
  const seen = looks.map((look) => (look ? look.quality + EYE.sd * best * random.normal() : Number.NEGATIVE_INFINITY));
  const most = Math.max(...seen);
  if (what === "best") return [seen.indexOf(most)];
  return seen.flatMap((value, i) => (value >= most - EYE.alike * best ? [i] : []));
}
