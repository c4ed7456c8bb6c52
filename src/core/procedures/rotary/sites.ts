/** Where a rotary is measured, and what is asked there. */

import { lengthAsk, readoutAsk } from "../../coupon/ask";
import type { Feature, Site } from "../../coupon/site";
import { type Lane, laneOf, lineAt, pointAt } from "./layout";
import { isBurned, type RotaryPlan, restsElsewhere, sentMm, sizesNeeded, tapeOn } from "./plan";
import { SITES, TAPE_LAYERS } from "./travel";

export const PIECE = "round part";
const RADIUS_MM = 8;
/** Half of the square in which a line is looked for, mm. */
const AROUND_MM = 1.5;
/** Larger than laid out by so much is asked about. */
const PLAUSIBLE_SHARE = 1.3;
const WIDE_LINE_MM = 1;
const SLIP_MM = 5;
const MOST_TURNS = 50;

const GAP_SIGN = {
  question: "Where does line 2 end?",
  positive: "it stops short of line 1",
  negative: "it goes past line 1",
};
const BACK_SIGN = {
  question: "Where does line 3 lie?",
  positive: "beyond line 1, on the side of the words",
  negative: "short of line 1",
};
export const STANDS = { drawn: "as drawn", mirrored: "mirrored" } as const;

type Common = Pick<Site, "repeats" | "openEnded">;

export function sitesOf(plan: RotaryPlan): Site[] {
  const many: Common = { repeats: plan.repeats, openEnded: false };
  const once: Common = { repeats: 1, openEnded: false };
  const sizes = sizesNeeded(plan).map((where) => sizeSite(plan, where, many));
  if (!isBurned(plan)) {
    const tape = tapeOn(plan) > 0 ? [tapeSite(plan, many)] : [];
    return [...tracedSites(plan, many), ...tape, ...sizes, wentSite(plan, once)];
  }
  return [
    wordsSite(once, plan),
    turnsSite(plan, once),
    ...(plan.thereAndBack === "yes" ? [backSite(plan, many)] : []),
    ...(plan.way === "wrap" ? [widthSite(plan, once), gapSite(plan, many)] : [spanSite(plan, many)]),
    ...(tapeOn(plan) > 0 ? [tapeSite(plan, many)] : []),
    ...sizes,
  ];
}

/** It checks the thickness that was typed: nothing else in the burn shows it. */
function tapeSite(plan: RotaryPlan, common: Common): Site {
  const mm = TAPE_LAYERS * tapeOn(plan);
  return {
    ...common,
    id: SITES.tape,
    label: `${TAPE_LAYERS} layers of the tape`,
    place: null,
    question: `Press ${TAPE_LAYERS} layers of the tape together. How thick are they?`,
    ask: lengthAsk({ plausibleUpTo: 3 * mm + SLIP_MM }),
    measurand: { kind: "known length", mm },
  };
}

function lineIn(plan: RotaryPlan, lane: Lane): Feature {
  const { x, y } = middleOf(plan, lane);
  return { kind: "line", within: { x0: x - AROUND_MM, y0: y - AROUND_MM, x1: x + AROUND_MM, y1: y + AROUND_MM } };
}

function middleOf(plan: RotaryPlan, lane: Lane) {
  const [low, high] = laneOf(lane);
  return pointAt(plan, (low + high) / 2, lineAt(plan, lane));
}

function placeAt(plan: RotaryPlan, lane: Lane): Site["place"] {
  return { piece: PIECE, at: middleOf(plan, lane), radiusMm: RADIUS_MM };
}

function gapSite(plan: RotaryPlan, common: Common): Site {
  return {
    ...common,
    id: SITES.gap,
    label: "Gap to line 1",
    place: placeAt(plan, "last"),
    question: "How far is line 2 from line 1, between facing edges? Cannot be read where they lie on each other.",
    ask: lengthAsk({ jaws: "inside", plausibleUpTo: sentMm(plan) / 2, signedBy: GAP_SIGN }),
    measurand: { kind: "around", from: lineIn(plan, "first"), to: lineIn(plan, "last"), as: "gap" },
  };
}

/** Once more, since nothing else checks it. */
const WIDTH_REPEATS = 2;

function widthSite(plan: RotaryPlan, common: Common): Site {
  return {
    ...common,
    id: SITES.width,
    repeats: WIDTH_REPEATS,
    label: "Width of a line",
    place: placeAt(plan, "first"),
    question: "How wide is line 1?",
    ask: lengthAsk({ plausibleUpTo: WIDE_LINE_MM }),
    measurand: { kind: "width", of: lineIn(plan, "first") },
  };
}

function spanSite(plan: RotaryPlan, common: Common): Site {
  const how = tapeOn(plan) > 0 ? "on the tape, laid flat" : "along the surface: a tape measure, not jaws across";
  return {
    ...common,
    id: SITES.span,
    label: "From line 1 to line 2",
    place: placeAt(plan, "last"),
    question: `How far is line 2 from line 1, from the same edge of each, ${how}?`,
    ask: lengthAsk({ plausibleUpTo: Math.PI * plan.diameterMm }),
    measurand: {
      kind: "around",
      from: lineIn(plan, "first"),
      to: lineIn(plan, "last"),
      as: "onward",
      ...onTape(plan),
    },
  };
}

