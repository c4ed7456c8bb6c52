/** Kerf: how much a cut takes away, by stock, and the offset per side that makes up for it. */

import { predictedReading } from "../../measuring/examined";
import { type Measured, measured } from "../../metrology/measured";
import { cardOf } from "../../stock/stock-at-hand";
import type { History } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { AXIS_SCALE } from "../axis-scale/setting";
import { defineProcedure } from "../contract";
import { FOCUS_HEIGHT } from "../focus/plan";
import { kerfRound } from "./coupon";
import { detailOf } from "./detail";
import { kerfIn } from "./found";
import { judgeSizes } from "./judge";
import { cutSideMm } from "./layout";
import { mateSuspects } from "./mate-suspects";
import { nextKerf } from "./next-round";
import { isMateWay, type KerfPlan } from "./plan";
import { DEFAULT_TOLERANCE_MM, kerfPlan, planWarnings } from "./plan-faults";
import { observeCuts } from "./read-cuts";
import { solveKerf } from "./solve";

/** Before anything is known a cut takes about this, give or take as much, mm. (common practice, no source) */
const USUAL_KERF_MM = 0.2;

export const kerf = defineProcedure<KerfPlan>({
  id: "kerf",
  title: "Kerf",
  summary: "What is cut comes out as it is drawn, stock by stock",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: [],
  needs: [
    { on: "optic", effect: "stale" },
    { on: "setting", what: FOCUS_HEIGHT, effect: "stale", why: "the focus height was changed" },
    { on: "change", what: "tube", effect: "stale" },
    { on: "setting", what: AXIS_SCALE.x, effect: "check", why: "the scale of X was changed" },
    { on: "setting", what: AXIS_SCALE.y, effect: "check", why: "the scale of Y was changed" },
    { on: "change", what: "mirrors", effect: "check" },
    { on: "change", what: "supply", effect: "check" },
  ],
  occasional: true,
  stock: { field: "stock", of: ({ stock: key, from }) => (from ? { key, ...from } : null) },
  tolerance: { default: DEFAULT_TOLERANCE_MM, unit: "mm", label: "Largest error of the offset per side left" },
  recheck: { defaultDays: 365, why: "Beams and lenses age, and stock differs from batch to batch." },
  plan: kerfPlan,
  warnings: planWarnings,
  round: kerfRound,
  checkPlan: (last, context) => ({ ...last, stock: newestBatch(last.stock, context) }),
  expected: expectedSize,
  observe: observeCuts,
  solve: solveKerf,
  judged: (history, round) => {
    const snug = kerfIn(history, round)?.snug;
    return snug ? { label: "the snug offset per side", quantity: snug } : null;
  },
  contradicting: mateSuspects,
  next: nextKerf,
  judge: judgeSizes,
  overlay: () => [],
  detail: detailOf,
});

/** By the other sizes; before they tell, as drawn with a usual cut. */
function expectedSize(history: History<KerfPlan>, site: string): Measured | null {
  const plan = history.rounds.at(-1)?.plan;
  if (!plan || isMateWay(plan.way)) return null;
  const predicted = predictedReading(observeCuts, history, site);
  if (predicted) return predicted;
  if (plan.way === "comb") return measured(USUAL_KERF_MM * plan.cuts, USUAL_KERF_MM * plan.cuts, Infinity);
  const side = cutSideMm(plan) + (site.startsWith("part") ? -USUAL_KERF_MM : USUAL_KERF_MM);
  return measured(side, 2 * USUAL_KERF_MM, Infinity);
}

/** Of the same stock, the batch at hand; as it was where there is none. */
function newestBatch(key: string, { stocks = [] }: PlanContext): string {
  return stocks.find((s) => cardOf(s.key) === cardOf(key))?.key ?? key;
}
