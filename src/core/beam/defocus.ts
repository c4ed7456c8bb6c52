/** Work out of focus: at which heights a line becomes as wide as is wished, and what its middle gets there. */

import { expandedUncertainty, freedomOf, measured } from "../metrology/measured";
import { plain, shownNumber } from "../metrology/quantity-text";
import { parseReading } from "../metrology/reading-text";
import { typed } from "../trial/decision";
import { lengthUnitOf } from "../trial/decisions";
import type { History } from "../trial/history";
import type { Wish } from "../trial/outcome";
import type { Doses } from "./doses";
import { type DosePower, dosePower, markWidth, type Spot, vanishesAside, widestAside } from "./mark-width-law";
import type { WidthFit } from "./width-fit";

export const WIDTH_WISH = typed("wished width");
const HALVINGS = 60;

export type Defocus =
  | {
      status: "solved";
      /** Either way from focus, mm. */
      asideMm: number;
      /** What the middle of the line gets, of what it gets in focus. */
      energyShare: number;
    }
  | { status: "too narrow" | "too wide"; limitMm: number };

/**
 * How far from focus a line is `widthMm` wide, on the side of focus on which it still grows.
 *
 * Where the widest line is in focus it is the way out that is taken: there it only fades.
 */
export function defocusFor(widthMm: number, spot: Spot, p: DosePower): Defocus {
  const widest = widestAside(spot, p);
  const width = (aside: number) => markWidth(spot.z0 + aside, spot, p);
  const [from, to] = widest > 0 ? [0, widest] : [vanishesAside(spot, p), 0];
  if (widthMm > width(widest)) return { status: "too wide", limitMm: width(widest) };
  if (widthMm < width(from)) return { status: "too narrow", limitMm: width(from) };
  let [narrow, wide] = [from, to];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (narrow + wide) / 2;
    if (width(middle) < widthMm) narrow = middle;
    else wide = middle;
  }
  const asideMm = (narrow + wide) / 2;
  return { status: "solved", asideMm, energyShare: (1 + (asideMm / spot.zR) ** 2) ** (-p / 2) };
}

/** Only where the spot is known: its size and depth carry the answer. */
export function defocusWish(fit: WidthFit | null, plan: { doses: Doses }, history: History): Wish[] {
  if (fit?.status !== "solved" || !fit.known) return [];
  const unit = lengthUnitOf(history);
  const text = WIDTH_WISH.of(history.decisions);
  const base = {
    id: WIDTH_WISH.key,
    title: "Work out of focus",
    checks: [],
    files: [],
    fields: [{ decision: WIDTH_WISH.key, label: "Wanted width of a line", text }],
    why: "Height for wide lines and even areas, at the same speed and power.",
  };
  if (text.trim() === "") return [{ ...base, lines: [], fault: null }];
  const read = parseReading(text, "length", unit);
  if (!read.ok) return [{ ...base, lines: [], fault: read.message }];
  const found = defocusFor(read.value, fit.spot, dosePower(plan));
  const mm = (value: number, digits: number) => shownNumber(value, unit, digits);
  if (found.status !== "solved")
    return [
      {
        ...base,
        lines: [],
        fault:
          found.status === "too wide"
            ? `Lines are at most ${mm(found.limitMm, 3)} ${unit} wide at this speed and power. Use a slower speed or more power, and burn the ladder again.`
            : `A line is ${mm(found.limitMm, 3)} ${unit} wide in focus, and wider out of focus. Use less power for a thinner line.`,
      },
    ];
  const { zR } = fit.known;
  const relative = zR.standardUncertainty / zR.value;
  const uncertainty = expandedUncertainty(
    measured(0, Math.hypot(fit.z0.standardUncertainty, found.asideMm * relative), freedomOf(fit.z0)),
  );
  const [up, down] = [fit.spot.z0 + found.asideMm, fit.spot.z0 - found.asideMm];
  return [
    {
      ...base,
      fault: null,
      lines: [
        `${mm(fit.spot.z0, 2)} + ${mm(found.asideMm, 2)} = ${mm(up, 2)} ${unit}, or ${mm(fit.spot.z0, 2)} − ${mm(found.asideMm, 2)} = ${mm(down, 2)} ${unit}, each ± ${mm(uncertainty, 2)} ${unit}`,
        `The middle of the line gets ${plain(100 * found.energyShare, 0)} % of the energy in focus.`,
      ],
    },
  ];
}
