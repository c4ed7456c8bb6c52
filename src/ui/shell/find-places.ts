/** Finding places by what is typed: every word must be in them; what begins with the first word comes first. */

/** More than anybody looks through. */
const MOST = 30;

type Named = { group: string; label: string; detail: string };

/** @param typed empty: everything but trials, in its order */
export function findPlaces<P extends Named>(places: readonly P[], typed: string): P[] {
  const words = plain(typed).split(" ").filter(Boolean);
  const first = words[0];
  if (first === undefined) return places.filter((p) => p.group !== "Trials").slice(0, MOST);
  const hits = places.flatMap((place, order) => {
    const label = plain(place.label);
    const text = `${label} ${plain(place.detail)} ${plain(place.group)}`;
    if (!words.every((w) => text.includes(w))) return [];
    const rank = label.startsWith(first) ? 0 : words.every((w) => label.includes(w)) ? 1 : 2;
    return [{ place, rank, order }];
  });
  return hits
    .sort((a, b) => a.rank - b.rank || a.order - b.order)
    .slice(0, MOST)
    .map((h) => h.place);
}

/** Small letters without marks, so that `ol` finds `Ölmühle`. */
function plain(text: string): string {
  return text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase().trim().replace(/\s+/g, " ");
}
