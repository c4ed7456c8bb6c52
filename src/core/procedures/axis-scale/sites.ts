/** Where an axis is measured, and what is asked there. */

import { lengthAsk, readoutAsk } from "../../coupon/ask";
import type { Feature, Site } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { AXES, type Axis } from "../../machine/machine-kind";
import { knownLengthSites } from "../../measuring/known-length";
import { plain } from "../../metrology/quantity-text";
import { pointOn, rowReach, SPACING_MM, sideOfCut } from "./layout";
import { type MeasuredPlace, placesOf, sideWord } from "./places";
import { type AxisScalePlan, isLadder } from "./plan";

const PIECE_ID = "scale";
const RADIUS_MM = 8;
/** Longer than it should be by so much is asked about. */
const PLAUSIBLE_SHARE = 1.1;
const LONGEST_AXIS_MM = 5000;
/** Half of the square in which a mark is looked for: no other lies in it, mm. */
const AROUND_MM = 1.5;

export function sitesOf(plan: AxisScalePlan): Site[] {
  const sites = placesOf(plan).map((place) => siteOf(plan, place));
  // Along a ladder a zero that was not taken shows by itself.
  return isLadder(plan) ? sites : [...sites, ...knownLengthSites(plan, sites)];
}

function siteOf(plan: AxisScalePlan, place: MeasuredPlace): Site {
  const { axis, nominalMm } = place;
  const ask = lengthAsk({ plausibleUpTo: Math.max(1, PLAUSIBLE_SHARE * nominalMm) });
  const common = { id: place.site, ask, repeats: plan.repeats, openEnded: false };
  const name = axis.toUpperCase();
  switch (place.kind) {
    case "readout":
      return {
        ...common,
        label: `${name}, readout at the ${place.end === "from" ? "first" : "second"} mark`,
        question: `What did the readout of ${name} show when the ${place.end === "from" ? "first" : "second"} mark was burned?`,
        ask: readoutAsk({ plausibleUpTo: LONGEST_AXIS_MM, stepMm: plan.readoutStepMm }),
        measurand: { kind: "readout", of: spot(plan, axis, nominalMm), along: axis },
        place: null,
        repeats: 1,
      };
    case "distance":
      return {
        ...common,
        label: `${name}, from mark to mark`,
        question: "How far apart are the two marks, from the same edge of each?",
        measurand: { kind: "distance", from: spot(plan, axis, 0), to: spot(plan, axis, nominalMm), along: axis },
        place: null,
      };
    case "tick":
      return tickSite(plan, place, common);
    default:
      return sideSite(plan, place, common);
  }
}

function tickSite(
  plan: AxisScalePlan,
  place: Extract<MeasuredPlace, { kind: "tick" }>,
  common: Pick<Site, "id" | "ask" | "repeats" | "openEnded">,
): Site {
  const { axis, nominalMm, index, side, row } = place;
  const [low, high] = rowReach(row);
  const at = pointOn(plan, axis, nominalMm, (low + high) / 2);
  const hasRows = plan.way === "ladder" && plan.approach === "both sides";
  const rowWords = hasRows ? `, row ${row + 1}` : "";
  const inRow = hasRows ? ` in row ${row + 1}, come to from the ${side === "up" ? "first" : "last"},` : "";
  const zero = pointOn(plan, axis, 0, bandMiddle(plan));
  return {
    ...common,
    label: `${axis.toUpperCase()}, tick ${index} at ${plain(nominalMm)} mm${rowWords}`,
    question: `How far is tick ${index}${inRow} from tick 0, from the same edge of each?`,
    measurand: { kind: "distance", from: line(zero), to: line(at), along: axis },
    place: { piece: PIECE_ID, at, radiusMm: RADIUS_MM },
  };
}

function bandMiddle(plan: AxisScalePlan): number {
  const rows = plan.way === "ladder" && plan.approach === "both sides" ? 2 * plan.rows : 1;
  const [, high] = rowReach(rows - 1);
  return high / 2;
}

function sideSite(
  plan: AxisScalePlan,
  { axis, of, near }: Extract<MeasuredPlace, { kind: "side" }>,
  common: Pick<Site, "id" | "ask" | "repeats" | "openEnded">,
): Site {
  const { edge } = SPACING_MM;
  const size = { x: sideOfCut(plan, "x"), y: sideOfCut(plan, "y") };
  const [other] = AXES.filter((a) => a !== axis);
  const end = (along: number): CouponPoint =>
    axis === "x" ? { x: edge + along, y: edge + size.y / 2 } : { x: edge + size.x / 2, y: edge + along };
  const across = size[other ?? "y"];
  const beside = near === "low" ? across * 0.1 : across * 0.9;
  const at = axis === "x" ? { x: edge + size.x, y: edge + beside } : { x: edge + beside, y: edge + size.y };
  const words = sideWord(axis, near);
  return {
    ...common,
    ask: { ...common.ask, ...(of === "hole" ? { jaws: "inside" as const } : {}) } as Site["ask"],
    label: `${of === "part" ? "Part" : "Hole"}, along ${axis.toUpperCase()} near the ${words}`,
    question:
      of === "part"
        ? `How long is the part along ${axis.toUpperCase()}, near its ${words} side, on the top face?`
        : `How wide is the hole along ${axis.toUpperCase()}, near its ${words} side, on the top face?`,
    measurand: { kind: "cut size", of, from: line(end(0)), to: line(end(size[axis])), along: axis },
    place: { piece: PIECE_ID, at, radiusMm: RADIUS_MM },
  };
}

function line({ x, y }: CouponPoint): Feature {
  return { kind: "line", within: { x0: x - AROUND_MM, y0: y - AROUND_MM, x1: x + AROUND_MM, y1: y + AROUND_MM } };
}

function spot(plan: AxisScalePlan, axis: Axis, along: number): Feature {
  return { kind: "spot", near: pointOn(plan, axis, along, 0) };
}
