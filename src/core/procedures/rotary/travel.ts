/**
 * How far the surface goes for what is sent.
 *
 *   travelled   span: C turns + seen,   wrap: C (1 + turns) - gap,   traced: the length of the line
 *   tape        lines on tape of thickness t are read laid flat: the middle of the tape keeps its length, so the surface went
 *               travelled / (1 + t/d)
 *   gap         between the edges that face each other, and once the width of a line more; below 0 where the end goes past the start
 *   sent        n as laid out, or as the readout counted
 *   rollers     ratio = travelled / (n d_mark / d_rest)        the surface goes as fast as the roller where it rests
 *   chuck       ratio = travelled / (n d_mark / d_told)        the angle is the same at every diameter: travel = angle d / 2
 *
 * C = pi d is measured: on rollers a wrong d enters as gap; in a chuck it all but cancels. [common practice, no source]
 */
import { type RotaryPlan, restsElsewhere, sentMm, tapeOn } from "./plan";

export const SITES = {
  marked: "size marked",
  resting: "size resting",
  span: "span",
  gap: "gap",
  width: "width",
  turns: "turns",
  back: "back",
  words: "words",
  line: "line",
  tape: "tape",
  first: "first",
  second: "second",
  again: "again",
} as const;
/** Layers of the tape that are pressed together to measure its thickness. */
export const TAPE_LAYERS = 5;

export type SiteId = (typeof SITES)[keyof typeof SITES];

/** What was read at the sites, mm or counts. */
export type Readings = Partial<Record<SiteId, number>>;

export type Travel = {
  /** As it was sent, mm. */
  sent: number;
  /** How far the marked surface went, mm. */
  travelled: number;
  /** How far it had to go with a drive that is right, mm. */
  due: number;
  /** Around where it is marked, mm; `null` where it is not needed. */
  around: number | null;
};

/** Once around, from what was read across or around. */
export function aroundMm(plan: Pick<RotaryPlan, "sizedBy">, size: number): number {
  return plan.sizedBy === "around" ? size : Math.PI * size;
}

/** The gap from centre to centre; lines that lie on each other leave none. */
export function trueGap(seen: number | undefined, width: number): number {
  if (seen === undefined) return 0;
  return seen < 0 ? seen - width : seen + width;
}

/** @returns `null` while something is missing that it needs */
export function travelOf(plan: RotaryPlan, read: Readings, onEachOther = false): Travel | null {
  const size = read[SITES.marked];
  const around = size === undefined ? null : aroundMm(plan, size);
  const travelled = travelledMm(plan, read, around, onEachOther);
  const sent = sentAlong(plan, read);
  const grown = grownBy(plan, read);
  if (travelled === null || sent === null || grown === null) return null;
  return { sent, travelled, due: sent * grown, around };
}

function travelledMm(plan: RotaryPlan, read: Readings, around: number | null, onEachOther: boolean): number | null {
  const { way } = plan;
  const turns = read[SITES.turns] ?? 0;
  const flat = 1 / (1 + tapeOn(plan) / (around === null ? plan.diameterMm : around / Math.PI));
  if (way === "traced") {
    const line = read[SITES.line];
    return line === undefined ? null : flat * line;
  }
  if (way === "span") {
    const seen = read[SITES.span];
    // Whole turns too many are of the part as it was laid out, where it is not measured.
    return seen === undefined ? null : flat * seen + turns * (around ?? Math.PI * plan.diameterMm);
  }
  const [gap, width] = [read[SITES.gap], read[SITES.width]];
  if (around === null || width === undefined || (gap === undefined && !onEachOther)) return null;
  return around * (1 + turns) - trueGap(gap, width);
}

function sentAlong(plan: RotaryPlan, read: Readings): number | null {
  if (plan.way !== "traced") return sentMm(plan);
  const [first, second] = [read[SITES.first], read[SITES.second]];
  return first === undefined || second === undefined ? null : Math.abs(second - first);
}

/** How much farther the marked surface goes than what is sent, with a drive that is right. */
function grownBy(plan: RotaryPlan, read: Readings): number | null {
  const marked = read[SITES.marked];
  if (restsElsewhere(plan)) {
    const resting = read[SITES.resting];
    return marked === undefined || resting === undefined || resting <= 0 ? null : marked / resting;
  }
  if (plan.drive === "roller") return 1;
  return marked === undefined ? null : aroundMm(plan, marked) / (Math.PI * plan.diameterMm);
}
