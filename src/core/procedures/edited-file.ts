/** A practice burn from a file that was edited: said wherever its results are shown, and kept with the trial. */

/** The decision that says it of a round. */
export function editedFileKey(n: number): string {
  return `edited file ${n}`;
}

/** What it says. */
export const EDITED = "yes";

export function isFromEditedFile(decisions: Readonly<Record<string, string>>, n: number): boolean {
  return decisions[editedFileKey(n)] === EDITED;
}
