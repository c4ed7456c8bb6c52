/** Where the working area begins: how far each axis goes on after its switch. */
import { AXES, type Axis } from "../../machine/machine-kind";
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";

export const HOME_OFFSET: Readonly<Record<Axis, string>> = { x: "home offset x", y: "home offset y" };

export const HOME_OFFSETS: readonly SettingSpec[] = AXES.map((axis) =>
  scalarSetting({
    key: HOME_OFFSET[axis],
    label: `Home offset ${axis.toUpperCase()}`,
    acts: { on: "home", axis },
    usualStep: { length: 0.01, count: 1 },
    dimensions: ["length", "count"],
    about: "How far the axis goes on from its switch: a length, or counts.",
    onlyWhere: `Its controller holds a home offset of ${axis.toUpperCase()}`,
  }),
);
