/** A practice burn from an edited file. The trial stores this, and Burn and Read show it. */

/** Key of the decision for a round. */
export function editedFileKey(n: number): string {
  return `edited file ${n}`;
}

/** Value of the decision. */
export const EDITED = "yes";

export function isFromEditedFile(decisions: Readonly<Record<string, string>>, n: number): boolean {
  return decisions[editedFileKey(n)] === EDITED;
}
