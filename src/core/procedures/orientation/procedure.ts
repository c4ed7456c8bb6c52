/** Orientation: X ends to the right and Y away from the operator, and the switches of the controller that make it so. */

import { headlineOf } from "../../measuring/plain-course";
import { measured } from "../../metrology/measured";
import type { History } from "../../trial/history";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/whole-proof";
import { defineProcedure } from "../contract";
import { orientationRound } from "./coupon";
import { orientationDetail } from "./detail";
import { AS_DRAWN, isSameLie, type Lie, nameOf } from "./eight";
import { type OrientationPlan, orientationPlan } from "./plan";
import { readLie } from "./read";
import { ORIENTATION_SETTINGS } from "./setting";
import { solveOrientation } from "./solve";

/** An arrow lies in one of four ways: anything below a quarter turn tells right from wrong. */
const TOLERANCE_RAD = Math.PI / 4;
const [X_LINE, Y_LINE] = ["X arrow", "Y arrow"];

export const orientation = defineProcedure<OrientationPlan>({
  id: "orientation",
  title: "Orientation",
  summary: "X runs to the right and Y away from you",
  machineKinds: ["galvo"],
  settings: ORIENTATION_SETTINGS,
  needs: [
    { on: "change", what: "head", effect: "stale" },
    { on: "change", what: "driver", effect: "check" },
    { on: "change", what: "firmware", effect: "check" },
  ],
  tolerance: { default: TOLERANCE_RAD, unit: "deg", label: "Largest angle of an arrow" },
  recheck: { defaultDays: 730, why: "It changes only when plugs, head or controller are changed." },
  plan: orientationPlan,
  round: orientationRound,
  solve: solveOrientation,
  words: {
    read: "Look at both arrows and at the words first.",
    prove: "Enter the three settings and read them back. Then burn the coupon again.",
    proved: "Proved: the drawing lies as drawn.",
    holding: "Still valid. Change nothing.",
  },
  judge,
  detail: orientationDetail,
});

function judge(history: History<OrientationPlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const read = readLie(last);
  if (!read.ok) return null;
  const before = history.rounds.slice(0, -1).flatMap((r) => {
    const earlier = readLie(r);
    return earlier.ok ? [earlier.lie] : [];
  });
  const result = isSameLie(read.lie, AS_DRAWN) ? "proved" : "not proved";
  const [x, y] = anglesOf(read.lie);
  const old = before.at(-1);
  const angle = (value: number) => measured(value, 0, Infinity);
  const verdict: Verdict = {
    result,
    headline: headlineOf(last.purpose, result),
    advice:
      result === "proved" ? "Change nothing." : `${nameOf(read.lie)} Enter the settings from Correct, then burn again.`,
    lines: [
      { label: X_LINE, before: old ? angle(anglesOf(old)[0]) : null, after: angle(x), result: rule(x) },
      { label: Y_LINE, before: old ? angle(anglesOf(old)[1]) : null, after: angle(y), result: rule(y) },
    ],
    unit: "deg",
    tolerance: history.tolerance,
    ways: [],
    asFound: { label: "angle of the X arrow", quantity: angle(x) },
    findings: [],
  };
  return wholeProof(history, verdict, [X_LINE, Y_LINE]);
}

function rule(angle: number): "proved" | "not proved" {
  return angle === 0 ? "proved" : "not proved";
}

/** How far the arrows of X and Y are from where they are drawn, counter-clockwise, rad. */
function anglesOf([xx, yx, xy, yy]: Lie): [number, number] {
  const angle = (x: number, y: number) => Math.atan2(y, x) || 0;
  return [angle(xx, xy), angle(yy, yx === 0 ? 0 : -yx)];
}
