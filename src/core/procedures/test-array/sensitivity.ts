/** What a setting that is 10 % off costs at the chosen cell, by the expected response. Settings that do not count by ratio are left out. */
import { elementAt } from "../../fitting/element-at";
import type { ArrayAnswer, Span } from "../../marking/array-given";
import { along, CELL_SETTINGS, type CellSetting } from "../../marking/cell-settings";
import type { Found } from "./found";
import type { TestArrayPlan } from "./plan";

export const OFF = 0.1;

/** @property costs as a share of the best, at least 0: the worse of 10 % less and 10 % more */
export type Sensitivity = { key: CellSetting; costs: number };

export function sensitivitiesOf(
  { answer, chosen }: Found,
  { across, up }: Pick<TestArrayPlan, "across" | "up">,
): Sensitivity[] {
  const at = { x: along(across, chosen.cell.settings[across]), y: along(up, chosen.cell.settings[up]) };
  const here = valueAt(answer.map, at);
  if (here === null || answer.peak.value <= 0) return [];
  const axes = [
    { key: across, axis: "x" },
    { key: up, axis: "y" },
  ] as const;
  return axes.flatMap(({ key, axis }) => {
    if (!CELL_SETTINGS[key].byRatio) return [];
    const others = [1 - OFF, 1 + OFF].flatMap(
      (ratio) => valueAt(answer.map, { ...at, [axis]: at[axis] + Math.log(ratio) }) ?? [],
    );
    return others.length === 0 ? [] : [{ key, costs: Math.max(0, here - Math.min(...others)) / answer.peak.value }];
  });
}

/** Between the four places of the map around it; `null` outside the map, or beside cells that are no good. */
function valueAt({ columns, rows, x, y, values }: ArrayAnswer["map"], at: { x: number; y: number }): number | null {
  const [u, v] = [steps(at.x, x, columns), steps(at.y, y, rows)];
  if (u === null || v === null) return null;
  const [column, row] = [Math.min(columns - 2, Math.floor(u)), Math.min(rows - 2, Math.floor(v))];
  const [fu, fv] = [u - column, v - row];
  let sum = 0;
  for (const [dx, dy] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ] as const) {
    const weight = (dx === 1 ? fu : 1 - fu) * (dy === 1 ? fv : 1 - fv);
    const value = elementAt(values, (row + dy) * columns + column + dx);
    if (value === null) {
      if (weight > 1e-9) return null;
      continue;
    }
    sum += weight * value;
  }
  return sum;
}

function steps(at: number, { low, high }: Span, count: number): number | null {
  const step = ((at - low) / (high - low)) * (count - 1);
  return step >= -1e-9 && step <= count - 1 + 1e-9 ? Math.max(0, step) : null;
}
