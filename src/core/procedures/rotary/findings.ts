/** What is noticed of a rotary, in plain words, with what to do. */

import { numberIn } from "../../measuring/number-correction";
import { countText } from "../../metrology/count-text";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed, plain, shownLength, signed } from "../../metrology/quantity-text";
import { MM_PER_INCH } from "../../metrology/units";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import { settingsOf } from "./correction";
import { type RotaryPlan, restsElsewhere } from "./plan";
import { slipShare, slips, type TravelRead } from "./read-travel";
import { SITES } from "./travel";

/** A quotient this near to a slip is one, as a share. */
const NEAR_SLIP = 0.04;
/** Readings across that differ by more than this are the part's form, mm. (common practice, no source) */
const OVAL_MM = 0.15;
/** A drive that is as it is described comes this near. */
const NEAR_DRIVE = 0.05;

const finding = (id: string, says: Omit<Finding, "id" | "tone" | "site"> & Partial<Finding>): Finding => ({
  id,
  tone: "needs you",
  site: null,
  ...says,
});

export function findingsOf(history: History<RotaryPlan>, round: RoundRecord<RotaryPlan>, read: TravelRead): Finding[] {
  return [
    ...wrongWay(round.plan, read),
    ...slipOf(history, round.plan, read),
    ...turnedTooFar(read),
    ...factorOf(round.plan, read),
    ...chordOf(round.plan, read),
    ...notReadBack(round),
    ...oval(history, read),
    ...neck(history, round.plan, read),
    ...otherThanTold(history, round.plan, read),
  ];
}

/** The way it turns is a matter of wiring or of one switch of the controller. */
export function wrongWay(
  { replaces, drive }: Pick<RotaryPlan, "replaces" | "drive">,
  { mirrored }: Pick<TravelRead, "mirrored">,
): Finding[] {
  if (!mirrored) return [];
  const other = drive === "roller" ? "chuck" : "roller drive";
  return [
    finding("wrong way", {
      site: SITES.words,
      headline: "The rotary turns the wrong way. All marks are mirrored.",
      text: `Reverse the direction of the rotary in the controller (of ${replaces.toUpperCase()} if the rotary has no direction of its own). Or switch off and swap the two wires of one motor coil. Reverse it again for a ${other} on the same plug.`,
    }),
  ];
}

/** Whether it comes back to its place. */
export function slipOf(history: History<RotaryPlan>, plan: RotaryPlan, read: TravelRead): Finding[] {
  if (read.back === null) return [];
  const mm = shownLength(Math.abs(read.back.quantity.value), lengthUnitOf(history), 2);
  if (!slips(read))
    return [
      finding("no slip", {
        tone: "good",
        headline: "The workpiece returns to its starting point.",
        text: "There is no slip. The error is in the scale.",
      }),
    ];
  const share = 100 * slipShare(read);
  const cure =
    plan.drive === "roller"
      ? "Clean rollers and workpiece, add weight, use a slower speed, and burn again. A new value cannot correct slip."
      : "Tighten the chuck, its grub screw and the belt of the rotary, use a slower speed, and burn again.";
  return [
    finding("slips", {
      site: SITES.back,
      headline: `The workpiece slips by ${mm}, ${plain(share, 2)} % of the travel.`,
      text: cure,
    }),
  ];
}

function turnedTooFar({ read }: TravelRead): Finding[] {
  const turns = read.turns ?? 0;
  if (turns === 0) return [];
  return [
    finding("turns", {
      tone: "note",
      site: SITES.turns,
      headline: `The workpiece made ${countText(turns, "whole turn")} too many.`,
      text: "The new value corrects these turns too. Do not read lines that were burned more than once.",
    }),
  ];
}

/** Factors that say what went wrong rather than how much. */
function factorOf({ drive }: RotaryPlan, { ratio }: TravelRead): Finding[] {
  const r = ratio.quantity.value;
  const is = (factor: number) => Math.abs(r / factor - 1) < NEAR_SLIP || Math.abs(r * factor - 1) < NEAR_SLIP;
  const goes = `The travel is ${plain(r, 3)} times the commanded travel.`;
  const says = (text: string) => [finding("factor", { headline: goes, text })];
  if (is(MM_PER_INCH))
    return says(
      "The factor is 25.4, so inches and millimetres were mixed up. Check the units before you change a setting.",
    );
  if (is(Math.PI))
    return says(
      "The factor is pi, so a circumference was entered as a diameter. Check the controller and the readings first.",
    );
  if (drive === "chuck" && is(2))
    return says(
      "The factor is two, so a radius was entered as a diameter, or the microsteps at the driver differ. Check both first.",
    );
  if ([2, 4, 5, 8, 10, 16, 20, 32].some(is))
    return says(
      "The factor is a round number, so the microsteps at the driver differ, or a gear is missing in the description. Check both first. If both are right, enter the new value.",
    );
  return [];
}

