/**
 * What to set at the machine, with every line of the sum.
 *
 * The height itself is set to where the focus was found; a rule that does not begin at its zero adds its allowance to the gap. A stored
 * number by which a sensor or table finds its height by itself goes
 *
 *   new = old + sigma * rho * (z_focus - z_homed)
 *
 * sigma = +1 where a larger stored number makes the gap larger, rho = +1 where a larger reading is further apart: two senses, of two
 * quantities.
 */

import type { MachineSpec } from "../../machine/machine-spec";
import { holdOf, numberIn, numberRow } from "../../measuring/number-correction";
import { freedomOf, type Measured, measured } from "../../metrology/measured";
import { fixed, plain, signed } from "../../metrology/quantity-text";
import { fromInternal, UNITS } from "../../metrology/units";
import { entryShape } from "../../settings/entry-text";
import type { HeldSetting } from "../../settings/setting";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, CorrectionRow, Finding } from "../../trial/outcome";
import { type Found, GO_BY, type Way } from "./found";
import { apartSense, FOCUS_HEIGHT, type FocusPlan, STORED_HEIGHT, settingOf, settingUncertainty } from "./plan";
import { FOCUS_SETTING, STORED_SETTING } from "./setting";

export const FOCUS_ESTIMATE = "focus";
/** Instead of a way: nothing is gone by before the ladder ends in cells that do not mark. */
const BURN_ON = "burn on";

/** @returns none where the stored number that the new one builds on is not known, or what a larger one does */
export function correctionsOf(
  history: History<FocusPlan>,
  found: Found,
  way: Way,
  round: RoundRecord<FocusPlan>,
): Correction[] {
  const row = round.plan.setIn === "stored" ? storedRow(history.machine, way, round) : heightRow(history, way, round);
  if (!row) return [];
  const setting = settingOf(round.plan.setIn);
  const held = holdOf(history.machine, round.plan.setIn === "stored" ? STORED_SETTING : FOCUS_SETTING);
  return [
    {
      setting,
      label: LABELS[round.plan.setIn],
      ...entryShape(held, "mm"),
      rows: [row],
      newValue: { shape: "scalar", value: row.heldBack && row.old !== null ? row.old : row.enter },
      choice: choiceOf(history, found, way),
    },
  ];
}

/** Between the ways that answer; where the ladder ended too early, also between the sharpest cell and going on. */
function choiceOf({ decisions }: History<FocusPlan>, { ways, beyond }: Found, way: Way): Correction["choice"] {
  const options = ways.map((w) => ({ value: w.id, label: w.label.replace("By", "by") }));
  const goesOn = way.id === "sharpest" && beyond !== null;
  if (goesOn) options.unshift({ value: BURN_ON, label: "none yet: burn on until a cell leaves no mark" });
  if (options.length < 2) return null;
  return { decision: GO_BY.key, chosen: goesOn && GO_BY.of(decisions) !== "sharpest" ? BURN_ON : way.id, options };
}

const HEIGHT = { key: "height", label: "Height", estimate: FOCUS_ESTIMATE, moreDecimals: 0 } as const;
const LABELS = { height: "Focus height", stored: "Stored height" } as const;

/** The ladder tells the height itself, so an old one that nobody knows is not missed. */
function heightRow({ machine }: History<FocusPlan>, way: Way, round: RoundRecord<FocusPlan>): CorrectionRow {
  const held = holdOf(machine, FOCUS_SETTING);
  const old = numberIn(round, FOCUS_HEIGHT);
  const { quantity } = way.found;
  const { allowanceMm, readAt } = round.plan;
  const change: Measured = { ...quantity, value: quantity.value - (old ?? 0) };
  const shown = shownBy(held, 1);
  const row = numberRow(held, { ...HEIGHT, old, change, exact: quantity.value });
  const symbol = UNITS[held.unit].symbol;
  return {
    ...row,
    changeText: old === null ? "found anew" : row.changeText,
    arithmetic: [
      `${way.label.toLowerCase()}, mm: ${way.sum}`,
      ...(old === null
        ? []
        : [`${shown(quantity.value)} − ${shown(old)} = ${shown(change.value, true)} ${symbol} from the old height`]),
      ...row.arithmetic,
      ...(readAt === "rule" && allowanceMm > 0
        ? [
            `with what the rule leaves out, the gap is ${shown(row.enter)} + ${shown(allowanceMm)} = ${shown(row.enter + allowanceMm)} ${symbol}`,
          ]
        : []),
    ],
  };
}

