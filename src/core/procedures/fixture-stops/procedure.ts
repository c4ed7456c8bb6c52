/** Fixture stops: where a fixture or pallet stands in the working area, so that work can be placed by its stops. */

import { axesOf } from "../../measuring/axes-field";
import { edgeDetail } from "../../measuring/edge-distance/detail";
import { judgeEdges } from "../../measuring/edge-distance/judge";
import type { ProofPlan } from "../../measuring/plain-course";
import type { History } from "../../trial/history";
import type { Correction, Outcome } from "../../trial/outcome";
import { AXIS_SCALE } from "../axis-scale/setting";
import { defineProcedure } from "../contract";
import { HOME_OFFSET } from "../origin/setting";
import { fixtureRound } from "./coupon";
import { type FixturePlan, fixturePlan, planWarnings } from "./plan";
import { FIXTURE_STOP, FIXTURE_STOPS } from "./setting";
import { observeStops, solveFixture, stopsIn } from "./solve";

export const fixtureStops = defineProcedure<FixturePlan>({
  id: "fixture-stops",
  title: "Fixture stops",
  summary: "Where the stops of a fixture or pallet stand",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: FIXTURE_STOPS,
  needs: [
    { on: "setting", what: AXIS_SCALE.x, effect: "stale", why: "the axis scale was changed" },
    { on: "setting", what: AXIS_SCALE.y, effect: "stale", why: "the axis scale was changed" },
    { on: "setting", what: HOME_OFFSET.x, effect: "stale", why: "the home offset was changed" },
    { on: "setting", what: HOME_OFFSET.y, effect: "stale", why: "the home offset was changed" },
    { on: "change", what: "home", effect: "stale" },
    { on: "change", what: "bed", effect: "stale" },
    { on: "change", what: "mirrors", effect: "stale" },
    { on: "change", what: "belt", effect: "check" },
  ],
  occasional: true,
  tolerance: { default: 0.25, unit: "mm", label: "Largest distance from where it is drawn" },
  recheck: { defaultDays: 90, why: "Fixtures are taken off and put back." },
  plan: fixturePlan,
  sets: (plan) => axesOf(plan).map((axis) => FIXTURE_STOP[axis]),
  warnings: planWarnings,
  round: fixtureRound,
  observe: observeStops,
  solve: solveFixture,
  words: {
    read: "Measure from the stops first.",
    prove: "Burn another cross, placed by the new stops.",
    proved: "Proved: work can be placed by the stops.",
    holding: "Still valid. Change nothing.",
  },
  proof: proofOf,
  judge: judgeEdges("stop", stopsIn),
  detail: edgeDetail,
});

function proofOf({ rounds }: History<FixturePlan>, outcome: Outcome): ProofPlan<FixturePlan> {
  const last = rounds.at(-1);
  const corrections = outcome.status === "solved" ? outcome.corrections : [];
  if (!last) return { why: "Measure from the stops first." };
  return { plan: placedBy(last.plan, corrections), set: corrections.map((c) => c.setting) };
}

/** The same cross, placed by the stops as they were found. */
function placedBy(plan: FixturePlan, corrections: readonly Correction[]): FixturePlan {
  const found = (setting: string, old: number) => {
    const value = corrections.find((c) => c.setting === setting)?.newValue;
    return value?.shape === "scalar" ? value.value : old;
  };
  return { ...plan, aboutXMm: found(FIXTURE_STOP.x, plan.aboutXMm), aboutYMm: found(FIXTURE_STOP.y, plan.aboutYMm) };
}
