/** The decision that says whether what was to be adjusted after a round is done. */
export function adjustedKey(n: number): string {
  return `adjusted ${n}`;
}

/** What it says. */
export const [DONE, NOT_DONE] = ["yes", "no"] as const;

/** Whether what was to be adjusted after a round is done. */
export function isAdjusted(decisions: Readonly<Record<string, string>>, n: number): boolean {
  return decisions[adjustedKey(n)] === DONE;
}
