/**
 * A procedure to begin a new one from: a bar is burned and measured, and the scale is corrected by which it comes out too long or too short.
 * `npm run new:procedure` copies its folder under another name.
 */
import { judgeErrors, oneError } from "../../core/measuring/judge-errors";
import { expandedUncertainty } from "../../core/metrology/measured";
import { fixed } from "../../core/metrology/quantity-text";
import { defineProcedure } from "../../core/procedures/contract";
import { roundOf } from "./coupon";
import { detailOf } from "./detail";
import { type SampleBarPlan, sampleBarPlan } from "./plan";
import { errorIn, observe, SAMPLE_BAR_SCALE, solve } from "./solve";

export const sampleBar = defineProcedure<SampleBarPlan>({
  id: "sample-bar",
  title: "Sample bar",
  summary: "A bar comes out as long as it is drawn",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: [SAMPLE_BAR_SCALE],
  needs: [{ on: "change", what: "belt", effect: "stale" }],
  occasional: true,
  tolerance: { default: 0.001, unit: "percent", label: "Largest error of length" },
  recheck: { defaultDays: 180, why: "Belts stretch." },
  plan: sampleBarPlan,
  round: roundOf,
  observe,
  solve,
  words: {
    read: "Measure the bar.",
    prove: "Enter the new value, then burn the bar again.",
    proved: "Proved: the bar is as long as it is drawn.",
    holding: "Still valid. Change nothing.",
  },
  judge: judgeErrors<SampleBarPlan, "">({
    unit: "percent",
    errors: oneError("Error of length", (history, round) => errorIn(history, round)?.quantity),
    text: ({ error }) =>
      `The bar is ${fixed(100 * Math.abs(error.value), 3)} ± ${fixed(100 * expandedUncertainty(error), 3)} % too ${error.value < 0 ? "short" : "long"}`,
    advice: {
      proved: "Change nothing.",
      "not proved": "Enter the value from Correct, and burn the bar again.",
      "cannot tell": "Take more readings, or burn a longer bar.",
    },
    asFound: "error of length",
    became: () => ({
      unchanged: { headline: "The bar is as it was.", text: "Check that the new value is stored." },
      doubled: {
        headline: "The error has doubled.",
        text: "A larger value makes marks shorter here. Enter that on the machine page.",
      },
    }),
  }),
  detail: detailOf,
});
