/** What an axis is told by: how far it goes a pulse, how many pulses a length takes, or how large its field is. */
import { AXES, type Axis } from "../../machine/machine-kind";
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";

export const AXIS_SCALE: Readonly<Record<Axis, string>> = { x: "axis scale x", y: "axis scale y" };

/** `0.001` in µm a pulse, and in pulses per mm alike. (common practice, no source) */
const USUAL_STEP = { length: 1e-6, "per length": 1e-3 };

export const AXIS_SCALES: readonly SettingSpec[] = AXES.map((axis) =>
  scalarSetting({
    key: AXIS_SCALE[axis],
    label: `Axis scale ${axis.toUpperCase()}`,
    acts: { on: "length", axis },
    unit: "um",
    usualStep: USUAL_STEP,
    dimensions: ["length", "per length"],
    larger: { positive: "longer marks", negative: "shorter marks" },
    about: "A length: the way per pulse, or the size of the field. Per mm or in: pulses.",
    usualSense: { otherwise: -1, fixed: { "per length": 1 } },
  }),
);
