/** The unit in which lengths are shown in a trial: chosen by one key, kept with the trial's other choices. */
import { LENGTH_UNITS, type LengthUnit, type UnitId } from "../metrology/units";
import type { History } from "./contract";

export const UNIT_DECISION = "length unit";

export function lengthUnitOf({ decisions }: Pick<History, "decisions">): LengthUnit {
  return LENGTH_UNITS.find((unit) => unit === decisions[UNIT_DECISION]) ?? "mm";
}

/** The unit after this one, round and round. */
export function nextLengthUnit(unit: LengthUnit): LengthUnit {
  return LENGTH_UNITS[(LENGTH_UNITS.indexOf(unit) + 1) % LENGTH_UNITS.length] ?? "mm";
}

/** A unit as shown: lengths go by the choice, everything else stays. */
export function shownUnit(unit: UnitId, length: LengthUnit): UnitId {
  return unit === "mm" ? length : unit;
}
