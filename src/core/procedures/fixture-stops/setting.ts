/** Where the stops of a fixture stand: from the sides of the working area to the corner that they make. */
import { AXES, type Axis } from "../../machine/machine-kind";
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";

export const FIXTURE_STOP: Readonly<Record<Axis, string>> = { x: "fixture stop x", y: "fixture stop y" };

export const FIXTURE_STOPS: readonly SettingSpec[] = AXES.map((axis) =>
  scalarSetting({
    key: FIXTURE_STOP[axis],
    label: `Fixture stop ${axis.toUpperCase()}`,
    acts: { on: "next burn" },
    copied: true,
    usualStep: { length: 0.01 },
    onlyWhere: `A fixture or pallet has a stop for ${axis.toUpperCase()}`,
  }),
);
