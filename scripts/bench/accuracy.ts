/** What is promised of results: how much stagger is left, and how often intervals hold the truth. The errors that were simulated stand beside each. */
import { accuracyCases, CALIPER_ERRORS, summaryOf } from "../../src/testing/rehearsal/scan-offset-accuracy";
import { above, below, between, type Line } from "./line";

const SECOND_SEEDS = 50_000;

export function accuracy(): Line[] {
  const whole = summaryOf(accuracyCases(1000, 300, CALIPER_ERRORS));
  const second = summaryOf(accuracyCases(SECOND_SEEDS, 300, CALIPER_ERRORS));
  const random = summaryOf(accuracyCases(7000, 2000, { ...CALIPER_ERRORS, limitMm: 0, jaws: false }));
  const randomSecond = summaryOf(accuracyCases(SECOND_SEEDS, 2000, { ...CALIPER_ERRORS, limitMm: 0, jaws: false }));
  const common = summaryOf(accuracyCases(SECOND_SEEDS, 2000, CALIPER_ERRORS));
  const errors = "play, lags, scale, row ends, placing 0.02, step 0.01, common ±0.02 mm";
  const quiet = summaryOf(
    accuracyCases(300, 50, { placingMm: 0, limitMm: 0, resolutionMm: 0, jaws: false, noise: false }),
  );
  return [
    { what: `stagger left under 0.03 mm at every speed (${errors})`, ...above(100 * whole.shareUnder30um, 99, "%") },
    { what: "the same, second seeds", ...above(100 * second.shareUnder30um, 99, "%") },
    { what: "median of the worst speed", ...below(1000 * whole.medianWorstMm, 12, "µm") },
    { what: "the same, second seeds", ...below(1000 * second.medianWorstMm, 12, "µm") },
    {
      what: "largest stagger left, all noise off (rounding of 0.001 mm a direction)",
      ...below(1000 * quiet.worstMm, 1, "µm"),
    },
    ...coverage("random parts only", random, (c, what) => ({ what, ...between(c, 93.5, 96.5, "%") })),
    ...coverage("random parts only, second seeds", randomSecond, (c, what) => ({
      what,
      ...between(c, 93.5, 96.5, "%"),
    })),
    ...coverage("common errors too", common, (c, what) => ({ what, ...above(c, 93, "%") })),
    {
      what: "the same, mean of all numbers",
      ...above((100 * sum(common.estimates.map((e) => e.coverage))) / common.estimates.length, 94, "%"),
    },
    {
      what: "widest mean half width by rms error, common errors too",
      ...below(Math.max(...common.estimates.map((e) => e.widthByError)), 2.6, "times"),
    },
  ];
}

function sum(values: readonly number[]): number {
  return values.reduce((total, v) => total + v, 0);
}

/** The least and the most of all reported numbers: lag, constant part and offsets, first round and proof. */
function coverage(
  errors: string,
  summary: ReturnType<typeof summaryOf>,
  line: (percent: number, what: string) => Line,
) {
  const all = summary.estimates.map((e) => 100 * e.coverage);
  return [
    line(Math.min(...all), `95 % intervals that hold the truth, ${errors}: least of ${all.length} numbers`),
    line(Math.max(...all), "the same, most"),
  ];
}
