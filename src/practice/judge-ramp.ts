/** A practice technician who looks along a line up a ramp: where it is first and last seen, and where it is sharpest. */
import type { Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import { onCoupon } from "../core/geometry/frames";
import type { Mark } from "./gantry";
import { marksWithin } from "./measure";
import type { Random } from "./random";

/** The eye takes two places for equally sharp whose beams differ by this share (SD). */
const EYE = 0.06;
/** Thinner lines are overlooked, mm. */
const SEEN_MM = 0.02;
/** The eye compares stretches of the line about this long, mm. */
const STRETCH_MM = 2;

export type RampPlace = { ok: true; value: number } | { ok: false; why: string };

/** @returns the place as it is read there, without the scatter of reading it */
export function placeOnRamp(
  measurand: Extract<Measurand, { kind: "place on ramp" }>,
  marks: readonly Mark[],
  placement: Placement,
  random: Random,
): RampPlace {
  const { which, within, along } = measurand;
  const seen = marksWithin(within, marks, placement)
    .filter((m) => m.widthMm >= SEEN_MM)
    .map((m) => ({ m, x: onCoupon({ x: (m.x0 + m.x1) / 2, y: m.y0 }, placement).x }))
    .sort((a, b) => a.x - b.x);
  const [first, last] = [seen[0], seen.at(-1)];
  if (!first || !last) return { ok: false, why: "Nothing of the line is seen on the practice piece." };
  const read = (x: number) => ({ ok: true as const, value: along.at0 + along.perMm * (x - along.fromXMm) });
  if (which === "first") return read(first.x);
  if (which === "last") return read(last.x);
  let best = { x: first.x, look: 0 };
  for (let x = first.x; x < last.x; x += STRETCH_MM) {
    const here = seen.filter((s) => s.x >= x && s.x < x + STRETCH_MM);
    if (here.length === 0) continue;
    const look = (here.reduce((sum, s) => sum + (s.m.narrowness ?? 0), 0) / here.length) * (1 + EYE * random.normal());
    if (look > best.look) best = { x: x + STRETCH_MM / 2, look };
  }
  return read(best.x);
}
