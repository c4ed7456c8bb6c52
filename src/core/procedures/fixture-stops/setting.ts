/** Where the stops of a fixture stand: from the sides of the working area to the corner that they make. */
import type { Axis } from "../../machine/machine-spec";
import type { SettingSpec } from "../../settings/setting";

export const FIXTURE_STOP: Readonly<Record<Axis, string>> = { x: "fixture stop x", y: "fixture stop y" };

export const FIXTURE_STOPS: readonly SettingSpec[] = (["x", "y"] as const).map((axis) => ({
  key: FIXTURE_STOP[axis],
  label: `Fixture stop ${axis.toUpperCase()}`,
  owner: "machine",
  shape: "scalar",
  copied: true,
  unit: "mm",
  atUnit: null,
  larger: null,
  usualStep: { length: 0.01 },
  onlyWhere: `A fixture or pallet has a stop for ${axis.toUpperCase()}`,
}));
