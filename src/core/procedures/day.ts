/** The day of a moment as it is burned beside the code of a coupon, `2026-05-31`: by Greenwich, so that it is the same everywhere. */
export function dayOf(moment: number): string {
  return new Date(moment).toISOString().slice(0, 10);
}
