/** Settings that were on the stock card before this trial. The proof burns them beside the chosen cell. */
import { CELL_SETTING_KEYS, type CellSettings } from "../../marking/cell-settings";
import type { History } from "../../trial/history";
import { PURPOSES } from "../../trial/marking-fields";
import { limitOf } from "./cells";
import type { TestArrayPlan } from "./plan";

/** @returns `null` if there are none, if a setting that is not on an edge differs as well, or if the machine cannot reach them */
export function usedBefore(
  plan: TestArrayPlan,
  chosen: CellSettings,
  { machine }: Pick<History, "machine">,
): CellSettings | null {
  const kept = plan.from?.marked?.find((m) => m.purpose === PURPOSES[plan.purpose] && m.machine === machine.name);
  if (!kept) return null;
  const settings = { ...chosen };
  for (const key of CELL_SETTING_KEYS) {
    const value = kept.settings[key];
    if (value === undefined) continue;
    const isVaried = key === plan.across || key === plan.up;
    if (isVaried ? value > limitOf(key, machine) : value !== chosen[key]) return null;
    settings[key] = value;
  }
  return settings;
}
