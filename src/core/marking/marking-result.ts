/** Marking settings as an entry of a stock card: the settings, and the conditions of the trial. */
import type { MachineSpec } from "../machine/machine-spec";
import { type StockAtHand, stockText } from "../stock/stock-at-hand";
import type { StockResult } from "../trial/outcome";
import { type CellSettings, settingsOn, settingValue } from "./cell-settings";
import { type Dose, doseText, energyText } from "./dose";

/** Label of the purpose among the conditions. */
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
  /** The settings that were varied, and how good the mark is. */
  varied: StockResult["values"];
  quality: StockResult["values"];
  scoredBy: string;
  /** The good range, and other facts. */
  conditions: StockResult["conditions"];
  arithmetic: readonly string[];
  palette?: NonNullable<StockResult["palette"]>;
};

export function markingResult(found: Found): StockResult {
  const { stock, from, purpose, machine, lens, settings, dose } = found;
  return {
    kind: "marking",
    stock,
    purpose,
    values: [...found.varied, ...otherSettings(found), ...found.quality],
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
    ...(found.palette ? { palette: found.palette } : {}),
  };
}

/** All other settings of this machine, since a job needs them too. */
function otherSettings({ settings, machine, varied }: Found): StockResult["values"] {
  return settingsOn(machine.kind)
    .filter((key) => !varied.some((v) => v.id === key))
    .filter((key) => key !== "dwellMs" || settings.dwellMs > 0)
    .map((key) => settingValue(key, settings[key]));
}
