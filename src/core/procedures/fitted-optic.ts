/** What belongs to a machine together with its optic: what was entered or proved with another one does not hold with this. */

export type OpticFitting = { kind: string; partId: number; from: number; to: number | null };

/** The optic that was fitted at a moment; `null` where none was written down. */
export function opticAt(fittings: readonly OpticFitting[], moment: number): number | null {
  return (
    fittings.findLast((f) => f.kind === "optic" && f.from <= moment && (f.to === null || f.to > moment))?.partId ?? null
  );
}

/** Whether the optic of one moment was fitted at another; `then` in milliseconds, `Infinity` = at present. */
export function isSameOptic(fittings: readonly OpticFitting[], then: number, now: number): boolean {
  return opticAt(fittings, then) === opticAt(fittings, now);
}
