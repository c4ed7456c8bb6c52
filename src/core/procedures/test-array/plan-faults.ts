/** Refusals of a layout, each with its remedy, and warnings before the burn. */

import { elementAt } from "../../fitting/element-at";
import type { MachineSpec } from "../../machine/machine-spec";
import { topSpeedReason } from "../../machine/not-known";
import { LEAST_CELLS } from "../../marking/array-answer";
import { CELL_SETTING_KEYS, CELL_SETTINGS, type CellSetting, settingsOn, valueText } from "../../marking/cell-settings";
import { countText } from "../../metrology/count-text";
import { plain } from "../../metrology/quantity-text";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { completedPlanForm } from "../../trial/plan-table";
import { placeFaults } from "../../trial/shared-fields";
import { arrayCells, edgesOf } from "./cells";
import { needOf } from "./layout";
import { asLaidOut, isByEye, isFilled, NO_BLOCKS, PASSES_LIMIT, planFields, SCORES, type TestArrayPlan } from "./plan";

export const MOST_CELLS = 400;
/** Width of a cell in lines, at least. A narrower cell shows only its edges. (common practice, no source) */
const LEAST_LINES = 4;
/** Rows in a filled cell, at least. */
const LEAST_ROWS = 3;

export function testArrayPlan(context: PlanContext): PlanForm<TestArrayPlan> {
  const { machine } = context;
  return completedPlanForm(planFields(context), {
    complete: (asked) => asLaidOut(asked, context),
    faults: (plan) => {
      const values = CELL_SETTING_KEYS.map((key) => [key, valuesFault(key, plan, machine)] as const);
      // Cells can be counted only if every edge has its values.
      const isWhole = values.every(([, message]) => message === null) && sameEdgeFault(plan) === null;
      return [
        ["stock", plan.from ? null : "Choose the stock."],
        ["up", sameEdgeFault(plan)],
        ...values,
        ["score", scoreFault(plan)],
        ["cellMm", isWhole ? cellFault(plan, context) : null],
        ...placeFaults(plan, { widthMm: plan.stockWidthMm, heightMm: plan.stockHeightMm }, machine),
      ];
    },
  });
}

/** A scan shows the inside of a cell and a gauge measures its depth. An outline has neither. */
function scoreFault({ fill, score }: TestArrayPlan): string | null {
  if (fill === "filled" || isByEye(score)) return null;
  if (fill === "own filled")
    return score === "darkness" || score === "contrast" || score === "colour"
      ? null
      : `${SCORES[score].split(",", 1)[0]} is read from whole squares. Score the drawings by darkness or by eye.`;
  return `${SCORES[score].split(",", 1)[0]} is read from filled cells. Choose filled squares, or score by eye.`;
}

function onEdge(key: CellSetting, { across, up, blocks }: TestArrayPlan): boolean {
  return key === across || key === up || key === blocks;
}

function sameEdgeFault({ across, up, blocks }: TestArrayPlan): string | null {
  if (across === up) return `${CELL_SETTINGS[up].label} varies from left to right already. Choose another setting.`;
  if (blocks === NO_BLOCKS || (blocks !== across && blocks !== up)) return null;
  return `${CELL_SETTINGS[blocks].label} varies inside each block already. Choose another setting for the blocks.`;
}

function valuesFault(key: CellSetting, plan: TestArrayPlan, machine: MachineSpec): string | null {
  if (!settingsOn(machine.kind).includes(key)) return null;
  const values = plan[key];
  const name = CELL_SETTINGS[key].label;
  if (onEdge(key, plan)) {
    if (values.length < 2) return `${name} is on an edge of the array. Enter at least 2 values.`;
    const twice = values.find((v, i) => values.indexOf(v) !== i);
    if (twice !== undefined) return `${valueText(key, twice)} occurs twice. Enter each value once.`;
    const falls = values.find((v, i) => i > 0 && v < elementAt(values, i - 1));
    if (falls !== undefined) return `${valueText(key, falls)} comes after a larger value. Enter rising values.`;
  } else if (values.length !== 1)
    return `${name} is on no edge of the array. Enter one value, or choose ${name.toLowerCase()} for an edge.`;
  return rangeFault(key, values, machine);
}

