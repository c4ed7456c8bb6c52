/** Burning on a practice machine what was exported, and reading it: the file text is all that passes between them. */
import type { Site } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import { fromInternal, type LengthUnit } from "../core/metrology/units";
import type { AnswerValue } from "../core/procedures/answer";
import { counted } from "../core/procedures/counted";
import type { MachineSpec } from "../core/procedures/machine-spec";
import { type GcodeProgram, parseGcode } from "../formats/gcode-parser";
import { couponComment } from "../formats/gcode-words";
import { faultText } from "../formats/parsed";
import { burnOnGantry, type Mark, trueCorner } from "../practice/gantry";
import type { GantryTruth, PracticeController } from "../practice/gantry-truth";
import { type Hand, practiceReading, type Seen, seenAt } from "../practice/measure";
import type { Random } from "../practice/random";

export type PracticeBurn = { ok: true; marks: Mark[] } | { ok: false; message: string };

/**
 * Runs a G-code file on a practice gantry.
 *
 * @param text the file as downloaded, perhaps edited
 * @param couponCode the coupon whose file is expected
 */
export function burnFile(
  text: string,
  couponCode: string,
  machine: MachineSpec,
  truth: GantryTruth,
  controller: PracticeController,
): PracticeBurn {
  const parsed = parseGcode(text, { dialect: machine.gcode });
  if (!parsed.ok) return { ok: false, message: faultText(parsed) };
  const named = parsed.value.comments.find((c) => c.startsWith(couponComment("")));
  if (!named)
    return {
      ok: false,
      message: `This file names no coupon. Download the G-code of coupon ${couponCode} and use that.`,
    };
  if (named !== couponComment(couponCode))
    return {
      ok: false,
      message: `This file is for “${named.replace(couponComment(""), "").trim()}”; this round is coupon ${couponCode}.`,
    };
  const burn = burnOnGantry(asSeenFromAbove(parsed.value, machine), truth, controller, machine);
  return burn.ok ? burn : { ok: false, message: `Line ${burn.line}: ${burn.message}` };
}

/** Where the head goes, whichever way the machine counts. */
function asSeenFromAbove(program: GcodeProgram, machine: MachineSpec): GcodeProgram {
  const steps = program.steps.map((step) =>
    step.kind === "move" ? { ...step, from: counted(step.from, machine), to: counted(step.to, machine) } : step,
  );
  return { ...program, steps };
}

export type PracticeAnswer =
  | {
      ok: true;
      value: AnswerValue;
      /** What the gauge showed, as it would be typed. */
      text: string;
    }
  | { ok: false; why: string };

/** A burned piece at one site: each call is one reading there, signed as the words would. */
export function siteReader(
  site: Site,
  marks: readonly Mark[],
  placement: Placement,
  truth: GantryTruth,
): (hand: Hand, random: Random, unit?: LengthUnit) => PracticeAnswer {
  const seen = seenAt(site, marks, trueCorner(placement, truth));
  return (hand, random, unit = "mm") => readOnce(site, seen, hand, random, unit);
}

function readOnce(site: Site, seen: Seen, hand: Hand, random: Random, unit: LengthUnit): PracticeAnswer {
  const reading = practiceReading(seen, hand, random);
  if (!reading.ok) return reading;
  if (site.ask.kind !== "quantity") return { ok: false, why: "The practice gantry answers lengths only." };
  const signedByWords = site.ask.signedBy !== null;
  const value = signedByWords && !reading.positive ? -reading.shownMm : reading.shownMm;
  return { ok: true, value: { kind: "quantity", value }, text: asShown(reading.shownMm, hand.resolutionMm, unit) };
}

/** With the digits that the gauge shows, in its unit. */
function asShown(mm: number, resolutionMm: number, unit: LengthUnit): string {
  const step = fromInternal(resolutionMm, unit);
  const decimals = step > 0 ? Math.max(0, Math.ceil(-Math.log10(step) - 1e-9)) : 9;
  return fromInternal(mm, unit).toFixed(decimals);
}
