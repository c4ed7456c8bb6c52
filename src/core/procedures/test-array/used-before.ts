/** The settings that the card of the stock had when the trial was laid out: the proof burns them beside the chosen cell. */
import { CELL_SETTING_KEYS, type CellSettings } from "../../marking/cell-settings";
import type { History } from "../../trial/history";
import { PURPOSES } from "../../trial/marking-fields";
import { limitOf } from "./cells";
import type { TestArrayPlan } from "./plan";

/** @returns `null` where there are none, where another setting than those on the edges differs too, or the machine does not reach them */
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
