/** Ramp: one strip along which one setting changes shows the best value of this setting and its good range. */
import type { Primitive } from "../../drawing/scene";
import { type Measured, measured } from "../../metrology/measured";
import type { History } from "../../trial/history";
import { defineProcedure } from "../contract";
import { MARKING_NEEDS, MARKING_RECHECK } from "../test-array/needs";
import { END_SITE, rampRound, START_SITE } from "./coupon";
import { judgeRamp, nextRamp } from "./course";
import { stripDetail } from "./detail";
import { foundIn } from "./found";
import type { RampPlan } from "./plan";
import { rampPlan } from "./plan-faults";
import { solveRamp } from "./solve";
import { placeAt, weakEnd } from "./strip";

/** An eye cannot place a broad optimum better. (tried on practice stocks: within this tolerance nine of ten marks lose at most 5 %) */
const TOLERANCE = 0.15;

export const ramp = defineProcedure<RampPlan>({
  id: "ramp",
  title: "Ramp",
  summary: "The best value of one setting for a stock, from one strip",
  machineKinds: ["CO2 gantry", "diode gantry", "galvo"],
  settings: [],
  needs: MARKING_NEEDS,
  occasional: true,
  stock: { field: "stock", of: ({ from }) => from },
  tolerance: { default: TOLERANCE, unit: "percent", label: "Largest difference of the best value" },
  recheck: MARKING_RECHECK,
  plan: rampPlan,
  round: rampRound,
  expected: anywhere,
  solve: solveRamp,
  next: nextRamp,
  judge: judgeRamp,
  overlay: placesRead,
  detail: stripDetail,
});

/** No expectation from earlier ramps: it would influence the eye. */
function anywhere({ rounds }: History<RampPlan>, site: string): Measured | null {
  const plan = rounds.at(-1)?.plan;
  if (!plan) return null;
  const quarter = plan.lengthMm / 4;
  const isStart = site === START_SITE;
  const fromWeak = isStart ? quarter : site === END_SITE ? 3 * quarter : 2 * quarter;
  return measured(weakEnd(plan) === "start" ? fromWeak : plan.lengthMm - fromWeak, 2 * quarter, Infinity);
}

/** Lines across the strip at the points that were read. */
function placesRead(history: History<RampPlan>): Primitive[] {
  const round = history.rounds.at(-1);
  const finding = round ? foundIn(history, round) : null;
  if (!finding?.ok) return [];
  const { last } = finding.found;
  const { plan } = last;
  const line = (s: number | null, tone: Primitive["tone"]): Primitive[] =>
    s === null
      ? []
      : [
          {
            kind: "stroke",
            points: [placeAt(plan, s, -3), placeAt(plan, s, plan.widthMm + 3)],
            closed: false,
            weight: "heavy",
            widthMm: 0,
            dashed: tone === "faint",
            tone,
          },
        ];
  return [...line(last.start, "faint"), ...line(last.best, "needs you"), ...line(last.end, "faint")];
}
