/** Numbers as typed, read as a value of a setting. */
import { plain } from "../../core/metrology/quantity-text";
import { parseReading, parseSignedReading } from "../../core/metrology/reading-text";
import { UNITS, type UnitId } from "../../core/metrology/units";
import { MAP_WORDS, NO_FIELD_TABLE } from "../../core/settings/field-table";
import type { SettingSpec, SettingValue } from "../../core/settings/setting";
import { FormFaults } from "../form-faults";
import { Refusal } from "../refusal";

/** One number as typed, by its row: the place in a table, as a number where the page knows it. */
export type TypedRow = { at: number | string | null; text: string };

/** Larger than anything a controller holds, in internal units. */
const LARGEST = 1e7;

/**
 * @param unit of what is typed without one
 * @throws Refusal with the faults of all rows: `value`, `row 300` where the page knows the row, else `row 2 at`, `row 2`
 */
export function typedValue(setting: SettingSpec, unit: UnitId, rows: readonly TypedRow[]): SettingValue {
  if (setting.shape === "map") {
    if (rows[0]?.text === MAP_WORDS.none) return NO_FIELD_TABLE;
    throw new Refusal(
      "value",
      "Only a trial makes this value. Enter that there is none, or begin a trial of the field.",
    );
  }
  if (setting.shape === "scalar") {
    const only = rows[0];
    if (!only || only.text.trim() === "") throw new Refusal("value", "Type the value.");
    return { shape: "scalar", value: signedReading(only.text, unit, "value") };
  }
  const form = new FormFaults();
  const read = rows.flatMap(({ at: given, text }, i) => {
    if (given === null) return [];
    const at = typeof given === "number" ? given : form.read(() => place(given, setting, i), Number.NaN);
    const field = typeof given === "number" ? `row ${at}` : `row ${i}`;
    return [{ at, value: form.read(() => signedReading(text, unit, field), 0) }];
  });
  form.refuse();
  const twice = read.findIndex((r, i) => read.findIndex((other) => other.at === r.at) !== i);
  if (twice >= 0)
    throw new Refusal(`row ${twice} at`, `${plain(read[twice]?.at ?? 0)} occurs twice. Enter each row once.`);
  return { shape: "table", rows: read.sort((a, b) => a.at - b.at) };
}

function place(text: string, setting: SettingSpec, i: number): number {
  const unit = setting.atUnit ?? "one";
  const read = parseReading(text, UNITS[unit].dimension, unit);
  if (!read.ok) throw new Refusal(`row ${i} at`, read.message);
  if (!(read.value > 0 && read.value < LARGEST)) throw new Refusal(`row ${i} at`, "It must be larger than 0.");
  return read.value;
}

/** A leading minus is allowed: settings may be negative. */
function signedReading(text: string, unit: UnitId, field: string): number {
  const read = parseSignedReading(text, UNITS[unit].dimension, unit);
  if (!read.ok) throw new Refusal(field, read.message);
  if (Math.abs(read.value) > LARGEST) throw new Refusal(field, `The value is too large. Enter at most ${LARGEST}.`);
  return read.value;
}
