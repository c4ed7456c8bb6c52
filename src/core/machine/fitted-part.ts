/** What belongs to a machine together with its optic or its rotary: what was entered or proved with another one does not hold with this. */

import type { SettingSpec } from "../settings/setting";
import type { PartKind } from "./part-spec";

export type PartFitting = { kind: string; partId: number; from: number; to: number | null };

/** The part of a kind that was fitted at a moment; `null` where none was written down. */
export function partAt(fittings: readonly PartFitting[], kind: PartKind, moment: number): number | null {
  return (
    fittings.findLast((f) => f.kind === kind && f.from <= moment && (f.to === null || f.to > moment))?.partId ?? null
  );
}

/** Whether the part of one moment was fitted at another; `then` in milliseconds, `Infinity` = at present. */
export function isSamePart(fittings: readonly PartFitting[], kind: PartKind, then: number, now: number): boolean {
  return partAt(fittings, kind, then) === partAt(fittings, kind, now);
}

/** Whether what was written down of a setting at one moment still held at another. */
export function heldThrough(
  { owner }: Pick<SettingSpec, "owner">,
  fittings: readonly PartFitting[],
  then: number,
  now: number,
): boolean {
  return (owner !== "optic" && owner !== "rotary") || isSamePart(fittings, owner, then, now);
}
