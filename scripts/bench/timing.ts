/** The median time of an act, ms. */
export function median(times: number, act: () => unknown): number {
  const all = Array.from({ length: times }, () => {
    const began = performance.now();
    act();
    return performance.now() - began;
  }).sort((a, b) => a - b);
  return all[times >> 1] ?? Number.NaN;
}
