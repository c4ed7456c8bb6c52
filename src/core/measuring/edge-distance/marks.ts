/** The lines as they are burned, and where they are measured. */

import { lengthAsk } from "../../coupon/ask";
import type { CouponPath } from "../../coupon/piece";
import type { Site } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { AXES, type Axis } from "../../machine/machine-kind";
import { plain } from "../../metrology/quantity-text";
import { axesOf } from "../axes-field";
import { knownLengthSites } from "../known-length";
import {
  distanceOf,
  type EdgeTerms,
  edgeSite,
  type FromCorner,
  type LinesLaid,
  PLACE_WORDS,
  PLACES,
  placeAlong,
  sideOf,
} from "./terms";

const RADIUS_MM = 8;
/** Half of the square in which a line is looked for, mm. */
const AROUND_MM = 1.5;
const PLAUSIBLE_MORE_MM = 20;

type Stock = { widthMm: number; heightMm: number };

/** From the corner in which the two edges meet to the lower left corner of the stock. */
export function onStock(
  { u, v }: FromCorner,
  { sideX, sideY }: Pick<EdgeTerms, "sideX" | "sideY">,
  stock: Stock,
): CouponPoint {
  return { x: sideX === "left" ? u : stock.widthMm - u, y: sideY === "front" ? v : stock.heightMm - v };
}

/** The two lines, each drawn away from the corner. */
export function linePaths(terms: EdgeTerms, lines: LinesLaid, stock: Stock, settings: string): CouponPath[] {
  return AXES.map((axis) => ({
    closed: false,
    settings,
    points: [onLine(terms, stock, axis, lines[axis].from), onLine(terms, stock, axis, lines[axis].to)],
  }));
}

/** A place on the line of an axis, so far along its edge from the corner. */
export function onLine(terms: EdgeTerms, stock: Stock, axis: Axis, along: number): CouponPoint {
  const off = distanceOf(terms, axis);
  return onStock(axis === "x" ? { u: off, v: along } : { u: along, v: off }, terms, stock);
}

/** @param against what the stock lies against; @param edgeWord `edge of the stock`, `stop` */
export function edgeSites(
  terms: EdgeTerms,
  lines: LinesLaid,
  stock: Stock,
  { piece, against, edgeWord }: { piece: string | null; against: "bed" | "fixture"; edgeWord: string },
): Site[] {
  const sites = axesOf(terms).flatMap((axis) => {
    const side = sideOf(terms, axis);
    const nominal = distanceOf(terms, axis);
    const middle = onLine(terms, stock, axis, (lines[axis].from + lines[axis].to) / 2);
    return PLACES.map((which): Site => {
      const along = placeAlong(lines[axis], which);
      const at = onLine(terms, stock, axis, along);
      return {
        id: edgeSite(axis, which),
        label: `From the ${side} ${edgeWord}, ${PLACE_WORDS[which]}`,
        question: `How far is the line from the ${side} ${edgeWord}, ${PLACE_WORDS[which]}${terms.measuredTo === "centre" ? ", to its middle" : ", to its near edge"}?`,
        ask: lengthAsk({ plausibleUpTo: nominal + PLAUSIBLE_MORE_MM }),
        measurand: {
          kind: "edge distance",
          side,
          against,
          alongMm: along,
          to: terms.measuredTo,
          corner: sideOf(terms, axis === "x" ? "y" : "x"),
          of: { kind: "line", within: around(middle) },
        },
        place: piece === null ? null : { piece, at, radiusMm: RADIUS_MM },
        repeats: terms.repeats,
        openEnded: false,
      };
    });
  });
  return [...sites, ...knownLengthSites(terms, sites)];
}

function around({ x, y }: CouponPoint) {
  return { x0: x - AROUND_MM, y0: y - AROUND_MM, x1: x + AROUND_MM, y1: y + AROUND_MM };
}

/** `X 20 Y 15`: the nominal distances, for words on the piece. */
export function distanceWords(terms: EdgeTerms): string {
  return axesOf(terms)
    .map((axis) => `${axis.toUpperCase()} ${plain(distanceOf(terms, axis))}`)
    .join(" ");
}
