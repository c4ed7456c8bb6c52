/** The short plan of a check: the slowest, the middle and the fastest speed that were proved, two readings a site. */
import type { PlanContext } from "../../trial/plan-form";
import type { ScanOffsetPlan } from "./plan";

const CHECK_REPEATS = 2;

export function checkPlan(last: ScanOffsetPlan, { machine }: PlanContext): ScanOffsetPlan {
  const speeds = [...last.speedsMmPerS].filter((v) => v <= machine.topSpeedMmPerS).sort((a, b) => a - b);
  const few = [speeds[0], speeds[(speeds.length - 1) >> 1], speeds[speeds.length - 1]];
  return {
    ...last,
    way: last.way === "bare strokes" && machine.scansBlocks ? "closed blocks" : last.way,
    speedsMmPerS: [...new Set(few.flatMap((v) => (v === undefined ? [] : [v])))],
    repeats: CHECK_REPEATS,
  };
}
