/**
 * The shift of scanned rows against drawn lines, as its controller stores it: one value, or one for each speed.
 *
 *   new value = value in force - sense * C            C: shift toward +X; sense +1 if a larger value moves rows to the right
 *
 * A shift moves all rows of a block alike. It is neither the stagger, which moves the rows of each direction apart, nor a difference
 * of the lags, which changes their length.
 */
import { adjust, combine } from "../../estimate/adjustment";
import { ofReadings } from "../../estimate/model";
import { holdOf, numberRow } from "../../measuring/number-correction";
import { becameFindings } from "../../measuring/what-became";
import type { Budgeted } from "../../metrology/budget";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed, plain, shownLength } from "../../metrology/quantity-text";
import { fromInternal } from "../../metrology/units";
import { entryShape } from "../../settings/entry-text";
import { slopeOfNewest } from "../../settings/learned-sense";
import type { HeldSetting } from "../../settings/setting";
import { type SettingTable, tableValueAt, withRows } from "../../settings/setting";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, CorrectionRow, Finding } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import type { Analysis } from "./analysis";
import { observeOneByOne, speedsRead } from "./observe";
import { shiftPlaces, shiftRow } from "./observe-gaps";
import type { ScanOffsetPlan } from "./plan";
import { heldShift, ROW_SHIFT, ROW_SHIFT_BY_SPEED, SCAN_SETTINGS } from "./setting";

type Round = RoundRecord<ScanOffsetPlan>;
type Shift = Analysis["shifts"][number];

/** Two burns show the sense if the shift changed by more than this many standard uncertainties. */
const TELLS_SENSE = 3;

/** The corrected setting; `null` where the machine stores none, or what was in force is not known. */
export function shiftCorrection(
  history: History<ScanOffsetPlan>,
  round: Round,
  { shifts }: Analysis,
): Correction | null {
  const is = heldShift(round.plan, history.machine);
  if (is === null || shifts.length === 0) return null;
  const held = shiftHold(history, is);
  const rows = shifts.flatMap((shift) => rowOf(shift, storedAt(round, held, shift.place.at), held));
  const stored = round.inForce[keyOf(is)];
  if (rows.length < shifts.length || !stored) return null;
  const spec = specOf(is);
  return {
    setting: spec.key,
    label: spec.label,
    ...entryShape(held, spec.unit),
    choice: null,
    rows,
    newValue: stored.shape === "table" ? withEntries(stored, rows) : scalarOf(rows, stored),
  };
}

/** What is not corrected, and why. */
export function shiftFindings(history: History<ScanOffsetPlan>, round: Round, analysis: Analysis): Finding[] {
  const is = heldShift(round.plan, history.machine);
  const largest = largestOf(analysis.shifts);
  if (!largest) return [];
  const unit = lengthUnitOf(history);
  const size = shownLength(Math.abs(largest.shift.quantity.value), unit, 3);
  const isClear = Math.abs(largest.shift.quantity.value) > expandedUncertainty(largest.shift.quantity);
  if (is === null && isClear && round.plan.way === "closed blocks")
    return [
      note(
        "row shift",
        `Scanned rows are ${size} too far to the ${sideOf(largest.shift)} of drawn lines.`,
        `The page of ${history.machine.name} names no setting for this shift. Enter there how the controller stores it, or move fills against their outlines in each drawing.`,
      ),
    ];
  if (is !== null && shiftCorrection(history, round, analysis) === null)
    return [
      {
        ...note(
          "row shift not read back",
          "The stored shift of scanned rows is not known.",
          "Read the value back at the controller and confirm it above. The new value builds on the old one.",
        ),
        tone: "needs you",
      },
    ];
  if (is === "one") return unequal(history, analysis);
  return [];
}

/** Rows are longer or shorter than drawn because the two lags differ: neither offset nor shift changes that. */
export function lengthFindings(history: History<ScanOffsetPlan>, { lagDifference, speeds }: Analysis): Finding[] {
  const fastest = speeds.at(-1);
  if (!lagDifference || !fastest) return [];
  const { value } = lagDifference.quantity;
  const atFastest = Math.abs(value) * fastest.speedMmPerS;
  if (Math.abs(value) < expandedUncertainty(lagDifference.quantity) || atFastest < history.tolerance) return [];
  const unit = lengthUnitOf(history);
  return [
    note(
      "row length",
      `At ${plain(fastest.speedMmPerS)} mm/s, rows are ${shownLength(atFastest, unit, 3)} ${value > 0 ? "longer" : "shorter"} than drawn.`,
      `The beam goes off ${plain(Math.abs(value) * 1e6, 0)} µs ${value > 0 ? "later" : "earlier"} than it comes on. No scan offset and no shift corrects the length. A controller with separate delays for on and off can.`,
    ),
  ];
}

/** Lines of a proof: each shift that was to be corrected. */
export function shiftLines(
  history: History<ScanOffsetPlan>,
  proof: Round,
  before: Analysis | null,
  after: Analysis,
): Omit<Verdict["lines"][number], "result">[] {
  if (heldShift(proof.plan, history.machine) === null) return [];
  return after.shifts.map(({ place, shift }) => ({
    label: place.label,
    before: before?.shifts.find((s) => s.place.id === place.id)?.shift.quantity ?? null,
    after: shift.quantity,
  }));
}

