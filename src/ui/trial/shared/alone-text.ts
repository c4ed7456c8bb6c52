/** Names of readings and points that nothing else checks, for Lay out and Correct. */

const NAMED = 2;

/** The first names, and how many there are besides. */
export function listedShort(names: readonly string[]): string {
  const more = names.length - NAMED;
  return names.slice(0, NAMED).join(" and ") + (more > 0 ? ` and ${more} more` : "");
}

/** @param points that no other point checks, at least one */
export function aloneText(points: readonly string[]): string {
  return `No other point checks ${listedShort(points)}. Read again with a second gauge to find a shared error.`;
}