function turnsSite(plan: RotaryPlan, common: Common): Site {
  const beyond = plan.way === "wrap" ? "beyond the one that it is to make" : "between line 1 and line 2";
  return {
    ...common,
    id: SITES.turns,
    label: "Whole turns too many",
    place: null,
    question: `How many whole turns did the part make ${beyond}? 0 is usual.`,
    ask: { kind: "count", most: MOST_TURNS },
    measurand: {
      kind: "around",
      from: lineIn(plan, "first"),
      to: lineIn(plan, "last"),
      as: plan.way === "wrap" ? "turns beyond one" : "turns too many",
    },
  };
}

function backSite(plan: RotaryPlan, common: Common): Site {
  return {
    ...common,
    id: SITES.back,
    label: "Line 3 to line 1",
    place: placeAt(plan, "back"),
    question:
      "After the way there and back: how far is line 3 from line 1, from the same edge? 0 where they are in line.",
    ask: lengthAsk({ plausibleUpTo: SLIP_MM, signedBy: BACK_SIGN }),
    measurand: { kind: "around", from: lineIn(plan, "first"), to: lineIn(plan, "back"), as: "beside" },
  };
}

function wordsSite(common: Common, plan: RotaryPlan): Site {
  return {
    ...common,
    id: SITES.words,
    label: "The words",
    place: placeAt(plan, "first"),
    question: "Do the words read as drawn, or mirrored?",
    ask: { kind: "choice", options: Object.entries(STANDS).map(([id, label]) => ({ id, label })) },
    measurand: { kind: "mirrored" },
  };
}

function wentSite({ replaces }: RotaryPlan, common: Common): Site {
  const right = replaces === "y" ? "toward you" : "to the left";
  const wrong = replaces === "y" ? "away from you" : "to the right";
  return {
    ...common,
    id: SITES.words,
    label: "Which way it turned",
    place: null,
    question: `Which way did the upper side go while the readout of ${replaces.toUpperCase()} counted up?`,
    ask: {
      kind: "choice",
      options: [
        { id: "drawn", label: right },
        { id: "mirrored", label: wrong },
      ],
    },
    measurand: { kind: "way turned" },
  };
}

function sizeSite(plan: RotaryPlan, where: "marked" | "resting", common: Common): Site {
  const around = plan.sizedBy === "around";
  const at =
    where === "marked"
      ? restsElsewhere(plan)
        ? "where it is marked"
        : "beside the marks"
      : "where it lies on the rollers";
  const laid = where === "marked" ? plan.diameterMm : plan.restsOnMm;
  return {
    ...common,
    id: where === "marked" ? SITES.marked : SITES.resting,
    place: null,
    label: `${around ? "Around" : "Across"} the part, ${at}`,
    question: around
      ? `How far is it around the part, ${at}, by a tape measure pulled snug?`
      : `How thick is the part, ${at}? Turn it between readings.`,
    ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_SHARE * laid * (around ? Math.PI : 1) }),
    measurand: { kind: "part size", of: around ? "circumference" : "diameter", where },
  };
}

function onTape(plan: RotaryPlan): { tapeMm?: number } {
  const tapeMm = tapeOn(plan);
  return tapeMm > 0 ? { tapeMm } : {};
}

function tracedSites(plan: RotaryPlan, common: Common): Site[] {
  const nominalMm = plan.spanMm;
  const axis = plan.replaces.toUpperCase();
  const readout = (id: string, end: "first" | "second" | "first again", label: string, question: string): Site => ({
    id,
    label,
    question,
    repeats: 1,
    openEnded: false,
    place: null,
    ask: readoutAsk({ plausibleUpTo: 20 * nominalMm, stepMm: plan.readoutStepMm }),
    measurand: { kind: "readout on line", end, nominalMm, ...onTape(plan) },
  });
  return [
    {
      ...common,
      id: SITES.line,
      label: "Length of the line",
      place: null,
      question: "How long is the line, from end to end, laid flat?",
      ask: lengthAsk({ plausibleUpTo: Math.PI * plan.diameterMm }),
      measurand: { kind: "line on part", nominalMm, ...onTape(plan) },
    },
    readout(
      SITES.first,
      "first",
      "Readout at its first end",
      `What did the readout of ${axis} show with the dot on the first end?`,
    ),
    readout(
      SITES.second,
      "second",
      "Readout at its second end",
      `What did the readout of ${axis} show with the dot on the second end?`,
    ),
    ...(plan.thereAndBack === "yes"
      ? [
          readout(
            SITES.again,
            "first again",
            "Readout at its first end again",
            `What did the readout of ${axis} show with the dot on the first end again, after the way back?`,
          ),
        ]
      : []),
  ];
}
