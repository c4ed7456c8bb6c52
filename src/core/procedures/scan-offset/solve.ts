/**
 * Scan offset from readings to table entries.
 *
 *   stagger S at both ends = v (tau_on + tau_off) - B        B: backlash of the drive, fired by motor position
 *   new entry = entry in force + sense * S / 2
 *   the new entries lie on a line, entry in force + S/2 = s0 + v tau, so B = -2 s0; a clearly positive s0 is not backlash.
 *
 * A difference between tau_on and tau_off changes the length of rows, not the stagger: no entry cures it. An outline around each
 * block shows that length, and the shift of scanned rows against drawn lines, which some controllers store as a setting of its own.
 */

import { beyondMachines, type MachineLimit } from "../../measuring/beyond-machines";
import { worthOf } from "../../measuring/number-correction";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed, plain, shownLength, signed } from "../../metrology/quantity-text";
import { fromInternal, UNITS } from "../../metrology/units";
import { entryShape, rangeFault, roundedToStep } from "../../settings/entry-text";
import type { HeldSetting } from "../../settings/setting";
import { withRows } from "../../settings/setting";
import { sitesLeft } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import type { GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, CorrectionRow } from "../../trial/outcome";
import { type Analysis, analyse, isProof, type SpeedResult, staggerUsed, USE } from "./analysis";
import { isAtRows } from "./coupon";
import { estimatesOf, offsetId } from "./estimates";
import { figuresOf } from "./figures";
import { findingsOf } from "./findings";
import { EMPTY_TABLE, entryInForce, holdOf } from "./in-force";
import { SCAN_OFFSET, type ScanOffsetPlan } from "./plan";
import { resultTable } from "./result-table";
import { shiftCorrection } from "./row-shift";

const LIMITS: readonly MachineLimit[] = [
  {
    estimate: "lag",
    low: -0.0015,
    high: 0.0015,
    check: "Check the unit of the speeds, which rows stand out, and the table that was read back.",
  },
];

export function solveScanOffset(history: History<ScanOffsetPlan>): GivenOutcome {
  const round = lastReadRound(history);
  const analysis = round ? analyse(history, round) : null;
  if (!round || !analysis) return nothingYet(history);
  const table = resultTable(round, analysis, lengthUnitOf(history));
  const estimates = estimatesOf(history, round, analysis, isProof(round));
  const findings = [...beyondMachines(estimates, LIMITS), ...findingsOf(history, round, analysis)];
  const inForce = round.inForce[SCAN_OFFSET];
  if (inForce === null && round.plan.way === "closed blocks")
    return {
      status: "unsolvable",
      reason:
        "The table of the controller during the burn is not known. Read the table back and confirm it. The new entries are worked out from the old ones.",
      table,
      findings,
    };
  const correction = correctionOf(history, round, analysis);
  const shift = shiftCorrection(history, round, analysis);
  return {
    status: "solved",
    estimates,
    corrections: [correction, ...(shift ? [shift] : [])],
    findings,
    table,
    figures: figuresOf(history, round, analysis),
    predicted: `Expect the ends of neighbouring rows within ${shownLength(worstExpected(correction), lengthUnitOf(history), 3)} of each other.`,
    learned: analysis.lag ? { "scan lag, s": analysis.lag.quantity.value } : {},
    artefacts: [{ kind: "text", name: "scan-offset-table.csv", mime: "text/csv", text: tableText(correction) }],
  };
}

/** The newest round with a reading of a stagger: its burn had the newest settings in force. */
export function lastReadRound(history: History<ScanOffsetPlan>): RoundRecord<ScanOffsetPlan> | undefined {
  return history.rounds.findLast((r) => r.answers.some((a) => a.content.status === "read" && isAtRows(a.site)));
}

function nothingYet(history: History<ScanOffsetPlan>): GivenOutcome {
  const round = history.rounds.at(-1);
  const left = round ? sitesLeft(round.spec.sites, round.answers).length : 0;
  return {
    status: "open",
    missing: round
      ? `No stagger is read yet. Read ${left} of ${round.spec.sites.length} points.`
      : "Nothing is burned yet.",
    table: null,
    findings: [],
  };
}

function correctionOf(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  analysis: Analysis,
): Correction {
  const held = holdOf(history);
  const rows = analysis.speeds.map((speed) =>
    correctionRow(speed, analysis, entryInForce(history, round, speed.speedMmPerS), held),
  );
  const stored = round.inForce[SCAN_OFFSET];
  const base = stored?.shape === "table" ? stored : EMPTY_TABLE;
  const taken = rows.flatMap((row) =>
    row.heldBack === null && row.at !== null ? [{ at: row.at, value: row.enter }] : [],
  );
  return {
    setting: SCAN_OFFSET,
    label: "Scan offset per direction",
    ...entryShape(held, "mm"),
    rows,
    newValue: withRows(base, taken),
    choice:
      analysis.lineAt && !isProof(round)
        ? {
            decision: USE.key,
            chosen: analysis.use,
            options: [
              { value: "readings", label: "readings" },
              { value: "line", label: "straight line" },
            ],
          }
        : null,
  };
}

function correctionRow(
  speed: SpeedResult,
  analysis: Analysis,
  inForce: number | null,
  held: HeldSetting,
): CorrectionRow {
  const stagger = staggerUsed(analysis, speed).quantity;
  const change: Measured = {
    ...stagger,
    value: (held.sense * stagger.value) / 2,
    standardUncertainty: stagger.standardUncertainty / 2,
  };
  const old = inForce ?? 0;
  const exact = old + change.value;
  const shape = entryShape(held, "mm");
  const { decimals } = shape;
  const enter = roundedToStep(exact, held.step);
  const shown = (mm: number) => fromInternal(mm, held.unit);
  const speedText = plain(speed.speedMmPerS);
  return {
    key: speedText,
    label: `${speedText} mm/s`,
    estimate: offsetId(speed.speedMmPerS),
    at: speed.speedMmPerS,
    old,
    change,
    changeText: `${signed(shown(held.sense * stagger.value), decimals)} ÷ 2`,
    enter,
    rounding: enter - exact,
    arithmetic: [
      `${fixed(shown(old), decimals)} ${held.sense > 0 ? "+" : "−"} ${fixed(shown(stagger.value), decimals)} ÷ 2 = ${fixed(shown(exact), decimals + 1)}`,
      `rounded to ${plain(shown(held.step), decimals)} ${UNITS[held.unit].symbol}: ${fixed(shown(enter), decimals)} (${signed(shown(enter - exact), decimals + 1)})`,
    ],
    worth: worthOf(change, held.step),
    heldBack: whyHeldBack(inForce, rangeFault({ shape: "scalar", value: enter }, held)),
  };
}

function whyHeldBack(inForce: number | null, outside: string | null): CorrectionRow["heldBack"] {
  if (inForce === null)
    return {
      why: "The entry in force at this speed is not known. Enter on the page of the machine what the controller does between entries.",
      site: null,
      accept: null,
    };
  if (outside) return { why: outside, site: null, accept: null };
  return null;
}

function worstExpected(correction: Correction): number {
  return Math.max(...correction.rows.map((row) => 2 * (Math.abs(row.rounding) + expandedUncertainty(row.change))));
}

function tableText(correction: Correction): string {
  if (correction.newValue.shape !== "table") return "";
  const lines = correction.newValue.rows.map(
    (row) => `${plain(row.at)},${fromInternal(row.value, correction.unit).toFixed(correction.decimals)}`,
  );
  return [`speed (mm/s),offset per direction (${UNITS[correction.unit].symbol})`, ...lines, ""].join("\n");
}
