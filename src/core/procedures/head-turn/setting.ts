/** The turn of the whole field that the controller of a galvo may hold. */
import { scalarSetting } from "../../settings/declared";
import type { SettingSpec } from "../../settings/setting";

export const FIELD_TURN = "field turn";

/** A hundredth of a degree is usual. (common practice, no source) */
const USUAL_STEP_RAD = (0.01 * Math.PI) / 180;

export const FIELD_TURN_SETTING: SettingSpec = scalarSetting({
  key: FIELD_TURN,
  label: "Turn of the field",
  acts: { on: "field turn" },
  unit: "deg",
  usualStep: { angle: USUAL_STEP_RAD },
  larger: { positive: "turns marks counter-clockwise", negative: "turns marks clockwise" },
  about: "The angle by which the controller turns every drawing.",
});
