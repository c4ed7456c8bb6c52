/**
 * The ladders that come after the first: a finer one around an answer, as short as it can be and still end in cells that do not mark;
 * or one that goes on where the one before ended too early.
 */
import type { RoundRecord } from "../../../trial/history";
import { cellsOf, type LadderPlan } from "../plan";
import { usedHeightMm } from "./layout";
import type { LadderReadings } from "./read-ladder";
import { type Ladder, shortSide } from "./ways";

/** Cells beyond those that marked, on either side. */
const BEYOND = 2;
const [FEWEST_HALF, USUAL_STEPS] = [2, 4];

/**
 * @param middleMm the height that was found
 * @param marked which cells of the ladder before marked, where that is known
 */
export function proofPlan(plan: LadderPlan, middleMm: number, marked: LadderReadings["marked"]): LadderPlan {
  const reachMm = (marked ? marked.last - marked.first : USUAL_STEPS) * plan.stepMm;
  // Half the step, as whole numbers of what can be set.
  const finer = Math.ceil(plan.stepMm / 2 / plan.settableMm - 1e-9) * plan.settableMm;
  const steps = [Math.min(plan.stepMm, Number(finer.toFixed(6))), plan.stepMm];
  for (const stepMm of steps) {
    const half = Math.ceil(reachMm / stepMm / 2) + BEYOND;
    const around = ladderAround(plan, middleMm, stepMm, half);
    if (isPossible(around)) return around;
  }
  // Near the end of what can be set, or on a small piece: as many cells as there is room for.
  for (let half = Math.ceil(reachMm / plan.stepMm / 2) + BEYOND; half >= FEWEST_HALF; half--) {
    const around = ladderAround(plan, middleMm, plan.stepMm, half);
    if (isPossible(around)) return around;
  }
  return plan;
}

/** One cell stands at the answer itself, as near as a height can be set. Where the machine comes by itself with its new number is looked at anew. */
function ladderAround(plan: LadderPlan, middleMm: number, stepMm: number, half: number): LadderPlan {
  const middle = Math.round(middleMm / plan.settableMm) * plan.settableMm;
  const firstMm = Number((middle - half * stepMm).toFixed(6));
  return { ...plan, homedMm: undefined, stepMm, firstMm, count: 2 * half + 1 };
}

function isPossible(plan: LadderPlan): boolean {
  const isReached = cellsOf(plan).every((c) => c.heightMm >= plan.lowestMm && c.heightMm <= plan.highestMm);
  return isReached && usedHeightMm(plan) <= plan.stockHeightMm;
}

const FEWEST_MORE = 5;
/** The cell at that end and one beyond it. */
const FEWEST_ON = 2;

/**
 * Goes on from an end of the heights burned so far, whose cell is burned again, within what may be set and fits the stock.
 *
 * @param way -1 before the first, +1 beyond the last
 * @returns `null` where there is no room for a cell
 */
function ladderBeyond(plan: LadderPlan, heights: readonly number[], way: 1 | -1): LadderPlan | null {
  const end = way < 0 ? Math.min(...heights) : Math.max(...heights);
  const limit = way < 0 ? plan.lowestMm : plan.highestMm;
  const room = Math.floor((way * (limit - end)) / plan.stepMm + 1e-9);
  const wanted = Math.min(room, Math.max(FEWEST_MORE, Math.ceil(plan.count / 2)));
  for (let count = wanted + 1; count >= FEWEST_ON; count--) {
    const firstMm = way < 0 ? end - (count - 1) * plan.stepMm : end;
    const on = { ...plan, firstMm: Number(firstMm.toFixed(6)), count };
    if (isPossible(on)) return on;
  }
  return null;
}

/** The ladder that goes on where this one ended too early; `null` where another way than the sharpest cell tells, or there is no room. */
export function burnOnPlan(ladder: Ladder, { plan, purpose }: RoundRecord<LadderPlan>): LadderPlan | null {
  const side = shortSide(ladder);
  const isTold = ladder.ways.some((w) => w.id !== "sharpest");
  if (!side || isTold || purpose === "proof" || purpose === "check") return null;
  const heights = ladder.readings.cells.map((c) => c.heightMm);
  const above = side === "before the first" ? null : ladderBeyond(plan, heights, 1);
  // Both ends open: one after the other, the upper one first.
  return above ?? (side === "beyond the last" ? null : ladderBeyond(plan, heights, -1));
}
