/** Rotary: whether the surface of a round part goes as far as it is sent, and the number that makes it so. */

import { predictedReading } from "../../measuring/examined";
import type { Measured } from "../../metrology/measured";
import { quantitiesAt } from "../../trial/answer";
import type { History } from "../../trial/history";
import { defineProcedure } from "../contract";
import { settingsOf, travelCorrection } from "./correction";
import { rotaryRound } from "./coupon";
import { detailOf } from "./detail";
import { expectedAt } from "./expected";
import { judgeTravel } from "./judge";
import { overlayOf } from "./overlay";
import type { RotaryPlan } from "./plan";
import { planWarnings, rotaryPlan } from "./plan-faults";
import { observeTravel, readTravel, type TravelRead } from "./read-travel";
import { ROTARY_SETTINGS } from "./setting";
import { solveRotary } from "./solve";

/** Half a mm of seam on a bottle is seen. (common practice, no source) */
const DEFAULT_TOLERANCE = 0.003;

export const rotary = defineProcedure<RotaryPlan>({
  id: "rotary",
  title: "Rotary",
  summary: "The surface of a round part goes as far as it is sent",
  machineKinds: ["CO2 gantry", "diode gantry", "galvo"],
  settings: ROTARY_SETTINGS,
  needs: [
    { on: "rotary", effect: "stale" },
    { on: "change", what: "motor", effect: "check" },
    { on: "change", what: "driver", effect: "stale" },
    { on: "change", what: "belt", effect: "check" },
    { on: "change", what: "firmware", effect: "check" },
  ],
  occasional: true,
  tolerance: { default: DEFAULT_TOLERANCE, unit: "percent", label: "Largest error of travel left" },
  recheck: { defaultDays: 365, why: "Rollers wear and take on dirt: once a year is usual." },
  plan: rotaryPlan,
  sets: settingsOf,
  warnings: planWarnings,
  round: rotaryRound,
  observe: observeTravel,
  expected,
  solve: solveRotary,
  words: {
    read: "Measure the travel first.",
    prove: "Enter the new value and read it back. Then burn the same test again.",
    proved: "Proved: the travel is as commanded.",
    holding: "Still valid. Change nothing.",
  },
  proof: proofOf,
  judge: judgeTravel,
  overlay: overlayOf,
  detail: detailOf,
});

/** Each place has a value of its own: others tell its first reading nothing. */
function expected(history: History<RotaryPlan>, site: string): Measured | null {
  const isRead = quantitiesAt(history.rounds.at(-1)?.answers ?? [], site).length > 0;
  const predicted = isRead ? predictedReading(observeTravel, history, site) : null;
  return predicted ?? expectedAt(history, site);
}

function proofOf(history: History<RotaryPlan>) {
  const last = history.rounds.at(-1);
  const read = last && readTravel(history, last);
  const correction = last && read ? travelCorrection(history, last, read) : null;
  return last && read && correction
    ? { plan: asMeasured(last.plan, read), set: [correction.setting] }
    : {
        why: "Read the settings of the rotary at the controller and confirm them first. The new value is worked out from the old one.",
      };
}

/** The part as it measures: a line once around then ends where it begins, and a chuck is told what it holds. */
function asMeasured(plan: RotaryPlan, { marked, resting }: TravelRead): RotaryPlan {
  const told = (size: TravelRead["marked"]) => (size ? Number(size.quantity.value.toFixed(TOLD_DECIMALS)) : undefined);
  return {
    ...plan,
    diameterMm: told(marked) ?? plan.diameterMm,
    restsOnMm: told(resting) ?? plan.restsOnMm,
  };
}

/** Diameters are told to a hundredth of a mm. (common practice, no source) */
const TOLD_DECIMALS = 2;
