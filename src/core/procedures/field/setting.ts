/** What the controller of a galvo holds of its field: a scale for each axis, and coefficients of the form. */

import type { FieldTerm } from "../../geometry/field-term";
import { AXES, type Axis } from "../../machine/machine-kind";
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";

export const FIELD_SCALE: Readonly<Record<Axis, string>> = { x: "field scale x", y: "field scale y" };

export function fieldKey(term: FieldTerm): string {
  return `field ${term}`;
}

const LABELS: Readonly<Record<FieldTerm, string>> = {
  "bow x": "Bow X",
  "bow y": "Bow Y",
  "keystone x": "Keystone X",
  "keystone y": "Keystone Y",
  shear: "Shear",
  "own cubic x": "Own cubic X",
  "own cubic y": "Own cubic Y",
};

export function termLabel(term: FieldTerm): string {
  return LABELS[term];
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

const COEFFICIENTS: readonly SettingSpec[] = (Object.keys(LABELS) as FieldTerm[]).map((term) =>
  scalarSetting({
    key: fieldKey(term),
    label: LABELS[term],
    acts: { on: "field form", term },
    owner: "optic",
    unit: "one",
    dimensions: ["ratio"],
    usualStep: { ratio: 0.001 },
    onlyWhere: `Its controller holds a coefficient: ${LABELS[term].toLowerCase()}`,
    effect: "Effect of one more, at the corner of the field",
    about: "A coefficient without a unit. Enter its range, so that Ustrina can try values.",
  }),
);

export const FIELD_SETTINGS: readonly SettingSpec[] = [...SCALES, ...COEFFICIENTS];

/** The setting of a key. @throws RangeError for a key of no setting of a field */
export function fieldSetting(key: string): SettingSpec {
  const found = FIELD_SETTINGS.find((s) => s.key === key);
  if (!found) throw new RangeError(`“${key}” is no setting of a field`);
  return found;
}
