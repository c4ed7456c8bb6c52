/** Ramp: one strip along which one setting changes shows its best value for a stock, where the mark begins and where it is too much. */
import type { Primitive } from "../../drawing/scene";
import { type Measured, measured } from "../../metrology/measured";
import type { History } from "../../trial/history";
import { defineProcedure } from "../contract";
import { FOCUS_HEIGHT } from "../focus/plan";
import { BEGINS_SITE, rampRound, TOO_MUCH_SITE } from "./coupon";
import { judgeRamp, nextRamp } from "./course";
import { stripDetail } from "./detail";
import { foundIn } from "./found";
import type { RampPlan } from "./plan";
import { rampPlan } from "./plan-faults";
import { solveRamp } from "./solve";
import { placeAt, weakEnd } from "./strip";

/** An eye finds a broad best no better. (tried on practice stocks: within it a mark lacks at most 5 % of the best in nine of ten) */
const TOLERANCE = 0.15;

export const ramp = defineProcedure<RampPlan>({
  id: "ramp",
  title: "Ramp",
  summary: "The best value of one setting for a stock, from one strip",
  machineKinds: ["CO2 gantry", "diode gantry", "galvo"],
  settings: [],
  needs: [
    { on: "optic", effect: "stale" },
    { on: "setting", what: FOCUS_HEIGHT, effect: "check", why: "the focus height was changed" },
    { on: "change", what: "tube", effect: "stale" },
    { on: "change", what: "mirrors", effect: "check" },
    { on: "change", what: "supply", effect: "check" },
  ],
  occasional: true,
  stock: { field: "stock", of: ({ from }) => from },
  tolerance: { default: TOLERANCE, unit: "percent", label: "Largest difference of the best value, of the range" },
  recheck: { defaultDays: 180, why: "Sources age, and stock differs from batch to batch." },
  plan: rampPlan,
  round: rampRound,
  expected: anywhere,
  solve: solveRamp,
  next: nextRamp,
  judge: judgeRamp,
  overlay: placesRead,
  detail: stripDetail,
});

/** Anywhere on the strip: what an earlier ramp showed would lead the eye. */
function anywhere({ rounds }: History<RampPlan>, site: string): Measured | null {
  const plan = rounds.at(-1)?.plan;
  if (!plan) return null;
  const quarter = plan.lengthMm / 4;
  const isNearWeak = site === BEGINS_SITE;
  const fromWeak = isNearWeak ? quarter : site === TOO_MUCH_SITE ? 3 * quarter : 2 * quarter;
  return measured(weakEnd(plan) === "start" ? fromWeak : plan.lengthMm - fromWeak, 2 * quarter, Infinity);
}

/** Lines across the strip where it was read. */
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
  return [...line(last.begins, "faint"), ...line(last.best, "needs you"), ...line(last.tooMuch, "faint")];
}
