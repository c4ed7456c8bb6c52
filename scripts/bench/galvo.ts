/** The field of a galvo after one correction, its intervals, and how many burns coefficients of unknown effect take. The errors stand beside each. */
import { galvoField } from "../../src/core/procedures/field/procedure";
import { type FieldCase, fieldCoverage, fieldTrial } from "../../src/testing/rehearsal/field-accuracy";
import { above, below, between, type Line } from "./line";

const SEEDS = Array.from({ length: 300 }, (_, i) => i + 1);
const SOME = SEEDS.slice(0, 100);
const MOST_BURNS = 6;

/** Worst point over the field, mm: median and 95 %. */
const GOALS: readonly { c: FieldCase; what: string; median: number; most: number }[] = [
  {
    c: { way: "seven", gauge: "calipers", effects: "known" },
    what: "calipers, seven settings",
    median: 0.15,
    most: 0.27,
  },
  {
    c: { way: "nine", gauge: "calipers", effects: "known" },
    what: "calipers, own cubics set as well",
    median: 0.09,
    most: 0.14,
  },
  { c: { way: "seven", gauge: "rule", effects: "known" }, what: "a rule, seven settings", median: 0.28, most: 0.4 },
];
const HEADS = "two mirrors, lens, own cubics, sizes, skew, tilt 0.3°, height 0.3 mm";

export function galvo(): Line[] {
  return [...GOALS.flatMap(accuracyOf), ...tableOf(), ...coverageOf(), ...burnsOf()];
}

function accuracyOf({ c, what, median, most }: (typeof GOALS)[number]): Line[] {
  const trials = SEEDS.map((seed) => fieldTrial(seed, c, 1));
  const after = trials.map((t) => t.after[0] ?? Number.NaN);
  const worse = trials.filter((t) => (t.after[0] ?? Number.NaN) > t.before).length;
  const errors =
    c.gauge === "rule" ? "placing 0.15, step 0.5, common ±0.2 mm" : "placing 0.02, step 0.01, common ±0.02 mm";
  return [
    {
      what: `farthest point after one correction, ${what}: median of 300 heads (${HEADS}; ${errors})`,
      ...below(quantile(after, 0.5), median, "mm"),
    },
    { what: "the same, 95 % of heads", ...below(quantile(after, 0.95), most, "mm") },
    { what: "heads that are worse than before", ...below(worse, 1, "heads") },
  ];
}

/** The whole map, inverted exactly, as a table or bent artwork takes it. */
function tableOf(): Line[] {
  const table = SEEDS.map((seed) => fieldTrial(seed, { way: "nine", gauge: "calipers", effects: "known" }, 1).table);
  return [
    {
      what: "farthest point with the exact inverse of the map, calipers and quarter ticks: median",
      ...below(quantile(table, 0.5), 0.07, "mm"),
    },
    { what: "the same, 95 % of heads", ...below(quantile(table, 0.95), 0.11, "mm") },
  ];
}

function coverageOf(): Line[] {
  return (["calipers", "rule"] as const).map((gauge) => {
    const { held, of } = fieldCoverage(SEEDS, { way: "seven", gauge, effects: "known" });
    return {
      what: `95 % intervals that hold what the same solver finds without noise, ${gauge}, ${of} numbers`,
      ...between((100 * held) / of, 92, 98.5, "%"),
    };
  });
}

/** Burns until the field is proved, counted with the first reading; every coefficient is tuned at once. */
function burnsOf(): Line[] {
  const burns = SOME.map((seed) => {
    const { history } = fieldTrial(seed, { way: "seven", gauge: "calipers", effects: "not known" }, MOST_BURNS);
    const rounds = history.rounds;
    const at = rounds.findIndex(
      (_, i) => i > 0 && galvoField.judge({ ...history, rounds: rounds.slice(0, i + 1) })?.result === "proved",
    );
    return at < 0 ? MOST_BURNS + 1 : at + 1;
  });
  const inFive = burns.filter((b) => b <= 5).length;
  return [
    {
      what: "fields proved within 5 burns, no effect of five coefficients known, responses curved by up to 10 %",
      ...above((100 * inFive) / burns.length, 95, "%"),
    },
    { what: "the same, median of burns", ...below(quantile(burns, 0.5), 5, "burns") },
  ];
}

function quantile(values: readonly number[], share: number): number {
  return (
    [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? Number.NaN
  );
}
