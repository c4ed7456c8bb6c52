/** Marking settings as they are kept on the card of a stock: the settings, and what they were found with. */
import type { MachineSpec } from "../machine/machine-spec";
import { type StockAtHand, stockText } from "../stock/stock-at-hand";
import type { StockResult } from "../trial/outcome";
import { type CellSettings, settingsOn, settingValue } from "./cell-settings";
import { type Dose, doseText, energyText } from "./dose";

/** Under this name a list of conditions has the purpose. */
const PURPOSE = "Purpose";

type Found = {
  /** Key of the batch. */
  stock: string;
  /** `null` where there is no card. */
  from: StockAtHand | null;
  purpose: string;
  machine: Pick<MachineSpec, "name" | "kind">;
  lens: string;
  settings: CellSettings;
  dose: Dose;
  /** What was looked for, first. */
  values: StockResult["values"];
  scoredBy: string;
  /** Where it is good, and what else was seen. */
  conditions: StockResult["conditions"];
  arithmetic: readonly string[];
};

export function markingResult(found: Found): StockResult {
  const { stock, from, purpose, machine, lens, settings, dose } = found;
  return {
    kind: "marking",
    stock,
    purpose,
    values: [...found.values, ...otherSettings(found)],
    conditions: [
      { label: PURPOSE, text: purpose },
      { label: "Stock", text: from ? stockText(from) : stock },
      { label: "Machine", text: machine.name },
      { label: "Lens", text: lens },
      { label: dose.per === "area" ? "Energy per area" : "Energy per length", text: energyText(dose) },
      ...found.conditions,
      { label: "Scored by", text: found.scoredBy },
    ],
    arithmetic: [...found.arithmetic, doseText(settings, dose)],
  };
}

/** All other settings that this machine has: a job needs them too. */
function otherSettings({ settings, machine, values }: Found): StockResult["values"] {
  return settingsOn(machine.kind)
    .filter((key) => !values.some((v) => v.id === key))
    .filter((key) => key !== "dwellMs" || settings.dwellMs > 0)
    .map((key) => settingValue(key, settings[key]));
}
