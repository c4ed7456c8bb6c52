/** What a person decided in a trial, beside what was read. Kept with the trial, by keys that are spelled here alone. */
import { LENGTH_UNITS, type LengthUnit, type UnitId } from "../metrology/units";

const LEAVE_OUT = "leave out ";
const ACCEPT = "accept ";

export type Decisions = Readonly<Record<string, string>>;

/** The decision that leaves a reading out. The reading stays on disk, and can come back. */
export const leaveOutKey = (readingId: string) => `${LEAVE_OUT}${readingId}`;

/** The decision by which a person accepts a suspect. Its value is the reason. */
export const acceptKey = (suspectId: string) => `${ACCEPT}${suspectId}`;

/** Whether a decision is about readings, and so changes results. */
export function isAboutReadings(key: string): boolean {
  return key.startsWith(LEAVE_OUT) || key.startsWith(ACCEPT);
}

export function isLeftOut(decisions: Decisions, readingId: string): boolean {
  return decisions[leaveOutKey(readingId)] === "yes";
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
  return Object.entries(decisions).flatMap(([key, decided]) => {
    if (!key.startsWith(LEAVE_OUT) || decided !== "yes") return [];
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

/** The decision that says whether what was to be adjusted after a round is done. */
export function adjustedKey(n: number): string {
  return `adjusted ${n}`;
}

/** What it says. */
export const [DONE, NOT_DONE] = ["yes", "no"] as const;

/** Whether what was to be adjusted after a round is done. */
export function isAdjusted(decisions: Decisions, n: number): boolean {
  return decisions[adjustedKey(n)] === DONE;
}

/** A practice burn from an edited file. The trial stores this, and Burn and Read show it. */

/** Key of the decision for a round. */
export function editedFileKey(n: number): string {
  return `edited file ${n}`;
}

/** Value of the decision. */
export const EDITED = "yes";

export function isFromEditedFile(decisions: Decisions, n: number): boolean {
  return decisions[editedFileKey(n)] === EDITED;
}

/** Which settings of a round were read back: each by itself, as a person looks at one after the other. */

/** The decision that says it of one setting. */
export function readBackKey(n: number, setting: string): string {
  return `read back ${n} ${setting}`;
}

export const READ_BACK = "yes";

/** @param readBackAt when the last of them was, `null` before */
export function isReadBack(
  { n, readBackAt }: { n: number; readBackAt: number | null },
  decisions: Decisions,
  setting: string,
): boolean {
  return readBackAt !== null || decisions[readBackKey(n, setting)] === READ_BACK;
}

/** The unit in which lengths are shown in a trial: chosen by one key, kept with the trial's other choices. */

export const UNIT_DECISION = "length unit";

export function lengthUnitOf({ decisions }: { decisions: Decisions }): LengthUnit {
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
