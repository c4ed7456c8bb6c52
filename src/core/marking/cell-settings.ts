/** The settings with which a cell is marked, and which of them a kind of machine has. */
import type { MachineKind } from "../machine/machine-kind";
import { type Measured, measured } from "../metrology/measured";
import { plain } from "../metrology/quantity-text";
import type { UnitId } from "../metrology/units";

export type CellSettings = {
  speedMmPerS: number;
  powerPct: number;
  rowPitchMm: number;
  passes: number;
  pulseKHz: number;
  pulseNs: number;
  aboveFocusMm: number;
  dwellMs: number;
};
export type CellSetting = keyof CellSettings;

type Described = {
  label: string;
  unit: string;
  /** Whether a larger value puts more energy on the same area, less, or neither for certain. */
  stronger: 1 | -1 | 0;
  /** Ratios of it count, not differences: never 0 or below. */
  byRatio: boolean;
  /** Decimals of a value that is worked out. */
  decimals: number;
};

export const CELL_SETTINGS = {
  speedMmPerS: { label: "Speed", unit: "mm/s", stronger: -1, byRatio: true, decimals: 0 },
  powerPct: { label: "Power", unit: "%", stronger: 1, byRatio: true, decimals: 1 },
  rowPitchMm: { label: "Row pitch", unit: "mm", stronger: -1, byRatio: true, decimals: 3 },
  passes: { label: "Passes", unit: "", stronger: 1, byRatio: true, decimals: 0 },
  pulseKHz: { label: "Pulse frequency", unit: "kHz", stronger: 0, byRatio: true, decimals: 1 },
  pulseNs: { label: "Pulse width", unit: "ns", stronger: 0, byRatio: true, decimals: 0 },
  aboveFocusMm: { label: "Height above focus", unit: "mm", stronger: 0, byRatio: false, decimals: 2 },
  dwellMs: { label: "Dwell per dot", unit: "ms", stronger: 1, byRatio: true, decimals: 2 },
} as const satisfies Record<CellSetting, Described>;

export const CELL_SETTING_KEYS = [
  "speedMmPerS",
  "powerPct",
  "rowPitchMm",
  "passes",
  "pulseKHz",
  "pulseNs",
  "aboveFocusMm",
  "dwellMs",
] as const satisfies readonly CellSetting[];

const UNITS: Partial<Record<CellSetting, UnitId>> = {
  speedMmPerS: "mmPerS",
  powerPct: "percent",
  rowPitchMm: "mm",
  aboveFocusMm: "mm",
};

/** Unit of a setting among results: speeds, lengths and power have units of their own, the others are plain numbers. */
export function unitOf(key: CellSetting): UnitId {
  return UNITS[key] ?? "one";
}

/** A setting in internal units: power is a share there. */
export function internalValue(key: CellSetting, value: number): number {
  return key === "powerPct" ? value / 100 : value;
}

/** Settings that can be varied on a kind of machine. A gantry has no pulses to set. */
export function settingsOn(kind: MachineKind): CellSetting[] {
  const pulsed: readonly CellSetting[] = ["pulseKHz", "pulseNs", "dwellMs"];
  return CELL_SETTING_KEYS.filter((key) => kind === "galvo" || !pulsed.includes(key));
}

/** `200 mm/s`. */
export function valueText(setting: CellSetting, value: number): string {
  const { unit } = CELL_SETTINGS[setting];
  return unit === "" ? plain(value) : `${plain(value)} ${unit}`;
}

/** Values from the first to the last, evenly or by equal ratios, rounded as they are typed. @param count at least 2 */
export function spaced(
  setting: CellSetting,
  first: number,
  last: number,
  count: number,
  by: "even" | "ratio",
): number[] {
  const { decimals } = CELL_SETTINGS[setting];
  const scale = 10 ** decimals;
  const isRatio = by === "ratio" && first > 0 && last > 0;
  return Array.from({ length: count }, (_, i) => {
    if (i === 0) return first;
    if (i === count - 1) return last;
    const share = i / (count - 1);
    const value = isRatio ? first * (last / first) ** share : first + share * (last - first);
    return Math.round(value * scale) / scale;
  });
}

/** Where a value lies along its axis: logarithms where ratios count. */
export function along(setting: CellSetting, value: number): number {
  return CELL_SETTINGS[setting].byRatio ? Math.log(value) : value;
}

/** `40 %`, `row pitch 0.1 mm`. */
export function settingText(key: CellSetting, value: number): string {
  const { unit, label } = CELL_SETTINGS[key];
  if (key === "passes") return value === 1 ? "1 pass" : `${plain(value)} passes`;
  return key === "speedMmPerS" || key === "powerPct"
    ? `${plain(value)} ${unit}`
    : `${label.toLowerCase()} ${plain(value)} ${unit}`;
}

/** A setting as a value that is exact. */
export function settingValue(key: CellSetting, value: number): MarkingValue {
  const { label, unit } = CELL_SETTINGS[key];
  const own = unitOf(key);
  return {
    id: key,
    label: own === "one" && unit !== "" ? `${label}, ${unit}` : label,
    quantity: measured(internalValue(key, value), 0, Infinity),
    unit: own,
  };
}

type MarkingValue = { id: CellSetting; label: string; quantity: Measured; unit: UnitId };

/** Decimals to which a setting is exact. */
const EXACT = 6;

/** A setting as it is typed: exact if it was set, rounded if it was found with an uncertainty. */
export function typedValue(key: CellSetting, { value, standardUncertainty }: Measured): number {
  // A share of 0.283 is 28.3 % as typed, not 28.299999999999997 %.
  const own = key === "powerPct" ? 100 * value : value;
  return Number(own.toFixed(standardUncertainty > 0 ? CELL_SETTINGS[key].decimals : EXACT));
}

/** The settings among the values of a result; unknown ones are left out. */
export function settingsAmong(values: readonly { id: string; quantity: Measured }[]): Partial<CellSettings> {
  const known: Partial<CellSettings> = {};
  for (const key of CELL_SETTING_KEYS) {
    const quantity = values.find((v) => v.id === key)?.quantity;
    if (quantity) known[key] = typedValue(key, quantity);
  }
  return known;
}
