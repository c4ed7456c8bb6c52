/** Names of readings and points that nothing else checks, for Lay out and Correct. */

const NAMED = 2;

/** The first names and the number of the others, as in "X, Y and 2 more". */
export function listedShort(names: readonly string[]): string {
  const named = names.slice(0, NAMED);
  const more = names.length - named.length;
  return more > 0 ? `${named.join(", ")} and ${more} more` : named.join(" and ");
}

/** @param points that no other point checks, at least one */
export function aloneText(points: readonly string[]): string {
  return `No other point checks ${listedShort(points)}. Measure there with a second gauge too.`;
}
