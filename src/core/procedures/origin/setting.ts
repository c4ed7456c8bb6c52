/** Where the working area begins: how far each axis goes on after its switch. */
import type { Axis } from "../../machine/machine-spec";
import type { SettingSpec } from "../../settings/setting";

export const HOME_OFFSET: Readonly<Record<Axis, string>> = { x: "home offset x", y: "home offset y" };

export const HOME_OFFSETS: readonly SettingSpec[] = (["x", "y"] as const).map((axis) => ({
  key: HOME_OFFSET[axis],
  label: `Home offset ${axis.toUpperCase()}`,
  owner: "machine",
  shape: "scalar",
  copied: false,
  unit: "mm",
  atUnit: null,
  larger: null,
  usualStep: { length: 0.01, count: 1 },
  dimensions: ["length", "count"],
  about: "How far the axis goes on from its switch: a length, or counts.",
  onlyWhere: `Its controller holds a home offset of ${axis.toUpperCase()}`,
}));
