/**
 * The one number that makes up for the drive, from how much farther the surface goes than it should.
 *
 *   steps new = steps / ratio,   roller diameter new = diameter ratio
 *
 * Only their quotient matters. Off by more than 5 % the steps are wrong, by less the diameter is (common practice, no source). In a chuck the
 * diameter is that of the part: it is measured, never tuned.
 */

import { holdOf, numberCorrection, numberIn } from "../../measuring/number-correction";
import { countText } from "../../metrology/count-text";
import { expandedUncertainty, freedomOf, measured } from "../../metrology/measured";
import { fixed, plain, shownLength, signed } from "../../metrology/quantity-text";
import { fromInternal, UNITS } from "../../metrology/units";
import { entryShape } from "../../settings/entry-text";
import { yesOrNo } from "../../trial/decision";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, CorrectionRow } from "../../trial/outcome";
import { HELD, type RotaryPlan, sentMm } from "./plan";
import type { TravelRead } from "./read-travel";
import { ROLLER_DIAMETER, ROTARY_SETTINGS, ROTARY_STEPS } from "./setting";

export const ESTIMATE = "travel";
/** Enters a value that is many times another. */
export const ACCEPT = yesOrNo("accept:travel");
/** Beyond this the steps are taken to be wrong, below it the roller. (common practice, no source) */
const STEPS_BEYOND = 0.05;
/** A drive that is off by more than this many times is asked about: a wild first value is a usual thing, but so is a slip. */
const ASKED_BEYOND = 12;
const RATIO_DECIMALS = 5;

export type Chosen = { setting: string; why: string };

/** Which settings a burn with this plan is to correct. */
export function settingsOf({ drive, holds }: Pick<RotaryPlan, "drive" | "holds">): string[] {
  if (drive === "chuck" || holds === "steps") return [ROTARY_STEPS];
  return holds === "diameter" ? [ROLLER_DIAMETER] : [ROTARY_STEPS, ROLLER_DIAMETER];
}

/** Which of them is corrected, and why; `null` while none is read back. */
export function chosenFor(round: RoundRecord<RotaryPlan>, { ratio }: TravelRead): Chosen | null {
  const known = settingsOf(round.plan).filter((key) => numberIn(round, key));
  const [first] = known;
  if (!first) return null;
  if (round.plan.drive === "chuck")
    return { setting: first, why: "in a chuck the steps are corrected: the part's diameter is measured, never tuned" };
  if (known.length < 2)
    return {
      setting: first,
      why: `${HELD[first === ROTARY_STEPS ? "steps" : "diameter"].toLowerCase()}: it is what is known of the two`,
    };
  const off = Math.abs(ratio.quantity.value - 1);
  const percent = `${plain(100 * off, 1)} %`;
  return off > STEPS_BEYOND
    ? { setting: ROTARY_STEPS, why: `off by ${percent}: no roller is measured so badly, the steps are wrong` }
    : {
        setting: ROLLER_DIAMETER,
        why: `off by ${percent}: steps come in round numbers, so it is the roller under its load`,
      };
}

/** @returns `null` while no number in force is read back */
export function travelCorrection(
  history: History<RotaryPlan>,
  round: RoundRecord<RotaryPlan>,
  read: TravelRead,
): Correction | null {
  const chosen = chosenFor(round, read);
  const spec = ROTARY_SETTINGS.find((s) => s.key === chosen?.setting);
  const old = spec ? numberIn(round, spec.key) : null;
  if (!chosen || !spec || !old) return null;
  const { quantity: ratio } = read.ratio;
  const isSteps = spec.key === ROTARY_STEPS;
  const exact = isSteps ? old / ratio.value : old * ratio.value;
  const change = measured(exact - old, (exact * ratio.standardUncertainty) / ratio.value, freedomOf(ratio));
  const held = holdOf(history.machine, spec);
  const { decimals } = entryShape(held, spec.unit);
  const shown = (value: number) => fixed(fromInternal(value, held.unit), decimals + 1);
  const inShown = (mm: number) => shownLength(mm, lengthUnitOf(history), 3);
  const over = sentMm(round.plan);
  return numberCorrection(history.machine, {
    spec,
    estimate: ESTIMATE,
    old,
    change,
    arithmetic: [
      ...travelLines(round.plan, read, inShown),
      chosen.why,
      `${shown(old)} ${isSteps ? "÷" : "×"} ${fixed(ratio.value, RATIO_DECIMALS)} = ${shown(exact)} ${UNITS[held.unit].symbol}`,
    ],
    leaves: (rounding) => {
      const share = ((isSteps ? 1 : -1) * rounding) / exact;
      return `rounding leaves ${signed(100 * share, 4)} %, ${share < 0 ? "−" : ""}${inShown(Math.abs(share) * over)} over ${inShown(over)}`;
    },
    heldBack: whyHeldBack(history, ratio),
  });
}

/** How far it went, how far it was to go, and the quotient. */
function travelLines(
  plan: RotaryPlan,
  { read, travelled, due, sent, around, ratio, marked, resting }: TravelRead,
  shown: (mm: number) => string,
): string[] {
  const lines: string[] = [];
  const turns = read.turns ?? 0;
  if (around !== null) lines.push(`around where it is marked: ${shown(around)}`);
  if (plan.way === "wrap") {
    const gap = around === null ? 0 : around * (1 + turns) - travelled;
    const word = gap < 0 ? "past its beginning" : "short of its beginning";
    lines.push(
      read.gap === undefined
        ? "lines lie on each other: no gap"
        : `${shown(Math.abs(read.gap))} between edges and a line of ${shown(read.width ?? 0)}: ${shown(Math.abs(gap))} ${word}`,
    );
  }
  if (turns > 0) lines.push(`and ${countText(turns, "whole turn")} too many`);
  lines.push(`travelled ${shown(travelled)}, sent ${shown(sent)}`);
  if (marked && resting)
    lines.push(
      `marked Ø ${shown(marked.quantity.value)}, resting on Ø ${shown(resting.quantity.value)}: due ${shown(due)}`,
    );
  else if (plan.drive === "chuck")
    lines.push(`told Ø ${shown(plan.diameterMm)}, measured Ø ${shown(marked?.quantity.value ?? 0)}: due ${shown(due)}`);
  return [...lines, `travelled ÷ due = ${fixed(ratio.quantity.value, RATIO_DECIMALS)}`];
}

function whyHeldBack(
  { decisions }: History<RotaryPlan>,
  ratio: TravelRead["ratio"]["quantity"],
): CorrectionRow["heldBack"] {
  const times = Math.max(ratio.value, 1 / ratio.value);
  if (times - (expandedUncertainty(ratio) * times) / ratio.value <= ASKED_BEYOND || ACCEPT.of(decisions)) return null;
  return {
    why: `The setting would change ${plain(times, 1)} times. Check the whole turns, the setting that was read back, and its unit. If all are right, accept it.`,
    site: null,
    accept: ACCEPT.key,
  };
}
