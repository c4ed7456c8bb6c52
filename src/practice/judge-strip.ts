/** A practice technician who reads a strip: start of the good range, best point, end of the good range. */
import type { Measurand } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import { cellLooks, type Surface } from "./cell-look";
import type { Mark } from "./gantry";
import type { Random } from "./random";

/** The eye compares stretches of this length, mm, and sees their quality with this scatter, as a share of the best (SD). */
const EYE = { stretchMm: 4, sd: 0.02 };
/** Good enough from this share of the best on; too much from this share of burning on. */
const LIMITS = { good: 0.5, burnt: 0.35 };

export type StripPlace = { ok: true; value: number } | { ok: false; why: string };

/** @returns mm from the beginning of the strip, without the step of the scale */
export function placeOnStrip(
  { which, within, along, weak }: Extract<Measurand, { kind: "place on strip" }>,
  marks: readonly Mark[],
  corner: Placement,
  surface: Surface,
  random: Random,
): StripPlace {
  const { x0, y0, x1, y1 } = within;
  const length = along === "x" ? x1 - x0 : y1 - y0;
  const count = Math.max(3, Math.round(length / EYE.stretchMm));
  const stretches = Array.from({ length: count }, (_, i) => {
    const [a, b] = [(length * i) / count, (length * (i + 1)) / count];
    return along === "x" ? { x0: x0 + a, x1: x0 + b, y0, y1 } : { x0, x1, y0: y0 + a, y1: y0 + b };
  });
  const looks = cellLooks(stretches, marks, corner, surface).map((look) => ({
    quality: (look?.quality ?? 0) + EYE.sd * random.normal(),
    burnt: look?.burnt ?? 0,
  }));
  const best = looks.reduce((at, look, i) => (look.quality > (looks[at]?.quality ?? 0) ? i : at), 0);
  const most = looks[best]?.quality ?? 0;
  if (most <= 3 * EYE.sd) return { ok: false, why: "The practice piece shows no strip." };
  const middle = (i: number) => ({ ok: true as const, value: (length * (i + 0.5)) / count });
  if (which === "best") return middle(best);
  const fromWeak = weak === "start" ? looks.map((_, i) => i) : looks.map((_, i) => count - 1 - i);
  const isGood = (i: number) => (looks[i]?.quality ?? 0) >= LIMITS.good * most;
  if (which === "start of good") return middle(fromWeak.find(isGood) ?? best);
  const after = fromWeak.slice(fromWeak.indexOf(best) + 1);
  const tooMuch = after.find((i) => !isGood(i) || (looks[i]?.burnt ?? 0) > LIMITS.burnt);
  return tooMuch === undefined ? { ok: false, why: "The good range does not end on this strip." } : middle(tooMuch);
}
