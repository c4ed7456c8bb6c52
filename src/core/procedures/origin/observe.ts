/** The distances from the edges as a model: an error of the origin along each axis. */
import type { Axis } from "../../machine/machine-kind";
import { edgesOf } from "../../measuring/edge-distance/read-edges";
import { linesOf, type OriginPlan } from "./plan";

/** Usual error of an origin, sd, mm. (common practice, no source) */
const USUAL_MM = 1.5;

export const estimateId = (axis: Axis) => `error ${axis}`;

export const { read: edgesIn, observe: observeOrigin } = edgesOf<OriginPlan>({
  linesOf,
  estimateId,
  edge: "edge",
  usualMm: USUAL_MM,
});
