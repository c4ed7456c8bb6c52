/** Test array: cells with two settings varied show the best marking settings for a stock. */

import { defineProcedure } from "../contract";
import { testArrayRound } from "./coupon";
import { detailOf } from "./detail";
import { testArrayEdges } from "./edges";
import { responsesOf } from "./found";
import { judgeTestArray } from "./judge";
import { MARKING_NEEDS, MARKING_RECHECK } from "./needs";
import { nextTestArray } from "./next-round";
import type { TestArrayPlan } from "./plan";
import { planWarnings, testArrayPlan } from "./plan-faults";
import { solveTestArray } from "./solve";

/** The eye sees a difference of about this share. (common practice, no source) */
const TOLERANCE = 0.05;

export const testArray = defineProcedure<TestArrayPlan>({
  id: "test-array",
  title: "Test array",
  summary: "The best marking settings for a stock, from cells with two settings varied",
  machineKinds: ["CO2 gantry", "diode gantry", "galvo"],
  settings: [],
  needs: MARKING_NEEDS,
  occasional: true,
  stock: { field: "stock", of: ({ from }) => from },
  tolerance: { default: TOLERANCE, unit: "percent", label: "Largest loss against the best" },
  recheck: MARKING_RECHECK,
  edges: testArrayEdges,
  plan: testArrayPlan,
  warnings: planWarnings,
  round: testArrayRound,
  checkPlan: (last) => last,
  expected: () => null,
  solve: solveTestArray,
  responses: responsesOf,
  next: nextTestArray,
  judge: judgeTestArray,
  overlay: () => [],
  detail: detailOf,
});
