/** Settings as procedures declare them: what is usual is left out. */
import type { SettingSpec } from "./setting";

type Said = "key" | "label" | "acts";
type Usual = "owner" | "shape" | "copied" | "unit" | "atUnit" | "larger";

/** One number, in mm of the machine unless it says otherwise, which no other program copies and which acts alike everywhere. */
export function scalarSetting(
  of: Pick<SettingSpec, Said> & Partial<Omit<SettingSpec, Said | "shape" | "atUnit">>,
): SettingSpec {
  return { owner: "machine", shape: "scalar", copied: false, unit: "mm", atUnit: null, larger: null, ...of };
}

/** A length by speed. */
export function tableBySpeed(
  of: Pick<SettingSpec, Said> & Partial<Omit<SettingSpec, Said | Exclude<Usual, "copied" | "larger">>>,
): SettingSpec {
  return { owner: "machine", shape: "table", copied: false, unit: "mm", atUnit: "mmPerS", larger: null, ...of };
}

/** A correction of the whole field of a lens. */
export function mapSetting(of: Pick<SettingSpec, Said>): SettingSpec {
  return { owner: "optic", shape: "map", copied: false, unit: "mm", atUnit: null, larger: null, ...of };
}
