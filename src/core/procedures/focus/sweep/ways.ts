/**
 * The answers of a sweep, from its passes as adjusted.
 *
 *   rising pass:  y = z_rising + scatter        falling pass:  y = z_falling + scatter
 *
 * What rising and falling passes differ by is the play of the screw, and how late a person notes the number.
 */
import { type Adjustment, combine } from "../../../estimate/adjustment";
import type { Row } from "../../../estimate/model";
import { mean } from "../../../fitting/repeats";
import { type Budgeted, joined } from "../../../metrology/budget";
import { plain } from "../../../metrology/quantity-text";
import { SETTING, type Way } from "../found";
import { FALLING_SITE, RISING_SITE } from "./coupon";

export type Passes = {
  rising: readonly number[];
  falling: readonly number[];
  adjustment: Adjustment;
};

export const EITHER = "either";

/** What each answer is made of, with the setting of the height. */
export const ANSWER_ROWS: Readonly<Record<string, Row>> = {
  [RISING_SITE]: { [RISING_SITE]: 1, [SETTING]: 1 },
  [FALLING_SITE]: { [FALLING_SITE]: 1, [SETTING]: 1 },
  [EITHER]: { [RISING_SITE]: 0.5, [FALLING_SITE]: 0.5, [SETTING]: 1 },
};

/** Coming from one side the screw always lies on the same flank: its number is that side's own. */
export function waysOf({ rising, falling, adjustment }: Passes): Way[] {
  const oneSide = (id: string, label: string, of: readonly number[]): Way[] =>
    of.length === 0 ? [] : [{ id, label, helps: null, sum: sumOf(of), found: combine(adjustment, rowOf(id)) }];
  const ways = [
    ...oneSide(RISING_SITE, "By rising passes, coming from below", rising),
    ...oneSide(FALLING_SITE, "By falling passes, coming from above", falling),
  ];
  const play = playOf({ rising, falling, adjustment });
  if (!play) return ways;
  const middle = combine(adjustment, rowOf(EITHER));
  ways.push({
    id: EITHER,
    label: "By the middle of both",
    helps: null,
    sum: `(${plain(mean(rising), 2)} + ${plain(mean(falling), 2)}) ÷ 2 = ${plain(middle.quantity.value, 3)}`,
    found: joined(middle.quantity.value, [
      ...middle.parts,
      {
        id: "backlash",
        label: "From which side it is set",
        kind: "B",
        degreesOfFreedom: "infinite",
        standardUncertainty: Math.abs(play.quantity.value) / 2 / Math.sqrt(3),
      },
    ]),
  });
  return ways;
}

/** Rising minus falling; `null` where passes go one way only. */
export function playOf({ rising, falling, adjustment }: Passes): Budgeted | null {
  if (rising.length === 0 || falling.length === 0) return null;
  return combine(adjustment, { [RISING_SITE]: 1, [FALLING_SITE]: -1 });
}

function rowOf(id: string): Row {
  return ANSWER_ROWS[id] ?? {};
}

function sumOf(of: readonly number[]): string {
  return `mean of ${of.map((v) => plain(v, 2)).join(", ")}: ${plain(mean(of), 3)}`;
}
