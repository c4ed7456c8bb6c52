/** What is burned on the part: a line where it begins, one where it ends, one after the way back, and words that show which way it turned. */
import { fittingLetters, letterStrokes } from "../../coupon/lettering";
import { type CouponPath, lineSettings, type Piece } from "../../coupon/piece";
import type { Op } from "../../coupon/program";
import type { RoundSpec } from "../../coupon/round-spec";
import type { CouponPoint } from "../../geometry/frames";
import { eyewearLine } from "../../machine/not-known";
import { type RotarySpec, type SetAside, stepsOfDrive } from "../../machine/part-spec";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { AXIS_SCALE } from "../axis-scale/setting";
import { ALONG_MM, aroundDrawnMm, GUIDE_U_MM, type Lane, LEAD_MM, laneOf, lineAt, pointAt } from "./layout";
import { isBurned, type RotaryPlan, restsElsewhere, sentMm, WAYS } from "./plan";
import { PIECE, sitesOf } from "./sites";

const [WORDS, LINES] = ["words", "lines"];
const [LETTERS_MM, NUMBERS_MM, DASH_MM] = [2.5, 2, 1];
/** From the first line to the words beyond it. */
const TO_WORDS_MM = 5;

export function rotaryRound(plan: RotaryPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const burned = isBurned(plan);
  const described = context.rotary ? stepsOfDrive(context.rotary) : null;
  return {
    pieces: burned ? [pieceOf(plan, context)] : [],
    placement: placementOf(plan, context),
    program: burned ? burnProgram(plan) : traceProgram(plan),
    sites: sitesOf(plan),
    delivery: WAYS[plan.way],
    checklist: checklistOf(plan, context, purpose),
    turned: {
      axis: plan.replaces,
      drive: plan.drive,
      rotary: plan.rotary,
      diameterMm: plan.diameterMm,
      restsOnMm: restsElsewhere(plan) ? plan.restsOnMm : plan.diameterMm,
      ...(described === null ? {} : { describedSteps: described }),
    },
    setAside: asideFor(plan, context.rotary),
  };
}

/** Along the part where it is said; around it from where it stands. A galvo looks down at the middle of its field. */
function placementOf({ replaces, beginsAtMm }: RotaryPlan, { machine }: PlanContext): RoundSpec["placement"] {
  const middle = machine.kind === "galvo" ? (replaces === "y" ? machine.depthMm : machine.widthMm) / 2 : 0;
  return replaces === "y" ? { xMm: beginsAtMm, yMm: middle } : { xMm: middle, yMm: beginsAtMm };
}

function pieceOf(plan: RotaryPlan, { couponCode, day }: PlanContext): Piece {
  const across = pointAt(plan, ALONG_MM, 0);
  const far = pointAt(plan, 0, aroundDrawnMm(plan));
  const { speedMmPerS = 1, powerPct = 1 } = plan;
  const signature = [couponCode, ...(day ? [day] : []), `D ${plain(plan.diameterMm, 2)}`].join(" ");
  return {
    id: PIECE,
    label: `Rotary, coupon ${couponCode}`,
    stock: `round part, Ø ${plain(plan.diameterMm, 2)} mm`,
    widthMm: Math.max(across.x, far.x),
    heightMm: Math.max(across.y, far.y),
    settings: [
      lineSettings(WORDS, "Words and guide line", speedMmPerS, powerPct),
      lineSettings(LINES, "Lines, in the order drawn", speedMmPerS, powerPct),
    ],
    paths: [...wordsOf(plan, signature), guideOf(plan), ...linesOf(plan)],
  };
}

function stroke(plan: RotaryPlan, settings: string, from: [number, number], to: [number, number]): CouponPath {
  return { settings, closed: false, points: [pointAt(plan, ...from), pointAt(plan, ...to)] };
}

/** Keeps a tape measure straight, and shows whether the part walks along its axis. */
function guideOf(plan: RotaryPlan): CouponPath {
  return stroke(plan, WORDS, [GUIDE_U_MM, LEAD_MM], [GUIDE_U_MM, lineAt(plan, "last")]);
}

/** Each is come to from below: gears and belts lie against the same side. */
function linesOf(plan: RotaryPlan): CouponPath[] {
  const line = (lane: Lane) => {
    const [low, high] = laneOf(lane);
    const v = lineAt(plan, lane);
    const before = v - LEAD_MM + DASH_MM;
    return [stroke(plan, LINES, [low, before], [low + DASH_MM, before]), stroke(plan, LINES, [low, v], [high, v])];
  };
  return [...line("first"), ...line("last"), ...(plan.thereAndBack === "yes" ? line("back") : [])];
}

