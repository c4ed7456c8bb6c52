/** Settings of the field in the controller of a galvo: a scale for each axis, and coefficients of the form. */

import { FIELD_TERMS, type FieldTerm } from "../../geometry/field-term";
import { AXES, type Axis } from "../../machine/machine-kind";
import { withinSentence } from "../../metrology/sentence-case";
import { mapSetting, scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";
import { termName } from "./map";

export const FIELD_SCALE: Readonly<Record<Axis, string>> = { x: "field scale x", y: "field scale y" };

export function fieldKey(term: FieldTerm): string {
  return `field ${term}`;
}

const SCALES: readonly SettingSpec[] = AXES.map((axis) =>
  scalarSetting({
    key: FIELD_SCALE[axis],
    label: `Field scale ${axis.toUpperCase()}`,
    acts: { on: "field scale", axis },
    owner: "optic",
    unit: "percent",
    dimensions: ["ratio", "length"],
    usualStep: { ratio: 0.0001, length: 0.01 },
    larger: { positive: "makes marks larger", negative: "makes marks smaller" },
    usualSense: { otherwise: -1, fixed: { ratio: 1 } },
    about: "Percent or a factor for the scale, or the size of the field in mm.",
  }),
);

const COEFFICIENTS: readonly SettingSpec[] = FIELD_TERMS.map((term) =>
  scalarSetting({
    key: fieldKey(term),
    label: termName(term),
    acts: { on: "field form", term },
    owner: "optic",
    unit: "one",
    dimensions: ["ratio"],
    usualStep: { ratio: 0.001 },
    onlyWhere: `Its controller has this coefficient: ${withinSentence(termName(term))}`,
    effect: "Effect at the corner",
    about: "Coefficient without a unit. Enter the range, so that Ustrina can try values.",
  }),
);

/** Corrections of every point, by the form in which they are taken. */
export const MAP_KEYS = { table: "field table", artwork: "field artwork" } as const;

const MAPS: readonly SettingSpec[] = [
  mapSetting({ key: MAP_KEYS.table, label: "Correction table", acts: { on: "field table" } }),
  mapSetting({ key: MAP_KEYS.artwork, label: "Bent artwork", acts: { on: "drawings" } }),
];

export const FIELD_SETTINGS: readonly SettingSpec[] = [...SCALES, ...COEFFICIENTS, ...MAPS];

/** The setting of a key. @throws RangeError for a key of no setting of a field */
export function fieldSetting(key: string): SettingSpec {
  const found = FIELD_SETTINGS.find((s) => s.key === key);
  if (!found) throw new RangeError(`“${key}” is no setting of a field`);
  return found;
}
