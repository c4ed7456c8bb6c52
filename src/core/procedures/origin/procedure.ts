/** Origin: whether marks lie where they are drawn from the edges of the stock, and the home offsets that make it so. */

import { axesOf } from "../../measuring/axes-field";
import { edgeDetail } from "../../measuring/edge-distance/detail";
import { judgeEdges } from "../../measuring/edge-distance/judge";
import { AXIS_SCALE } from "../axis-scale/setting";
import { defineProcedure } from "../contract";
import { originRound } from "./coupon";
import { edgesIn, observeOrigin } from "./observe";
import { type OriginPlan, originPlan, planWarnings } from "./plan";
import { HOME_OFFSET, HOME_OFFSETS } from "./setting";
import { solveOrigin } from "./solve";

export const origin = defineProcedure<OriginPlan>({
  id: "origin",
  title: "Origin",
  summary: "Marks lie where they are drawn from the edges of the stock",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: HOME_OFFSETS,
  needs: [
    { on: "setting", what: AXIS_SCALE.x, effect: "stale", why: "the axis scale was changed" },
    { on: "setting", what: AXIS_SCALE.y, effect: "stale", why: "the axis scale was changed" },
    { on: "change", what: "home", effect: "stale" },
    { on: "change", what: "bed", effect: "stale" },
    { on: "change", what: "belt", effect: "stale" },
    { on: "change", what: "motor", effect: "stale" },
    { on: "change", what: "driver", effect: "stale" },
    { on: "change", what: "mirrors", effect: "stale" },
    { on: "change", what: "gantry", effect: "check" },
  ],
  occasional: true,
  tolerance: { default: 0.25, unit: "mm", label: "Largest distance from where it is drawn" },
  recheck: { defaultDays: 180, why: "Switches and stops are knocked." },
  plan: originPlan,
  sets: (plan) => axesOf(plan).map((axis) => HOME_OFFSET[axis]),
  warnings: planWarnings,
  round: originRound,
  observe: observeOrigin,
  solve: solveOrigin,
  words: {
    read: "Measure from the edges first.",
    prove: "Enter the new offset of each axis and read it back. Then burn the same box again.",
    proved: "Proved: marks are where they are drawn.",
    holding: "Still valid. Change nothing.",
  },
  judge: judgeEdges("edge", edgesIn),
  detail: edgeDetail,
});