function rangeFault(key: CellSetting, values: readonly number[], machine: MachineSpec): string | null {
  const least = Math.min(...values);
  const most = Math.max(...values);
  const { byRatio, unit, label } = CELL_SETTINGS[key];
  if (key === "dwellMs" && most === 0 && values.length === 1) return null;
  if (byRatio && least <= 0) return `Enter more than 0${unit === "" ? "" : ` ${unit}`}.`;
  if (key === "powerPct" && most > 100)
    return `Power is ${plain(most)} %. Enter at most 100 %. Convert watts to percent of the full power first.`;
  if (key === "passes" && values.some((v) => !Number.isInteger(v))) return "Enter whole numbers.";
  if (key === "passes" && most > PASSES_LIMIT) return `Passes are ${plain(most)}. Enter at most ${PASSES_LIMIT}.`;
  if (key === "speedMmPerS" && least > machine.topSpeedMmPerS)
    return `${topSpeedReason(machine)} All speeds are higher. Write mm/min after the last value if the values are mm/min.`;
  if (key === "rowPitchMm" && most > 5) return `${label} is ${plain(most)} mm. Enter at most 5 mm.`;
  if (key === "aboveFocusMm" && Math.max(most, -least) > 100) return "Enter heights between −100 and 100 mm.";
  return null;
}

function cellFault(plan: TestArrayPlan, context: PlanContext): string | null {
  const { machine } = context;
  const edges = edgesOf(plan);
  const count = edges.across.length * edges.up.length * edges.blocks.length;
  if (count > MOST_CELLS) return `The array has ${count} cells. Use at most ${MOST_CELLS} cells.`;
  if (plan.cellMm < LEAST_LINES * plan.lineMm)
    return `The cell is narrower than ${LEAST_LINES} lines of ${plain(plan.lineMm)} mm. Enter at least ${plain(LEAST_LINES * plan.lineMm)} mm.`;
  const pitch = Math.max(...plan.rowPitchMm);
  if (isFilled(plan) && pitch * LEAST_ROWS > plan.cellMm)
    return `Rows ${plain(pitch)} mm apart leave fewer than ${LEAST_ROWS} rows in a cell. Enter at least ${plain(pitch * LEAST_ROWS)} mm.`;
  const need = needOf(plan);
  if (need.widthMm > plan.stockWidthMm || need.heightMm > plan.stockHeightMm)
    return `The array needs ${plain(Math.ceil(need.widthMm))} × ${plain(Math.ceil(need.heightMm))} mm. The stock is ${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)} mm. Use smaller cells, fewer values or a larger stock.`;
  const cells = arrayCells(plan, machine);
  const burned = cells.filter((c) => c.leftOut === null);
  const [first] = cells.flatMap((c) => c.leftOut ?? []);
  if (burned.length < LEAST_CELLS)
    return `Only ${countText(burned.length, "cell")} can be burned. Lay out at least ${LEAST_CELLS}. ${first ?? ""}`.trim();
  return null;
}

export function planWarnings(plan: TestArrayPlan, { machine }: PlanContext): PlanWarning[] {
  const cells = arrayCells(plan, machine);
  const out = cells.filter((c) => c.leftOut !== null);
  const apart = cells.filter((c) => c.isApart && c.leftOut === null);
  const [why] = out.flatMap((c) => c.leftOut ?? []);
  return [
    ...(why ? [{ field: "cellMm", message: `${countText(out.length, "cell")} cannot be burned. ${why}` }] : []),
    ...(apart.length > 0
      ? [
          {
            field: plan.across === "pulseKHz" || plan.up === "pulseKHz" ? "pulseKHz" : "speedMmPerS",
            message: `The pulses of ${countText(apart.length, "cell")} do not touch each other.`,
          },
        ]
      : []),
  ];
}
