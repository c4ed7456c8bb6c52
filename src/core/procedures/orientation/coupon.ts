/** A small coupon with an arrow along X, an arrow along Y, a mark in the corner where both begin, and words. */
import { fittingLetters, letterStrokes } from "../../coupon/lettering";
import { type CouponPath, lineSettings, type Piece } from "../../coupon/piece";
import type { RoundSpec } from "../../coupon/round-spec";
import type { Site } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { eyewearLine } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { WAYS, type Way } from "./eight";
import type { OrientationPlan } from "./plan";

const PIECE = "orientation";
const LINES = "arrows";
/** Shares of the side of the coupon. */
const [EDGE, TIP, HEAD, LETTER, CORNER, WORDS_WIDE] = [0.14, 0.86, 0.07, 0.1, 0.06, 0.5];

export const SITES = { x: "x arrow", y: "y arrow", words: "words" } as const;
export const READS = "read";
export const MIRRORED = "mirrored";

const WAY_LABELS: Readonly<Record<Way, string>> = {
  right: "To the right",
  left: "To the left",
  away: "Away from you",
  "toward you": "Toward you",
};

export function orientationRound(plan: OrientationPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const { machine } = context;
  const piece = pieceOf(plan, context);
  return {
    pieces: [piece],
    placement: { xMm: (machine.widthMm - piece.widthMm) / 2, yMm: (machine.depthMm - piece.heightMm) / 2 },
    program: [
      {
        kind: "tell",
        text: "Draw a pencil line along the front edge of the coupon. Lay that edge toward you, in the middle of the field.",
      },
      { kind: "mark", piece: PIECE, settings: LINES },
    ],
    sites: [arrowSite("x", plan), arrowSite("y", plan), wordsSite(plan)],
    delivery: "Arrows and words in the middle of the field",
    checklist: [
      eyewearLine(machine),
      "Switch off any mirroring or turning of the drawing in the program that sends it.",
      ...(purpose === "proof" ? ["Check that the three new settings are in the controller."] : []),
    ],
  };
}

function pieceOf({ sizeMm, speedMmPerS, powerPct }: OrientationPlan, { couponCode, day }: PlanContext): Piece {
  const on = (u: number, v: number): CouponPoint => ({ x: u * sizeMm, y: v * sizeMm });
  const text = [couponCode, ...(day ? [day] : [])].join(" ");
  const letters = fittingLetters(text, WORDS_WIDE * sizeMm, LETTER * sizeMm);
  const path = (points: CouponPoint[], closed = false): CouponPath => ({ points, closed, settings: LINES });
  const word = (letter: string, u: number, v: number) =>
    letterStrokes(letter, on(u, v), LETTER * sizeMm, "middle").map((points) => path(points));
  return {
    id: PIECE,
    label: `Orientation, coupon ${couponCode}`,
    stock: `flat offcut ${plain(sizeMm)} × ${plain(sizeMm)}`,
    widthMm: sizeMm,
    heightMm: sizeMm,
    settings: [lineSettings(LINES, "Arrows and words", speedMmPerS, powerPct)],
    paths: [
      path([on(EDGE, EDGE), on(TIP, EDGE)]),
      path([on(TIP - HEAD, EDGE + HEAD / 2), on(TIP, EDGE), on(TIP - HEAD, EDGE - HEAD / 2)]),
      path([on(EDGE, EDGE), on(EDGE, TIP)]),
      path([on(EDGE - HEAD / 2, TIP - HEAD), on(EDGE, TIP), on(EDGE + HEAD / 2, TIP - HEAD)]),
      path([on(EDGE, EDGE), on(EDGE + CORNER, EDGE), on(EDGE + CORNER, EDGE + CORNER), on(EDGE, EDGE + CORNER)], true),
      ...word("X", TIP - HEAD, EDGE + HEAD),
      ...word("Y", EDGE + 1.4 * HEAD, TIP - HEAD),
      ...letterStrokes(text, on(0.55, 0.5), letters, "middle").map((points) => path(points)),
    ],
  };
}

function arrowSite(axis: "x" | "y", { sizeMm }: OrientationPlan): Site {
  const name = axis.toUpperCase();
  const middle = sizeMm / 2;
  const reach = 0.42 * sizeMm;
  const at: Readonly<Record<Way, CouponPoint>> = {
    right: { x: middle + reach, y: middle },
    left: { x: middle - reach, y: middle },
    away: { x: middle, y: middle + reach },
    "toward you": { x: middle, y: middle - reach },
  };
  // The way in which it is drawn comes first.
  const ways = axis === "x" ? WAYS : [...WAYS.slice(2), ...WAYS.slice(0, 2)];
  return {
    id: SITES[axis],
    label: `End of the ${name} arrow`,
    question: `Hold the pencil line toward you. Where does the ${name} arrow end?`,
    ask: { kind: "choice", options: ways.map((id) => ({ id, label: WAY_LABELS[id], at: at[id] })) },
    measurand: { kind: "arrow end", axis },
    place: {
      piece: PIECE,
      at: axis === "x" ? { x: TIP * sizeMm, y: EDGE * sizeMm } : { x: EDGE * sizeMm, y: TIP * sizeMm },
      radiusMm: 0.12 * sizeMm,
    },
    repeats: 1,
    openEnded: false,
  };
}

function wordsSite({ sizeMm }: OrientationPlan): Site {
  return {
    id: SITES.words,
    label: "Words",
    question: "Turn the coupon until the words are upright. Can you read them?",
    ask: {
      kind: "choice",
      options: [
        { id: READS, label: "Yes, they read as usual" },
        { id: MIRRORED, label: "No, they are mirrored" },
      ],
    },
    measurand: { kind: "mirrored" },
    place: { piece: PIECE, at: { x: 0.55 * sizeMm, y: 0.5 * sizeMm }, radiusMm: 0.28 * sizeMm },
    repeats: 1,
    openEnded: false,
  };
}