/** The numbers of the lines, and the code along the part. */
function wordsOf(plan: RotaryPlan, signature: string): CouponPath[] {
  const lanes: Lane[] = ["first", "last", ...(plan.thereAndBack === "yes" ? (["back"] as const) : [])];
  const numbered = lanes.flatMap((lane, i) => {
    const [, high] = laneOf(lane);
    const v = lane === "last" ? lineAt(plan, lane) - NUMBERS_MM - 1 : lineAt(plan, lane) + 1;
    return letterStrokes(String(i + 1), { x: high - 1, y: v }, NUMBERS_MM, "end");
  });
  const [low] = laneOf("first");
  const room = ALONG_MM - 2 * low;
  const letters = fittingLetters(signature, room, LETTERS_MM);
  const words = letterStrokes(signature, { x: low, y: LEAD_MM + TO_WORDS_MM }, letters);
  return [...numbered, ...words].map((points) => ({
    settings: WORDS,
    closed: false,
    points: points.map(({ x, y }: CouponPoint) => pointAt(plan, x, y)),
  }));
}

function burnProgram(plan: RotaryPlan): Op[] {
  const along = plan.replaces === "y" ? "X" : "Y";
  return [
    {
      kind: "tell",
      text: `Put the workpiece on the rotary with its axis along ${along}, level where it is marked. The marks need ${plain(ALONG_MM, 0)} mm from ${along} ${plain(plan.beginsAtMm)} mm on. Focus on the upper side. Start the file at the present position.`,
    },
    { kind: "mark", piece: PIECE, settings: WORDS },
    { kind: "mark", piece: PIECE, settings: LINES },
  ];
}

/** Each end is come to from the same side. */
function traceProgram(plan: RotaryPlan): Op[] {
  const axis = plan.replaces.toUpperCase();
  const length = plain(plan.spanMm, 2);
  return [
    {
      kind: "move by hand",
      text: `Stick or draw a line of about ${length} mm around the workpiece and mark both ends. Measure the line while it is flat.`,
    },
    {
      kind: "move by hand",
      text: `Start before the line. Turn slowly with the keys of ${axis} until the aiming dot is on the first end. Note the readout of ${axis}.`,
    },
    {
      kind: "move by hand",
      text: "Turn on in the same direction, slowly and without turning back, until the dot is on the second end. Note the readout.",
    },
    ...(plan.thereAndBack === "yes"
      ? [
          {
            kind: "move by hand" as const,
            text: "Turn back beyond the first end. Approach the first end again from the same side as before. Note the readout.",
          },
        ]
      : []),
  ];
}

function checklistOf(plan: RotaryPlan, { machine }: PlanContext, purpose: Purpose): string[] {
  const turning =
    plan.drive === "roller"
      ? "Clean and dry the workpiece and both rollers. Check that the workpiece touches both rollers."
      : "Tighten the workpiece in the chuck. Check that it has no runout.";
  return [
    eyewearLine(machine),
    "Check that the head and the turning workpiece cannot touch anything, and that the nozzle clears the workpiece.",
    turning,
    ...(isBurned(plan)
      ? [
          `Keep the order of the lines. Switch off any sorting in your program. The surface travels ${plain(sentMm(plan), 2)} mm from line 1 to line 2.`,
        ]
      : []),
    purpose === "proof"
      ? "Check that the new value is in the controller."
      : "Leave the rotary settings as in daily work.",
  ];
}

/** State during the burn, and the line of the checklist. */
const ASIDE: Record<SetAside, (axis: string) => { what: string; act: string }> = {
  limits: (axis) => ({
    what: `the travel limits of ${axis} are off`,
    act: `Switch off the travel limits of ${axis} for this burn. Switch them on again afterwards.`,
  }),
  homing: () => ({
    what: "homing is off",
    act: "Switch off homing for this burn. Switch it on again afterwards.",
  }),
  motor: (axis) => ({
    what: `the motor of ${axis} is unplugged`,
    act: `Switch the machine off and unplug the motor of ${axis}. After this burn, switch it off again and plug the motor in.`,
  }),
  scale: (axis) => ({
    what: `the axis scale of ${axis} is set for the rotary`,
    act: `Write down the axis scale of ${axis}. Set it for the rotary. Restore it after this burn.`,
  }),
};

function asideFor({ replaces }: RotaryPlan, rotary: RotarySpec | undefined): RoundSpec["setAside"] {
  const axis = replaces.toUpperCase();
  const words = (rotary?.setAside ?? []).map((kind) => ({
    ...ASIDE[kind](axis),
    ...(kind === "scale" ? { setting: AXIS_SCALE[replaces] } : {}),
  }));
  const more = rotary?.setAsideToo.trim();
  return [...words, ...(more ? [{ what: more }] : [])];
}
