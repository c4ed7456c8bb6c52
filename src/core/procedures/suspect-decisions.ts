/** What a person decided about readings that contradict the others: left out, or accepted with a reason. Kept with the trial. */

const LEAVE_OUT = "leave out ";
const ACCEPT = "accept ";

type Decisions = Readonly<Record<string, string>>;

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
