/** Two lines at nominal distances from two edges that meet in a corner: what origin and fixture stops have in common. */
import type { Axis } from "../../machine/machine-kind";
import type { AxesChosen } from "../axes-field";
import type { KnownLength } from "../known-length";

export const SIDES_X = { left: "On the left", right: "On the right" } as const;
export const SIDES_Y = { back: "At the back (top)", front: "At the front" } as const;
export const MEASURED_TO = { centre: "The middle of the line", near: "The near edge of the line" } as const;

export type Side = keyof typeof SIDES_X | keyof typeof SIDES_Y;

export type EdgeTerms = KnownLength &
  AxesChosen & {
    sideX: keyof typeof SIDES_X;
    sideY: keyof typeof SIDES_Y;
    /** From each edge to the line along it, mm. */
    distanceXMm: number;
    distanceYMm: number;
    measuredTo: keyof typeof MEASURED_TO;
    /** Width of a line, mm; counts where it is measured to its near edge. */
    lineWidthMm: number;
    repeats: number;
    speedMmPerS: number;
    powerPct: number;
  };

/** From which edge an axis is measured. */
export function sideOf(terms: Pick<EdgeTerms, "sideX" | "sideY">, axis: Axis): Side {
  return axis === "x" ? terms.sideX : terms.sideY;
}

/** From that edge to the line as drawn, mm. */
export function distanceOf(terms: Pick<EdgeTerms, "distanceXMm" | "distanceYMm">, axis: Axis): number {
  return axis === "x" ? terms.distanceXMm : terms.distanceYMm;
}

/** Lengths from the corner in which the two edges meet: `u` away from the edge along Y, `v` away from the edge along X. */
export type FromCorner = { u: number; v: number };

/** Which two lines there are: each at its distance from its edge, reaching from one place along it to another. */
export type LinesLaid = {
  /** Along Y, at `u` = distance from the left or right edge. */
  x: { from: number; to: number };
  y: { from: number; to: number };
};

/** Near the corner, far from it, and in the middle: with two places alone a reading that is wrong twice at one place would not show. */
export type Which = 1 | 2 | 3;

/** In the order in which they are read. */
export const PLACES: readonly Which[] = [1, 3, 2];

export const PLACE_WORDS: Record<Which, string> = {
  1: "near the corner",
  3: "in the middle",
  2: "far from the corner",
};

const SHARE_ALONG: Record<Which, number> = { 1: 0.1, 3: 0.5, 2: 0.9 };

/** Where along an edge its line is measured, from the corner, mm. */
export function placeAlong({ from, to }: LinesLaid["x"], which: Which): number {
  return from + SHARE_ALONG[which] * (to - from);
}

/** `0.448 mm too near to the left edge`. */
export function offText(mm: number, shown: string, side: Side, edge: string): string {
  return `${shown} too ${mm < 0 ? "near to" : "far from"} the ${side} ${edge}`;
}

/** Which edge a site belongs to, and which of the places along it: what {@link edgeSite} has put in its id. */
export function ofEdge(site: string): { axis: Axis; which: Which } {
  const which = site.endsWith("1") ? 1 : site.endsWith("3") ? 3 : 2;
  return { axis: site.startsWith("x") ? "x" : "y", which };
}

export const edgeSite = (axis: Axis, which: Which) => `${axis} ${which}`;