function storedRow(machine: MachineSpec, way: Way, round: RoundRecord<FocusPlan>): CorrectionRow | null {
  const held = holdOf(machine, STORED_SETTING);
  const { plan } = round;
  const old = numberIn(round, STORED_HEIGHT);
  const sense = old === null ? null : storedSense(plan, old);
  if (old === null || sense === null || plan.homedMm === undefined) return null;
  const { quantity } = way.found;
  const away = quantity.value - plan.homedMm;
  const turned = sense * apartSense(plan);
  const homing = settingUncertainty(plan);
  const change = measured(turned * away, Math.hypot(quantity.standardUncertainty, homing), freedomOf(quantity));
  const shown = shownBy(held, 1);
  const symbol = UNITS[held.unit].symbol;
  const row = numberRow(held, { ...HEIGHT, old, change, exact: old + change.value });
  const senseText = `a larger number makes the gap ${sense > 0 ? "larger" : "smaller"}`;
  const readText = `a larger reading is ${apartSense(plan) > 0 ? "further apart" : "closer"}`;
  return {
    ...row,
    arithmetic: [
      `${way.label.toLowerCase()}, mm: ${way.sum}`,
      `${shown(quantity.value)} − ${shown(plan.homedMm)} = ${shown(away, true)} ${symbol} from where it comes by itself`,
      ...(plan.sense === "not known" ? [learnedLine(plan, old, shown)] : []),
      `${senseText}, ${readText}: the number changes by ${shown(change.value, true)} ${symbol}`,
      `${shown(old)} ${change.value < 0 ? "−" : "+"} ${shown(Math.abs(change.value))} = ${shown(old + change.value)}`,
      ...row.arithmetic,
    ],
  };
}

/** +1 where a larger stored number makes the gap larger; `null` where the change that was tried does not tell. */
export function storedSense(plan: FocusPlan, old: number): 1 | -1 | null {
  if (plan.sense === "larger") return 1;
  if (plan.sense === "smaller") return -1;
  const tried = learnedShare(plan, old);
  return tried === null ? null : tried > 0 ? 1 : -1;
}

/** By how much the gap grew for each mm of the number; `null` without a change of it. */
export function learnedShare(plan: FocusPlan, old: number): number | null {
  const { triedNumberMm, triedHomedMm, homedMm } = plan;
  if (triedNumberMm === undefined || triedHomedMm === undefined || homedMm === undefined) return null;
  const [number, gap] = [triedNumberMm - old, apartSense(plan) * (triedHomedMm - homedMm)];
  return number === 0 || gap === 0 ? null : gap / number;
}

function learnedLine(plan: FocusPlan, old: number, shown: ReturnType<typeof shownBy>): string {
  const { triedNumberMm = old, triedHomedMm = 0, homedMm = 0 } = plan;
  return `tried: ${shown(old)} to ${shown(triedNumberMm)} led from ${shown(homedMm)} to ${shown(triedHomedMm)}`;
}

/** In the unit of a setting with `more` digits than it takes. */
function shownBy(held: HeldSetting, more: number) {
  const { decimals } = entryShape(held, "mm");
  return (mm: number, withSign = false) => (withSign ? signed : fixed)(fromInternal(mm, held.unit), decimals + more);
}

/** A stored number counts in its own unit, unless the height follows it by more or less than this. */
const FOLLOWS = { low: 0.6, high: 1.6 };

/** What keeps a stored number from being worked out, or makes it uncertain. */
export function storedFindings(round: RoundRecord<FocusPlan>): Finding[] {
  return storedNumber(round.plan, numberIn(round, STORED_HEIGHT));
}

/** The new number builds on the old one and on what a larger one does. */
function storedNumber(plan: FocusPlan, old: number | null): Finding[] {
  if (plan.setIn !== "stored") return [];
  const says = (id: string, headline: string, text: string): Finding[] => [
    { id, tone: "needs you", site: null, headline, text },
  ];
  if (old === null)
    return says(
      "stored number not known",
      "The stored number is not read back yet.",
      "The new number is the old one and a change: read it back at the machine and confirm it above.",
    );
  if (plan.sense !== "not known") return [];
  const share = learnedShare(plan, old);
  if (share === null)
    return says(
      "sense not known",
      "What a larger number does is not known.",
      "The number that was tried is the one that it holds, or the height did not follow. Try another one, and lay out again.",
    );
  if (Math.abs(share) >= FOLLOWS.low && Math.abs(share) <= FOLLOWS.high) return [];
  return says(
    "number in another unit",
    `The height followed the number by ${plain(Math.abs(share), 2)} times its change.`,
    "One to one was expected. Is the number in another unit, or was one of the four read wrong? The new number below takes it to be one to one.",
  );
}
