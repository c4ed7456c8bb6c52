/** The close-up of where it is measured, not to scale. */
import { at, box, dimensionAcross, INK } from "../../core/drawing/close-up";
import type { Detail } from "../../core/drawing/scene";
import type { Focus, History } from "../../core/trial/history";
import { lookedAt } from "../../core/trial/looked-at";
import type { SampleBarPlan } from "./plan";

const [HALF, HIGH] = [2, 1];

export function detailOf(history: History<SampleBarPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  if (!looked) return null;
  const dimension = dimensionAcross(at(-HALF, -HIGH), at(HALF, -HIGH), -HIGH - 0.7, looked.text);
  const note = "the same edge of both lines; not to scale";
  return { title: "Detail, the bar", note, radius: 3.4, primitives: [box(-HALF, -HIGH, HALF, HIGH, INK), dimension] };
}
