/** Edges of an array at which the best cell is, and whether the machine can go beyond them. */
import type { MachineSpec } from "../../machine/machine-spec";
import type { ArrayAnswer } from "../../marking/array-given";
import type { CellSetting } from "../../marking/cell-settings";
import { limitOf } from "./cells";
import type { Found } from "./found";
import type { TestArrayPlan } from "./plan";

type Side = ArrayAnswer["edges"][number];

const SIDES = {
  left: ["across", "low"],
  right: ["across", "high"],
  low: ["up", "low"],
  high: ["up", "high"],
} as const satisfies Record<Side, readonly ["across" | "up", "low" | "high"]>;

/** Passes, at least. */
const LEAST: Partial<Record<CellSetting, number>> = { passes: 1 };

export type EdgeOfBest = {
  side: Side;
  key: CellSetting;
  /** The value at this edge. */
  last: number;
  /** The machine cannot go beyond this value. */
  isLimit: boolean;
};

export function edgesIn({ answer, reads }: Found, plan: TestArrayPlan, machine: MachineSpec): EdgeOfBest[] {
  return answer.edges.map((side) => {
    const [of, end] = SIDES[side];
    const key = plan[of];
    const values = reads.map((r) => r.cell.settings[key]);
    const last = end === "low" ? Math.min(...values) : Math.max(...values);
    const isLimit = end === "low" ? last <= (LEAST[key] ?? Number.NEGATIVE_INFINITY) : last >= limitOf(key, machine);
    return { side, key, last, isLimit };
  });
}
