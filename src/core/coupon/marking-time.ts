/**
 * How long the marking of a round takes at least: strokes and rows with their run-ups at their speeds, and pulses.
 * Ways between strokes and the controller's own run-ups come on top of it.
 */
import type { RoundSpec } from "./round-spec";
import { scanRows } from "./scan-rows";
import { burnSteps, pointsOf, type Stroke } from "./strokes";

/** @returns s */
export function markingTimeS(spec: RoundSpec): number {
  let seconds = 0;
  for (const step of burnSteps(spec)) {
    if (step.kind === "pulse") seconds += step.durationS;
    if (step.kind === "mark") for (const stroke of step.strokes) seconds += wayMm(stroke) / step.settings.speedMmPerS;
  }
  return seconds;
}

function wayMm(stroke: Stroke): number {
  const { scan, runUpMm } = stroke.settings;
  if (scan) return scanRows(stroke.points, scan.rowPitchMm).reduce((sum, row) => sum + row.x1 - row.x0, 0);
  let length = 2 * runUpMm;
  let before: { x: number; y: number } | null = null;
  for (const p of pointsOf(stroke)) {
    if (before) length += Math.hypot(p.x - before.x, p.y - before.y);
    before = p;
  }
  return length;
}
