/** The distances from the edges as a model: an error of the origin along each axis. */
import type { Model } from "../../estimate/model";
import type { Axis } from "../axes";
import type { History, RoundRecord } from "../contract";
import { type EdgesRead, type EdgesSource, edgesModel, readEdges } from "../edge-distance/read-edges";
import { linesOf, type OriginPlan } from "./plan";

/** An origin may be off by so much before anything is read, sd, mm. (common practice, no source) */
const WITHIN_MM = 1.5;

export const estimateId = (axis: Axis) => `error ${axis}`;

export function edgesIn(history: History<OriginPlan>, round: RoundRecord<OriginPlan>): EdgesRead | null {
  return readEdges(sourceOf(history, round));
}

function sourceOf(
  { gauges, decisions }: Pick<History<OriginPlan>, "gauges" | "decisions">,
  { plan, answers }: Pick<RoundRecord<OriginPlan>, "plan" | "answers">,
): EdgesSource {
  return {
    terms: plan,
    lines: linesOf(plan),
    answers,
    gauges,
    decisions,
    idOf: estimateId,
    edge: "edge",
    withinMm: WITHIN_MM,
  };
}

export function observeOrigin(history: History<OriginPlan>, round: RoundRecord<OriginPlan>): Model | null {
  return edgesModel(sourceOf(history, round));
}
