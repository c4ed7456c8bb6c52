/**
 * Compares the values entered in a controller with the calculated ones.
 *
 * The changes are compared first. With an old value of 10, a whole change instead of half hardly changes the value. The values are compared
 * for units and misplaced decimal points. Each slip causes one question.
 */
import { MM_PER_INCH } from "../metrology/units";

/** One number of a setting, internal unit. `old` is `null` where it was not known. */
export type EnteredRow = { label: string; old: number | null; workedOut: number; entered: number };

/** A ratio within this share of a slip matches it. */
const NEAR = 0.03;
/** A change is different if it is off by more than this share. */
const DIFFERS = 0.3;

type Slip = { is: (row: EnteredRow) => boolean; all: string; one: (label: string) => string };

const valueTimes = ({ workedOut, entered }: EnteredRow) => (workedOut === 0 ? Number.NaN : entered / workedOut);
/** Entered change divided by the calculated change; NaN if no change was calculated. */
const changeTimes = ({ old, workedOut, entered }: EnteredRow) => {
  const change = workedOut - (old ?? 0);
  return old === null || Math.abs(change) < 1e-9 ? Number.NaN : (entered - old) / change;
};
const isNear = (ratio: number, factor: number) => Math.abs(ratio / factor - 1) < NEAR;

/** The first match counts. */
const SLIPS: readonly Slip[] = [
  {
    is: (row) => isNear(valueTimes(row), MM_PER_INCH),
    all: "The entered values are 25.4 times the calculated ones. Does the controller use inches?",
    one: (label) => `The value for ${label} is 25.4 times the calculated one. Check the unit.`,
  },
  {
    is: (row) => isNear(valueTimes(row), 1 / MM_PER_INCH),
    all: "The entered values are the calculated ones divided by 25.4. Does the controller use mm?",
    one: (label) => `The value for ${label} is the calculated one divided by 25.4. Check the unit.`,
  },
  {
    is: (row) => [1000, 1 / 1000].some((times) => isNear(valueTimes(row), times)),
    all: "The entered values differ from the calculated ones by a factor of 1000. Check the unit.",
    one: (label) => `The value for ${label} differs from the calculated one by a factor of 1000. Check the unit.`,
  },
  {
    is: (row) => [10, 100, 1 / 10, 1 / 100].some((times) => isNear(valueTimes(row), times)),
    all: "The entered values differ from the calculated ones by a factor of 10 or 100. Check the decimal point.",
    one: (label) =>
      `The value for ${label} differs from the calculated one by a factor of 10 or 100. Check the decimal point.`,
  },
  {
    is: ({ old, workedOut, entered }) => !!old && workedOut !== old && isNear(entered / (workedOut - old), 1),
    all: "The entered values are the changes alone. Add them to the old values.",
    one: (label) => `The value for ${label} is the change alone. Add it to the old value.`,
  },
  {
    is: (row) => Math.abs(changeTimes(row)) < NEAR,
    all: "The entered values are the old values. Enter the new ones.",
    one: (label) => `The value for ${label} is the old value. Enter the new one.`,
  },
  {
    is: (row) => isNear(changeTimes(row), 2),
    all: "The entered change is twice the calculated one. Did you enter the whole instead of half?",
    one: (label) => `The change for ${label} is twice the calculated one. Did you enter the whole instead of half?`,
  },
  {
    is: (row) => isNear(changeTimes(row), 1 / 2),
    all: "The entered change is half the calculated one. Did you halve it twice?",
    one: (label) => `The change for ${label} is half the calculated one. Did you halve it twice?`,
  },
  {
    is: (row) => isNear(changeTimes(row), -1) || isNear(changeTimes(row), -2) || isNear(valueTimes(row), -1),
    all: "The entered change has the opposite sign of the calculated one. Check the sign.",
    one: (label) => `The change for ${label} has the opposite sign of the calculated one. Check the sign.`,
  },
  {
    is: (row) => Math.abs(changeTimes(row) - 1) > DIFFERS,
    all: "The entered changes differ from the calculated ones. Check the values.",
    one: (label) => `The change for ${label} differs from the calculated one. Check the value.`,
  },
];

/** A question about the entered values; `null` if they are the calculated ones. */
export function entrySlip(rows: readonly EnteredRow[]): string | null {
  const off = rows.filter((row) => isOff(row));
  if (off.length === 0) return null;
  const telling = rows.filter((row) => row.workedOut !== (row.old ?? Number.NaN));
  for (const { is, all } of SLIPS) {
    const these = telling.filter(is);
    if (these.length > 1 && these.length > telling.length / 2) return all;
  }
  const [first] = off;
  const slip = first && SLIPS.find(({ is }) => is(first));
  return first && slip ? slip.one(first.label) : null;
}

function isOff({ old, workedOut, entered }: EnteredRow): boolean {
  const change = Math.abs(workedOut - (old ?? 0));
  return (
    Math.abs(entered - workedOut) > DIFFERS * Math.min(change || Infinity, Math.abs(workedOut) || Infinity) &&
    entered !== workedOut
  );
}
