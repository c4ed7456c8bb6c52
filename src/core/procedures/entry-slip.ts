/**
 * What was entered into a controller against what was worked out.
 *
 * The change is compared, not the value: with an old value of 10 a whole change in place of a half moves the value by little. Values are
 * compared as well, for units and misplaced decimal points. Each slip is asked about once; the person at the machine decides.
 */
import { MM_PER_INCH } from "../metrology/units";

/** One number of a setting, internal unit. `old` is `null` where it was not known. */
export type EnteredRow = { label: string; old: number | null; workedOut: number; entered: number };

/** How near a ratio must come to a slip, as a share. */
const NEAR = 0.03;
/** A change counts as different where it is off by this share of itself. */
const DIFFERS = 0.3;

type Slip = { is: (row: EnteredRow) => boolean; all: string; one: (label: string) => string };

const valueTimes = ({ workedOut, entered }: EnteredRow) => (workedOut === 0 ? Number.NaN : entered / workedOut);
/** Entered change over the change worked out; not a number where no change was worked out. */
const changeTimes = ({ old, workedOut, entered }: EnteredRow) => {
  const change = workedOut - (old ?? 0);
  return old === null || Math.abs(change) < 1e-9 ? Number.NaN : (entered - old) / change;
};
const isNear = (ratio: number, factor: number) => Math.abs(ratio / factor - 1) < NEAR;

/** In the order in which they are believed. */
const SLIPS: readonly Slip[] = [
  {
    is: (row) => isNear(valueTimes(row), MM_PER_INCH),
    all: "The values entered are 25.4 times those worked out. Does the controller take inches?",
    one: (label) => `The value entered for ${label} is 25.4 times the one worked out. Check its unit.`,
  },
  {
    is: (row) => isNear(valueTimes(row), 1 / MM_PER_INCH),
    all: "The values entered are those worked out divided by 25.4. Were inches entered where the controller takes mm?",
    one: (label) => `The value entered for ${label} is the one worked out divided by 25.4. Check its unit.`,
  },
  {
    is: (row) => [1000, 1 / 1000].some((times) => isNear(valueTimes(row), times)),
    all: "The values entered are 1000 times off those worked out. Check their unit.",
    one: (label) => `The value entered for ${label} is 1000 times off the one worked out. Check its unit.`,
  },
  {
    is: (row) => [10, 100, 1 / 10, 1 / 100].some((times) => isNear(valueTimes(row), times)),
    all: "The values entered are 10 or 100 times off those worked out. Check the decimal point.",
    one: (label) =>
      `The value entered for ${label} is 10 or 100 times off the one worked out. Check the decimal point.`,
  },
  {
    is: ({ old, workedOut, entered }) => !!old && workedOut !== old && isNear(entered / (workedOut - old), 1),
    all: "The values entered are the changes alone. Add them to the old values.",
    one: (label) => `The value entered for ${label} is the change alone. Add it to the old value.`,
  },
  {
    is: (row) => Math.abs(changeTimes(row)) < NEAR,
    all: "The values entered are the old ones. Nothing changes with them.",
    one: (label) => `The value entered for ${label} is the old one. Nothing changes there.`,
  },
  {
    is: (row) => isNear(changeTimes(row), 2),
    all: "The change entered is twice the one worked out. Was the whole entered where a half belongs?",
    one: (label) =>
      `The change entered for ${label} is twice the one worked out. Was the whole entered where a half belongs?`,
  },
  {
    is: (row) => isNear(changeTimes(row), 1 / 2),
    all: "The change entered is half the one worked out. Was it halved twice?",
    one: (label) => `The change entered for ${label} is half the one worked out. Was it halved twice?`,
  },
  {
    is: (row) => isNear(changeTimes(row), -1) || isNear(changeTimes(row), -2) || isNear(valueTimes(row), -1),
    all: "The change entered has the opposite sign of the one worked out.",
    one: (label) => `The change entered for ${label} has the opposite sign of the one worked out.`,
  },
  {
    is: (row) => Math.abs(changeTimes(row) - 1) > DIFFERS,
    all: "The changes entered differ from those worked out.",
    one: (label) => `The change entered for ${label} differs from the one worked out.`,
  },
];

/** A question about what was entered; `null` where it is what was worked out. */
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
