/** What a controller stores of scanned rows: an offset for each direction by speed, and their shift against drawn lines. */
import type { MachineSpec } from "../../machine/machine-spec";
import { scalarSetting, tableBySpeed } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";
import { hasOutline, SCAN_OFFSET, type ScanOffsetPlan } from "./plan";

export const ROW_SHIFT = "row shift";
export const ROW_SHIFT_BY_SPEED = "row shift by speed";

const MOVES = { positive: "moves scanned rows to the right", negative: "moves scanned rows to the left" };

export const SCAN_SETTINGS: readonly SettingSpec[] = [
  tableBySpeed({
    key: SCAN_OFFSET,
    label: "Scan offset per direction",
    acts: { on: "row ends" },
    copied: true,
    larger: { positive: "marks earlier", negative: "marks later" },
  }),
  scalarSetting({
    key: ROW_SHIFT,
    label: "Shift of scanned rows",
    acts: { on: "scanned rows" },
    larger: MOVES,
    about: "Against drawn lines, along X.",
    onlyWhere: "The controller stores one shift of scanned rows against drawn lines",
  }),
  tableBySpeed({
    key: ROW_SHIFT_BY_SPEED,
    label: "Shift of scanned rows by speed",
    acts: { on: "scanned rows" },
    larger: MOVES,
    about: "Against drawn lines, along X.",
    onlyWhere: "The controller stores a shift of scanned rows against drawn lines for each speed",
  }),
];

/** How the shift that a burn shows is stored: as one value, as one for each speed, or not at all. */
export type HeldShift = "one" | "by speed" | null;

/** `null` also where rows are not scanned by the controller, or not outlined. A table goes before a single value. */
export function heldShift(plan: ScanOffsetPlan, { held }: Pick<MachineSpec, "held">): HeldShift {
  if (plan.way !== "closed blocks" || !hasOutline(plan)) return null;
  if (held[ROW_SHIFT_BY_SPEED]) return "by speed";
  return held[ROW_SHIFT] ? "one" : null;
}

/** Keys of the settings of a machine that a burn with this plan corrects. */
export function settingsOf(plan: ScanOffsetPlan, machine: Pick<MachineSpec, "held">): string[] {
  const is = heldShift(plan, machine);
  if (is === null) return [SCAN_OFFSET];
  return [SCAN_OFFSET, is === "one" ? ROW_SHIFT : ROW_SHIFT_BY_SPEED];
}
