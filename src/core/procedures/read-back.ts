/** Which settings of a round were read back: each by itself, as a person looks at one after the other. */

/** The decision that says it of one setting. */
export function readBackKey(n: number, setting: string): string {
  return `read back ${n} ${setting}`;
}

export const READ_BACK = "yes";

/** @param readBackAt when the last of them was, `null` before */
export function isReadBack(
  { n, readBackAt }: { n: number; readBackAt: number | null },
  decisions: Readonly<Record<string, string>>,
  setting: string,
): boolean {
  return readBackAt !== null || decisions[readBackKey(n, setting)] === READ_BACK;
}
