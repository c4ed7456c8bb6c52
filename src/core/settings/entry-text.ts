/** Values as a controller shows and takes them: in its unit, with its digits. */

import { afterNumber, fixed, plain } from "../metrology/quantity-text";
import { fromInternal, SWITCH_WORDS, type UnitId } from "../metrology/units";
import { fieldTableText } from "./field-table";
import type { HeldSetting, SettingValue } from "./setting";

/** Digits shown where nothing is said of the controller's own: so many decimals, and small numbers with so many figures. */
const USUAL_DECIMALS = 4;
const USUAL_FIGURES = 6;
/** Digits that keep a value of any controller whole. */
const WHOLE_DECIMALS = 9;

export type EntryShape = { unit: UnitId; decimals: number };

/** Decimals that show a step: 0.001 needs 3. */
export function decimalsOfStep(step: number): number {
  return Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));
}

/** How a controller shows values of a setting; `unit` of the setting where nothing is known of it. */
export function entryShape(held: Pick<HeldSetting, "unit" | "step"> | undefined, unit: UnitId): EntryShape {
  if (!held) return { unit, decimals: USUAL_DECIMALS };
  return { unit: held.unit, decimals: decimalsOfStep(fromInternal(held.step, held.unit)) };
}

/** The nearest value that the controller takes, internal unit. */
export function roundedToStep(exact: number, step: number): number {
  const rounded = Number((Math.round(exact / step) * step).toFixed(WHOLE_DECIMALS));
  // -0 does not survive JSON.
  return rounded === 0 ? 0 : rounded;
}

/** As it is typed into the controller: `0.148`, without its unit. */
export function entryText(internal: number, { unit, decimals }: EntryShape): string {
  if (unit === "onOff") return SWITCH_WORDS[internal === 0 ? 0 : 1];
  return fixed(fromInternal(internal, unit), decimals);
}

/** The same for a field to type in: every digit kept, an ASCII minus. */
export function editableText(internal: number, unit: UnitId): string {
  if (unit === "onOff") return SWITCH_WORDS[internal === 0 ? 0 : 1];
  return plain(fromInternal(internal, unit), WHOLE_DECIMALS).replace("−", "-");
}

/** A setting in words, with its unit: `100: 0.105 · 300: 0.148 mm`. */
export function valueText(value: SettingValue | null, unit: UnitId): string {
  if (value === null) return "not known";
  const text = (internal: number) => {
    if (unit === "onOff") return SWITCH_WORDS[internal === 0 ? 0 : 1];
    const shown = fromInternal(internal, unit);
    const before = shown === 0 ? 0 : Math.floor(Math.log10(Math.abs(shown))) + 1;
    return plain(shown, Math.max(USUAL_DECIMALS, USUAL_FIGURES - before));
  };
  const symbol = afterNumber(unit);
  if (value.shape === "scalar") return `${text(value.value)}${symbol}`;
  if (value.shape === "map") return fieldTableText(value);
  if (value.rows.length === 0) return "no entries";
  return `${value.rows.map((r) => `${plain(r.at)}: ${text(r.value)}`).join(" · ")}${symbol}`;
}

/**
 * Why the controller cannot take a value; `null` where it can, or where nothing is known of its range.
 *
 * @param held how it takes the setting
 */
export function rangeFault(value: SettingValue, held: HeldSetting | undefined): string | null {
  const range = held?.range;
  if (!held || !range || value.shape === "map") return null;
  const shape = entryShape(held, held.unit);
  const values = value.shape === "scalar" ? [{ at: null, value: value.value }] : value.rows;
  const out = values.find((v) => v.value < range.low || v.value > range.high);
  if (!out) return null;
  const shown = (internal: number) => `${entryText(internal, shape)}${afterNumber(held.unit)}`;
  const place = out.at === null ? "" : ` at ${plain(out.at)}`;
  return `The value${place} is ${shown(out.value)}. Enter between ${entryText(range.low, shape)} and ${shown(range.high)}, the range of this controller.`;
}
