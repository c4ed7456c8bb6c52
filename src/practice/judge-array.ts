/** What a practice scanner or a practice eye says of the cells of an array. */
import type { Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import type { Rect } from "../core/geometry/rect";
import { type CellLook, isInside } from "./cell-look";
import type { Mark } from "./gantry";
import { oxideNumbers } from "./oxide-colour";
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

/** SD of a number of a colour from one scan to the next. */
const COLOUR_SD = 0.3;

/** @returns one number of the colour of each cell, `null` for a cell without marks */
export function colourPartsOf(
  of: Extract<Measurand, { kind: "cell colour" }>["of"],
  looks: readonly (CellLook | null)[],
  random: Random,
): (number | null)[] {
  return looks.map((look) => {
    if (!look) return null;
    const [l, a, b] = oxideNumbers(look.oxideNm);
    return { "L*": l, "a*": a, "b*": b }[of] + COLOUR_SD * random.normal();
  });
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

/** A practice technician calls a cell marked from this quality on. (invented) */
const MARKED = 0.6;

/** Which cells are marked well enough. @returns indices */
export function markedCells(looks: readonly (CellLook | null)[], random: Random): number[] {
  return looks.flatMap((look, i) => (look && look.quality + EYE.sd * random.normal() >= MARKED ? [i] : []));
}

/** Which cells fall out: every line around them went through. @returns indices */
export function cutCells(cells: readonly Rect[], marks: readonly Mark[], corner: Placement): number[] {
  return cells.flatMap((cell, i) => {
    const around = marks.filter((m) => isInside(grown(cell), m, corner));
    return around.length > 0 && around.every((m) => m.cutThrough) ? [i] : [];
  });
}

/** Cuts lie on the outline of a cell. */
function grown({ x0, y0, x1, y1 }: Rect): Rect {
  const by = 0.05 * Math.min(x1 - x0, y1 - y0);
  return { x0: x0 - by, y0: y0 - by, x1: x1 + by, y1: y1 + by };
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