/** What became of the shifts, once for all of them. */
export function shiftCauses(lines: readonly Pick<Verdict["lines"][number], "before" | "after">[]): Finding[] {
  const all = lines.flatMap(({ before, after }) =>
    becameFindings(before, after, SHIFT_WORDS, (became) => `shift ${became}`),
  );
  return all.filter((f, i) => all.findIndex((other) => other.id === f.id) === i);
}

const SHIFT_WORDS = {
  unchanged: {
    headline: "The shift of scanned rows is the same as before.",
    text: "Check that the new value is in the controller and that the controller uses it for scanned rows.",
  },
  doubled: {
    headline: "The shift of scanned rows has doubled.",
    text: "A larger value has the other effect than assumed. Enter the values from Correct, and enter the effect on the page of the machine.",
  },
};

/** One value is stored, and the speeds need different ones. */
function unequal(history: History<ScanOffsetPlan>, { shiftSpread }: Analysis): Finding[] {
  if (shiftSpread === null || shiftSpread.value - expandedUncertainty(shiftSpread) < history.tolerance) return [];
  const spread = shownLength(shiftSpread.value, lengthUnitOf(history), 3);
  return [
    note(
      "unequal shift",
      `The shift of scanned rows differs by ${spread} between speeds.`,
      "The controller stores one value for all speeds. Use it for the speed that needs it most, or outline and fill at one speed.",
    ),
  ];
}

function note(id: string, headline: string, text: string): Finding {
  return { id, tone: "note", headline, text, site: null };
}

function largestOf(shifts: readonly Shift[]): Shift | undefined {
  const size = ({ shift }: Shift) => Math.abs(shift.quantity.value);
  return [...shifts].sort((a, b) => size(b) - size(a))[0];
}

function sideOf({ quantity }: Budgeted): "left" | "right" {
  return quantity.value > 0 ? "right" : "left";
}

function keyOf(is: "one" | "by speed"): string {
  return is === "one" ? ROW_SHIFT : ROW_SHIFT_BY_SPEED;
}

function specOf(is: "one" | "by speed") {
  return SCAN_SETTINGS.find((s) => s.key === keyOf(is)) as (typeof SCAN_SETTINGS)[number];
}

/** How the controller takes the shift. A sense that is not known comes from two burns, and before them it is the assumed one. */
function shiftHold(history: History<ScanOffsetPlan>, is: "one" | "by speed"): HeldSetting {
  const held = holdOf(history.machine, specOf(is));
  return held.senseAssumed ? { ...held, sense: learnedSense(history, held, is) ?? held.sense } : held;
}

function learnedSense(history: History<ScanOffsetPlan>, held: HeldSetting, is: "one" | "by speed"): 1 | -1 | null {
  const burns = history.rounds.flatMap((round) => {
    const model = observeOneByOne({ ...history, rounds: [round] }, round);
    const adjustment = model && adjust(ofReadings(model));
    if (!adjustment) return [];
    return shiftPlaces(speedsRead(history, round), is).flatMap((place) => {
      const value = storedAt(round, held, place.at);
      if (value === null || !Object.keys(shiftRow(place)).every((id) => adjustment.parameters.includes(id))) return [];
      const { value: result, standardUncertainty: u } = combine(adjustment, shiftRow(place)).quantity;
      return [{ at: place.id, value, result, u }];
    });
  });
  const slopes = [...new Set(burns.map((b) => b.at))].flatMap((at) => {
    const slope = slopeOfNewest(
      burns.filter((b) => b.at === at),
      TELLS_SENSE,
    );
    return slope === null ? [] : [slope];
  });
  const [steepest] = slopes.sort((a, b) => Math.abs(b) - Math.abs(a));
  if (steepest === undefined) return null;
  return steepest > 0 ? 1 : -1;
}

/** What was in force at a speed, mm; `null` where it is not known. */
function storedAt({ inForce }: Round, { tableKind }: HeldSetting, speedMmPerS: number | null): number | null {
  const stored = speedMmPerS === null ? inForce[ROW_SHIFT] : inForce[ROW_SHIFT_BY_SPEED];
  if (stored?.shape === "scalar") return stored.value;
  return stored?.shape === "table" && speedMmPerS !== null ? tableValueAt(stored, speedMmPerS, tableKind) : null;
}

function rowOf({ place, shift }: Shift, old: number | null, held: HeldSetting): CorrectionRow[] {
  if (old === null) return [];
  const change: Measured = { ...shift.quantity, value: -held.sense * shift.quantity.value };
  const { decimals } = entryShape(held, "mm");
  const shown = (mm: number) => fixed(fromInternal(mm, held.unit), decimals + 1);
  const numbers = { estimate: place.id, old, change };
  const row = numberRow(held, {
    ...numbers,
    key: place.at === null ? ROW_SHIFT : plain(place.at),
    label: place.at === null ? place.label : `${plain(place.at)} mm/s`,
    exact: old + change.value,
    moreDecimals: 1,
  });
  const sum = `${shown(old)} ${held.sense > 0 ? "−" : "+"} (${shown(shift.quantity.value)}) = ${shown(old + change.value)}`;
  return [{ ...row, at: place.at, arithmetic: [sum, ...row.arithmetic] }];
}

function withEntries(stored: SettingTable, rows: readonly CorrectionRow[]): SettingTable {
  return withRows(
    stored,
    rows.flatMap((r) => (r.heldBack === null && r.at !== null ? [{ at: r.at, value: r.enter }] : [])),
  );
}

function scalarOf([row]: readonly CorrectionRow[], stored: Correction["newValue"]): Correction["newValue"] {
  return row && row.heldBack === null ? { shape: "scalar", value: row.enter } : stored;
}
