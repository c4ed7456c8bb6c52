/** A cross at nominal distances from where the stops are taken to stand, burned or traced. */
import { fittingLetters, letterStrokes } from "../../coupon/lettering";
import type { MarkingSettings } from "../../coupon/piece";
import type { Op } from "../../coupon/program";
import type { RoundSpec } from "../../coupon/round-spec";
import { eyewearLine } from "../../machine/not-known";
import { distanceWords, edgeSites, linePaths, onStock } from "../../measuring/edge-distance/marks";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { BEYOND_MM, type FixturePlan, linesOf, stockOf, WAYS } from "./plan";

const PIECE = "fixture";
const LINES = "lines";
const LETTERS_MM = 3;

export function fixtureRound(plan: FixturePlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const { machine, couponCode } = context;
  const stock = stockOf(plan);
  const paths = linePaths(plan, linesOf(plan), stock, LINES);
  const isBurned = plan.way === "burned";
  const settings: MarkingSettings = {
    id: LINES,
    label: "Cross and words",
    use: "line",
    runUpMm: 0,
    scan: null,
    speedMmPerS: plan.speedMmPerS,
    powerPct: plan.powerPct,
  };
  const laid: Op = {
    kind: "tell",
    text: `Clamp the fixture, and push a piece of ${plain(stock.widthMm)} × ${plain(stock.heightMm)} mm or more against its ${plan.sideX} and its ${plan.sideY} stop.`,
  };
  const traced: Op[] = [
    { kind: "tell", text: "Trace the cross with the aiming dot, and draw over it with a sharp pencil, or on tape." },
    ...paths.map((path): Op => ({ kind: "trace", points: path.points })),
  ];
  return {
    pieces: isBurned
      ? [
          {
            id: PIECE,
            label: `Fixture stops, coupon ${couponCode}`,
            ...stock,
            settings: [settings],
            stock: `offcut ${plain(stock.widthMm)} × ${plain(stock.heightMm)} with a square ${plan.sideY} ${plan.sideX} corner`,
            paths: [...paths, ...wordsOf(plan, context)],
          },
        ]
      : [],
    placement: {
      xMm: plan.sideX === "left" ? plan.aboutXMm : machine.widthMm - plan.aboutXMm - stock.widthMm,
      yMm: plan.sideY === "front" ? plan.aboutYMm : machine.depthMm - plan.aboutYMm - stock.heightMm,
    },
    program: [laid, ...(isBurned ? [{ kind: "mark" as const, piece: PIECE, settings: LINES }] : traced)],
    sites: edgeSites(plan, linesOf(plan), stock, {
      piece: isBurned ? PIECE : null,
      against: "fixture",
      edgeWord: "stop",
    }),
    delivery: WAYS[plan.way],
    checklist: [
      isBurned ? eyewearLine(machine) : "Switch the beam off. Use the aiming dot only.",
      "The machine is homed, and no origin is set by hand.",
      purpose === "proof"
        ? "The cross is placed by the new stops."
        : "The fixture stays clamped until the proof is read.",
    ],
  };
}

/** In the quarter of the cross away from both stops. */
function wordsOf(plan: FixturePlan, { couponCode, day }: PlanContext) {
  const stock = stockOf(plan);
  const room = plan.armMm + BEYOND_MM;
  const at = onStock({ u: plan.distanceXMm + room / 2, v: plan.distanceYMm + room / 2 }, plan, stock);
  return [[couponCode, ...(day ? [day] : [])].join(" "), distanceWords(plan)]
    .flatMap((text, i) =>
      letterStrokes(
        text,
        { x: at.x, y: at.y - i * 1.6 * LETTERS_MM },
        fittingLetters(text, room - 2 * LETTERS_MM, LETTERS_MM),
        "middle",
      ),
    )
    .map((points) => ({ points, closed: false, settings: LINES }));
}