/** A reading within this share of the chord is one. */
const NEAR_CHORD = 0.012;

/** A reading of the chord instead of the arc: the chord of an arc s on a diameter d is d sin(s/d). */
function chordOf(plan: RotaryPlan, { read, due, around, ratio }: TravelRead): Finding[] {
  const seen = read[SITES.span];
  if (plan.way !== "span" || seen === undefined || (read.turns ?? 0) > 0) return [];
  const d = around === null ? plan.diameterMm : around / Math.PI;
  const chord = d * Math.sin(due / d);
  const isShort = 1 - chord / due > NEAR_CHORD && Math.abs(ratio.quantity.value - 1) > NEAR_CHORD;
  if (!isShort || Math.abs(seen / chord - 1) > NEAR_CHORD) return [];
  return [
    finding("chord", {
      site: SITES.span,
      headline: `${plain(seen, 2)} mm is the straight distance, not the arc.`,
      text: `An arc of ${plain(due, 2)} mm on this part measures ${plain(chord, 2)} mm straight across. Measure along the surface with a tape measure, or measure the tape flat.`,
    }),
  ];
}

function notReadBack(round: RoundRecord<RotaryPlan>): Finding[] {
  if (settingsOf(round.plan).some((key) => numberIn(round, key))) return [];
  return [
    finding("not read back", {
      tone: "note",
      headline: "The settings of the rotary are not read back.",
      text: "Read the setting at the controller and confirm it. The new value is worked out from the old one.",
    }),
  ];
}

function oval(history: History<RotaryPlan>, { sites }: TravelRead): Finding[] {
  const unit = lengthUnitOf(history);
  return sites.flatMap(({ site, values }) => {
    if ((site !== SITES.marked && site !== SITES.resting) || values.length < 2) return [];
    const differ = Math.max(...values) - Math.min(...values);
    if (differ <= OVAL_MM) return [];
    return [
      finding(`oval ${site}`, {
        tone: "note",
        site,
        headline: `The diameter differs by ${shownLength(differ, unit, 2)} between readings.`,
        text: "The workpiece is oval or flat. Ustrina uses the mean, with a larger uncertainty. Measure around it with a tape measure instead.",
      }),
    ];
  });
}

function neck(history: History<RotaryPlan>, plan: RotaryPlan, { marked, resting }: TravelRead): Finding[] {
  if (!restsElsewhere(plan) || !marked || !resting) return [];
  const factor = resting.quantity.value / marked.quantity.value;
  const shown = (mm: number) => shownLength(mm, lengthUnitOf(history), 2);
  return [
    finding("neck", {
      tone: "note",
      headline: `For this workpiece, scale the artwork by ${fixed(factor, 4)} along ${plan.replaces.toUpperCase()}.`,
      text: `The workpiece rests on Ø ${shown(resting.quantity.value)} and is marked on Ø ${shown(marked.quantity.value)}. The surface travels ${plain(1 / factor, 4)} times as far there. The settings in the controller do not include this.`,
    }),
  ];
}

/** In a chuck the machine works with the diameter that it was told. */
function otherThanTold(history: History<RotaryPlan>, plan: RotaryPlan, { marked }: TravelRead): Finding[] {
  if (plan.drive !== "chuck" || !marked) return [];
  const off = marked.quantity.value - plan.diameterMm;
  const unit = lengthUnitOf(history);
  if (Math.abs(off) <= 2 * expandedUncertainty(marked.quantity)) return [];
  return [
    finding("told", {
      tone: "note",
      headline: `The diameter is ${shownLength(Math.abs(off), unit, 2)} ${off > 0 ? "larger" : "smaller"} than the one entered at the machine.`,
      text: `Enter ${shownLength(marked.quantity.value, unit, 2)} at the machine. In a chuck, a wrong diameter scales everything along ${plan.replaces.toUpperCase()}.`,
    }),
  ];
}

/**
 * How the steps compare to the drive as it is described.
 *
 * @param described steps in one revolution
 * @param steps those that are right: as corrected, or as the controller holds them where its roller is corrected
 */
export function againstDescription(
  described: number | null,
  steps: { exact: number; isMeasured: boolean } | null,
): Finding[] {
  if (described === null || steps === null) return [];
  const ratio = steps.exact / described;
  const makes = `${plain(described, 1)} steps per revolution`;
  if (Math.abs(ratio - 1) <= NEAR_DRIVE)
    return [
      finding("as described", {
        tone: "good",
        headline: `Motor, driver and gear agree with ${makes}.`,
        text: steps.isMeasured
          ? `The measured value differs by ${signed(100 * (ratio - 1), 2)} %.`
          : "The controller has this value. The roller diameter corrects the rest.",
      }),
    ];
  return [
    finding("not as described", {
      headline: `The steps are ${plain(ratio, 3)} times the ${makes} of motor, driver and gear.`,
      text: "Check the microsteps at the driver, and correct the description of the drive. The measured value counts.",
    }),
  ];
}
