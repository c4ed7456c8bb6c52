/** What the readings show beside the numbers, in plain words, with what to do. */
import { plain, shownLength } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import { type Analysis, isSignificant } from "./analysis";
import { holdOf, learnedSense } from "./in-force";
import { SCAN_OFFSET, type ScanOffsetPlan } from "./plan";
import { lengthFindings, shiftFindings } from "./row-shift";

export function findingsOf(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  analysis: Analysis,
): Finding[] {
  const unit = lengthUnitOf(history);
  return [
    ...endsDisagree(analysis, unit),
    ...constantPart(analysis, unit),
    ...shiftFindings(history, round, analysis),
    ...lengthFindings(history, analysis),
    ...lackOfFit(analysis),
    ...speedsWithoutEntry(history, analysis),
    ...entriesKept(round, analysis),
    ...tableDidNotAct(history, round),
    ...senseNotKnown(history),
  ];
}

function endsDisagree(analysis: Analysis, unit: LengthUnit): Finding[] {
  const d = analysis.endDifference;
  if (!d) return [];
  if (!isSignificant(d))
    return [
      {
        id: "ends agree",
        tone: "good",
        headline: "Both ends agree.",
        text: "Rows to the right and to the left have the same length. One value per speed is enough.",
        site: null,
      },
    ];
  const longer = d.value > 0 ? "longer" : "shorter";
  return [
    {
      id: "ends disagree",
      tone: "needs you",
      headline: `Rows to the right are ${shownLength(Math.abs(d.value), unit, 3)} ${longer} than rows to the left.`,
      text: "A scan offset does not correct this. Use a longer run-up, tighten the belt, and read both ends again.",
      site: null,
    },
  ];
}

function constantPart(analysis: Analysis, unit: LengthUnit): Finding[] {
  const s0 = analysis.constant?.quantity;
  if (!s0 || analysis.speeds.length < 3 || !isSignificant(s0)) return [];
  if (s0.value < 0)
    return [
      {
        id: "backlash",
        tone: "note",
        headline: `Backlash of the drive: about ${shownLength(-s0.value, unit, 3)}.`,
        text: "Backlash shifts all speeds by the same distance. The entries include it. If it grows, check belt and pulleys.",
        site: null,
      },
    ];
  return [
    {
      id: "constant part",
      tone: "needs you",
      headline: `A stagger of ${shownLength(s0.value, unit, 3)} remains even at zero speed.`,
      text: "Backlash has the other sign. Check the switch-off of the laser, which edges you measured, and whether a second location stores an offset.",
      site: null,
    },
  ];
}

function lackOfFit(analysis: Analysis): Finding[] {
  if (!analysis.lineAt || analysis.lineFits) return [];
  return [
    {
      id: "no line",
      tone: "note",
      headline: "The readings are not on a straight line.",
      text: "The differences are larger than the uncertainty. Each entry uses the reading at its speed. This is usual for many drives.",
      site: null,
    },
  ];
}

function speedsWithoutEntry(history: History<ScanOffsetPlan>, analysis: Analysis): Finding[] {
  const { machine } = history;
  if (machine.held[SCAN_OFFSET]?.tableKind !== "exact speed only") return [];
  const bare = machine.workingSpeedsMmPerS.filter((v) => !analysis.speeds.some((s) => s.speedMmPerS === v));
  if (bare.length === 0) return [];
  const byLine = analysis.lineAt
    ? ` From the line: ${bare.map((v) => `${plain(v)} mm/s ${shownLength(entryByLine(history, analysis, v), "mm", 3)}`).join(", ")}.`
    : "";
  return [
    {
      id: "exact speeds",
      tone: "note",
      headline: "The controller uses exact speeds only.",
      text: `The working speeds ${bare.map((v) => plain(v)).join(", ")} mm/s have no entry. Burn these speeds too.${byLine}`,
      site: null,
    },
  ];
}

/** What the line says the table should hold at a speed, mm. */
function entryByLine(history: History<ScanOffsetPlan>, analysis: Analysis, v: number): number {
  const left = analysis.lineAt?.(v).quantity.value ?? 0;
  return (holdOf(history).sense * (left + analysis.compensated(v))) / 2;
}

function entriesKept(round: RoundRecord<ScanOffsetPlan>, analysis: Analysis): Finding[] {
  const table = round.inForce[SCAN_OFFSET];
  if (table?.shape !== "table") return [];
  const kept = table.rows.filter((row) => !analysis.speeds.some((s) => s.speedMmPerS === row.at));
  if (kept.length === 0) return [];
  return [
    {
      id: "kept",
      tone: "note",
      headline: `${kept.length === 1 ? "One entry" : `${kept.length} entries`} of the table ${kept.length === 1 ? "was" : "were"} not burned and ${kept.length === 1 ? "stays" : "stay"} as found.`,
      text: `${kept.map((row) => `${plain(row.at)} mm/s ${shownLength(row.value, "mm", 3)}`).join(", ")}. Old and new entries may not agree. Burn these speeds too.`,
      site: null,
    },
  ];
}

function tableDidNotAct(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>): Finding[] {
  if (round.plan.way !== "bare strokes" || !history.machine.scansBlocks) return [];
  return [
    {
      id: "did not act",
      tone: "note",
      headline: "The table did not act on these rows.",
      text: "The controller does not compensate single strokes. The proof is burned as closed blocks, as in daily work.",
      site: null,
    },
  ];
}

const SENSE = {
  assumed: {
    earlier: "Assumed: a larger entry marks earlier.",
    later: "Assumed: a larger entry marks later.",
  },
  learned: {
    earlier: "Two burns show that a larger entry marks earlier.",
    later: "Two burns show that a larger entry marks later.",
  },
};

function senseNotKnown(history: History<ScanOffsetPlan>): Finding[] {
  const held = history.machine.held[SCAN_OFFSET];
  if (!held?.senseAssumed) return [];
  const learned = learnedSense(history);
  if (learned === null)
    return [
      {
        id: "sense assumed",
        tone: "note",
        site: null,
        headline: SENSE.assumed[held.sense > 0 ? "earlier" : "later"],
        text: "Enter the new entries and burn the proof. If the stagger doubles, the next correction has the opposite sign.",
      },
    ];
  return [
    {
      id: "sense learned",
      tone: "note",
      site: null,
      headline: SENSE.learned[learned > 0 ? "earlier" : "later"],
      text:
        learned === held.sense
          ? `Enter this on the page of ${history.machine.name}.`
          : `The new entries have the opposite sign of the old ones. Enter this on the page of ${history.machine.name}.`,
    },
  ];
}
