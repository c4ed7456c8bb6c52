/**
 * A procedure to begin a new one from: a bar is burned and measured, and what it is too long or too short is corrected. It is never
 * listed; `npm run new:procedure` copies its folder under another name.
 */
import { scalarSetting } from "../../settings/declared";
import { defineProcedure } from "../contract";
import { roundOf } from "./coupon";
import { detailOf } from "./detail";
import { judge } from "./judge";
import { SAMPLE_BAR, type SampleBarPlan, sampleBarPlan } from "./plan";
import { solve } from "./solve";

export const sampleBar = defineProcedure<SampleBarPlan>({
  id: "sample-bar",
  title: "Sample bar",
  summary: "A bar comes out as long as it is drawn",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: [scalarSetting({ key: SAMPLE_BAR, label: "Sample bar offset", acts: { on: "next burn" }, copied: true })],
  needs: [],
  tolerance: { default: 0.1, unit: "mm", label: "Largest error of length left" },
  recheck: { defaultDays: 180, why: "Nothing of it wears quickly." },
  plan: sampleBarPlan,
  round: roundOf,
  solve,
  next: (history, outcome) => {
    const last = history.rounds.at(-1);
    if (!last || outcome.status !== "solved") return { do: "read", sites: [], why: "Measure the bar." };
    if (last.purpose !== "measure") return { do: "stop", why: "The proof is read." };
    return { do: "round", purpose: "proof", plan: last.plan, set: [SAMPLE_BAR], why: "Burn the bar once more." };
  },
  judge,
  detail: detailOf,
});
