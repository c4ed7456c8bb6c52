/** The decisions that every trial may have, beside what was read. */
import { LENGTH_UNITS, type LengthUnit, type UnitId } from "../metrology/units";
import { type Decision, type Decisions, oneOf, typed, yesOrNo } from "./decision";

const LEAVE_OUT = "leave out ";
const ACCEPT = "accept ";

/** Leaves a reading out. The reading stays on disk, and can come back. */
export const leaveOut = (readingId: string): Decision<boolean> => yesOrNo(`${LEAVE_OUT}${readingId}`);

/** Accepts a suspect, and says why. */
export const acceptSuspect = (suspectId: string): Decision<string> => typed(`${ACCEPT}${suspectId}`);

/** Whether what was to be adjusted after a round is done. */
export const adjusted = (n: number): Decision<boolean> => yesOrNo(`adjusted ${n}`);

/** A practice burn of a round was made from an edited file. */
export const fromEditedFile = (n: number): Decision<boolean> => yesOrNo(`edited file ${n}`);

/** A setting of a round was read back, by itself. */
export const readBack = (n: number, setting: string): Decision<boolean> => yesOrNo(`read back ${n} ${setting}`);

/** The unit in which lengths are shown in a trial. */
export const lengthUnit: Decision<LengthUnit | null> = oneOf("length unit", LENGTH_UNITS);

/** Whether a decision is about readings, and so changes results. */
export function isAboutReadings(key: string): boolean {
  return key.startsWith(LEAVE_OUT) || key.startsWith(ACCEPT);
}

/** Ids of suspects that are accepted. */
export function acceptedIds(decisions: Decisions): Set<string> {
  return new Set(
    Object.entries(decisions).flatMap(([key, value]) =>
      key.startsWith(ACCEPT) && value !== "" ? [key.slice(ACCEPT.length)] : [],
    ),
  );
}

/** Readings that are left out, with the decision that brings each back: point, and what was read, a number in the internal unit or words. */
export function leftOutReadings(decisions: Decisions): { key: string; site: string; value: number | string }[] {
  return Object.keys(decisions).flatMap((key) => {
    if (!key.startsWith(LEAVE_OUT) || !yesOrNo(key).of(decisions)) return [];
    const [read = "", session = "", ...point] = key.slice(LEAVE_OUT.length).split(" ").reverse();
    // The second and later of equal readings are numbered.
    const site = point
      .reverse()
      .join(" ")
      .replace(/ \(\d+\)$/, "");
    const value = Number.isNaN(Number(read)) ? read.replaceAll("_", " ") : Number(read);
    return session === "" ? [] : [{ key, site, value }];
  });
}

/** Suspects that are accepted, with their reasons. */
export function acceptedSuspects(decisions: Decisions): { key: string; text: string }[] {
  return Object.entries(decisions).flatMap(([key, value]) =>
    key.startsWith(ACCEPT) && value !== "" ? [{ key, text: `Accepted: ${value}` }] : [],
  );
}

/** @param readBackAt when the last of them was, `null` before */
export function isReadBack(
  { n, readBackAt }: { n: number; readBackAt: number | null },
  decisions: Decisions,
  setting: string,
): boolean {
  return readBackAt !== null || readBack(n, setting).of(decisions);
}

export function lengthUnitOf({ decisions }: { decisions: Decisions }): LengthUnit {
  return lengthUnit.of(decisions) ?? "mm";
}

/** The unit after this one, round and round. */
export function nextLengthUnit(unit: LengthUnit): LengthUnit {
  return LENGTH_UNITS[(LENGTH_UNITS.indexOf(unit) + 1) % LENGTH_UNITS.length] ?? "mm";
}

/** A unit as shown: lengths go by the choice, everything else stays. */
export function shownUnit(unit: UnitId, length: LengthUnit): UnitId {
  return unit === "mm" ? length : unit;
}
