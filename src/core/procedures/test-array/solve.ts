/** Result of an array: the best settings, the loss of the chosen cell with its uncertainty, and the entry for the stock card. */
import { hexOfLab } from "../../colour/lab";
import { elementAt } from "../../fitting/element-at";
import { LEAST_CELLS, LEAST_COMPARISONS } from "../../marking/array-answer";
import type { Span } from "../../marking/array-given";
import {
  CELL_SETTINGS,
  type CellSetting,
  internalValue,
  settingValue,
  unitOf,
  valueText,
} from "../../marking/cell-settings";
import { markingResult } from "../../marking/marking-result";
import { newestRead } from "../../measuring/examined";
import { type Budgeted, joined } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed, plain } from "../../metrology/quantity-text";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Estimate, ResultTable, StockResult } from "../../trial/outcome";
import { settingsOnEdges } from "./cells";
import { figuresOf } from "./figures";
import { findingsOf } from "./findings";
import { type Found, type FoundOrWhy, fastestOf, foundIn } from "./found";
import { purposeOf, SCORES, type Score, type TestArrayPlan } from "./plan";
import { readScores } from "./read-scores";
import { HALF_95, shortOf } from "./short";

/** Rows of the table of results. */
const SHOWN_CELLS = 8;

export function solveTestArray(history: History<TestArrayPlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "No cell is read yet." };
  const finding = foundIn(history, round);
  if (!finding.ok) return withoutAnswer(history, round, finding.reason);
  const { found } = finding;
  const short = shortOf(found, found.answer.chosen);
  return {
    status: "solved",
    estimates: estimatesOf(found, short, round.plan),
    findings: findingsOf(history, round, found),
    table: tableOf(found, round.plan),
    figures: figuresOf(history, round, found),
    forStock: resultOf(history, round, found, short),
    predicted: `Mark with ${settingsOnEdges(round.plan, found.chosen.cell.settings)}. ${EXPECT[found.by](`${plain(100 * most(short), 1)} %`)}`,
  };
}

function withoutAnswer(
  history: History<TestArrayPlan>,
  round: RoundRecord<TestArrayPlan>,
  reason: Extract<FoundOrWhy, { ok: false }>["reason"],
): GivenOutcome {
  if (reason === "nothing read") return { status: "open", missing: "No cell is scored yet." };
  if (reason === "few")
    return {
      status: "open",
      missing:
        round.plan.score === "comparisons"
          ? `Make at least ${LEAST_COMPARISONS} comparisons.`
          : `Score at least ${LEAST_CELLS} cells.`,
    };
  if (reason === "none good")
    return {
      status: "unsolvable",
      reason: "Every cell is no good. Burn another array with less energy: less power, more speed or fewer passes.",
    };
  if (reason === "none passes")
    return {
      status: "unsolvable",
      reason: `No cell is ${round.plan.fill === "cut" ? "cut through" : "marked"}. Burn another array with more energy: more power, less speed or more passes.`,
    };
  if (reason === "below blank")
    return {
      status: "unsolvable",
      reason:
        "No cell is darker than the blank stock. Read the picture again and select “Marks are brighter than the stock”.",
    };
  const scores = readScores(history, round).flatMap((r) => r.score ?? []);
  return {
    status: "unsolvable",
    reason: scores.every((s) => s === 0)
      ? "No cell shows a mark. Burn another array with more energy: more power, less speed or more passes."
      : "All cells have the same score. Check that the picture shows this coupon, or burn an array with a wider range.",
  };
}

function most({ quantity }: Budgeted): number {
  return quantity.value + expandedUncertainty(quantity);
}

const EXPECT: Record<Found["by"], (most: string) => string> = {
  taps: lossText,
  comparisons: lossText,
  scores: lossText,
  colour: (most) =>
    `Expect a colour at most ${most.replace(" %", "")} ΔE farther from the wanted one than the nearest.`,
  "yes or no": (most) => `Expect at most ${most} of the marks to fail.`,
};

function lossText(most: string): string {
  return `Expect at most ${most} less than the best of these settings.`;
}

/** Names of the loss, of the result and on the card. */
const SHORT: Record<Found["by"], { result: string; card: string }> = {
  taps: { result: "Chosen cell short of the best", card: "Short of the best" },
  comparisons: { result: "Chosen cell short of the best", card: "Short of the best" },
  scores: { result: "Chosen cell short of the best", card: "Short of the best" },
  colour: { result: "Chosen cell beyond the nearest colour", card: "Beyond the nearest colour" },
  "yes or no": { result: "Chance that the chosen cell fails", card: "Chance of failing" },
};

const HELPS: Record<Found["by"], string> = {
  taps: "Score the array from a scan.",
  comparisons: "Make more comparisons.",
  colour: "Burn a second array around the best cell.",
  "yes or no": "Burn the chosen cell and its neighbours again.",
  scores: "Burn a second array around the best cell.",
};

function estimatesOf({ answer, by }: Found, short: Budgeted, plan: TestArrayPlan): Estimate[] {
  const best = (key: CellSetting, at: number, span: Span) =>
    estimate(`best ${key}`, `${BEST[by]} ${CELL_SETTINGS[key].label.toLowerCase()}`, bestOf(key, at, span), {
      unit: unitOf(key),
      helps: "Burn a second array around the best cell.",
    });
  return [
    estimate("short", SHORT[by].result, short, {
      unit: by === "colour" ? "colourDifference" : "percent",
      headline: true,
      helps: HELPS[by],
    }),
    best(plan.across, answer.peak.x, answer.best.x),
    best(plan.up, answer.peak.y, answer.best.y),
  ];
}

const BEST: Record<Found["by"], string> = {
  taps: "Best",
  comparisons: "Best",
  scores: "Best",
  colour: "Nearest colour:",
  "yes or no": "Fastest that passes:",
};

/** The value at the peak of the map; where the best may lie is its uncertainty. */
function bestOf(key: CellSetting, at: number, { low, high }: Span): Budgeted {
  const value = (v: number) => internalValue(key, CELL_SETTINGS[key].byRatio ? Math.exp(v) : v);
  return joined(value(at), [
    {
      id: "response",
      label: "Where the best of the response may lie",
      kind: "A",
      standardUncertainty: Math.max(1e-6, (value(high) - value(low)) / (2 * HALF_95)),
      degreesOfFreedom: "infinite",
    },
  ]);
}

function tableOf({ answer, reads, by }: Found, plan: TestArrayPlan): ResultTable {
  const order = reads
    .map((read, i) => ({ ...read, expected: elementAt(answer.expected, i), i }))
    .filter((r) => r.score !== null && !r.noGood)
    .sort((a, b) => Number(b.i === answer.chosen) - Number(a.i === answer.chosen) || b.expected - a.expected)
    .slice(0, SHOWN_CELLS);
  const best = Math.max(answer.peak.value, elementAt(answer.expected, answer.chosen));
  const { name: column, decimals } = SCORE_COLUMN[plan.score];
  return {
    title: "Best cells",
    columns: ["Cell", CELL_SETTINGS[plan.across].label, CELL_SETTINGS[plan.up].label, column],
    resultLabel: RESULT_LABELS[by] ?? "of the best, %",
    rows: order.map(({ cell, name, score, expected, i }) => ({
      label: name,
      sites: [],
      cells: [
        valueText(plan.across, cell.settings[plan.across]),
        valueText(plan.up, cell.settings[plan.up]),
        fixed(score ?? 0, decimals),
      ],
      result: by === "colour" ? fixed(-expected, 1) : best > 0 ? fixed((100 * expected) / best, 1) : "–",
      state: i === answer.chosen ? ("read" as const) : ("from the fit" as const),
    })),
  };
}

const RESULT_LABELS: Partial<Record<Found["by"], string>> = { "yes or no": "passes, %", colour: "expected, ΔE" };

const SCORE_COLUMN: Record<Score, { name: string; decimals: number }> = {
  darkness: { name: "darkness", decimals: 3 },
  contrast: { name: "contrast", decimals: 3 },
  evenness: { name: "evenness", decimals: 3 },
  sharpness: { name: "sharpness, 1/mm", decimals: 3 },
  eye: { name: "by eye", decimals: 1 },
  comparisons: { name: "won, of 1", decimals: 2 },
  "yes or no": { name: "passed, of 1", decimals: 0 },
  depth: { name: "depth, mm", decimals: 3 },
  colour: { name: "from the wanted, −ΔE", decimals: 1 },
};

const ARITHMETIC: Record<Found["by"], (most: string) => string> = {
  taps: (most) =>
    `The eye judges one cell with a repeatability of 4 %. The chosen cell is at most ${most} short of the best.`,
  comparisons: (most) =>
    `In 95 of 100 responses that fit the comparisons, the best compared cell is at most ${most} above this cell.`,
  "yes or no": (most) =>
    `In 95 of 100 responses that fit the outcomes, this cell fails with a chance of at most ${most}.`,
  colour: (most) =>
    `In 95 of 100 responses that fit the colours, the nearest colour is at most ${most.replace(" %", "")} ΔE nearer than this cell.`,
  scores: (most) => `In 95 of 100 responses that fit the scores, the best is at most ${most} above this cell.`,
};

function resultOf(
  { machine }: History<TestArrayPlan>,
  { plan }: RoundRecord<TestArrayPlan>,
  found: Found,
  short: Budgeted,
): StockResult {
  const { answer, reads } = found;
  const { cell: chosen, name } = found.chosen;
  const fastest = fastestOf(found, plan);
  const scored = reads.filter((r) => r.score !== null).length;
  const within = (key: CellSetting, { low, high }: Span) => {
    const text = (v: number) => plain(CELL_SETTINGS[key].byRatio ? Math.exp(v) : v, CELL_SETTINGS[key].decimals);
    const { label, unit } = CELL_SETTINGS[key];
    return {
      label: `${BEST[found.by]} ${label.toLowerCase()}, 95 %`,
      text: `${text(low)} to ${text(high)} ${unit}`.trim(),
    };
  };
  return markingResult({
    stock: plan.stock,
    from: plan.from,
    purpose: purposeOf(plan),
    machine,
    lens: plan.lens,
    settings: chosen.settings,
    dose: chosen.dose,
    varied: [settingValue(plan.across, chosen.settings[plan.across]), settingValue(plan.up, chosen.settings[plan.up])],
    quality: [
      {
        id: "short",
        label: SHORT[found.by].card,
        quantity: short.quantity,
        unit: found.by === "colour" ? "colourDifference" : "percent",
      },
    ],
    scoredBy: SCORES[plan.score],
    conditions: [
      within(plan.across, answer.best.x),
      within(plan.up, answer.best.y),
      ...(fastest ? [{ label: "As good and fastest", text: settingsOnEdges(plan, fastest.cell.settings) }] : []),
    ],
    arithmetic: [
      found.by === "yes or no"
        ? `Cell ${name} is the fastest of ${answer.asGood.length} cells that pass with certainty; ${scored} cells were judged.`
        : `Cell ${name} of ${scored} judged cells has the ${found.by === "colour" ? "smallest expected difference from the wanted colour" : "largest expected score"}.`,
      ARITHMETIC[found.by](`${plain(100 * most(short), 1)} %`),
    ],
    ...paletteOf(found, plan),
  });
}

/** All colours that were read, the nearest to the wanted one first. */
function paletteOf({ reads }: Found, plan: TestArrayPlan): { palette?: NonNullable<StockResult["palette"]> } {
  const coloured = reads.filter((r) => r.colour && !r.noGood).sort((a, b) => (b.score ?? 0) - (a.score ?? 0));
  if (coloured.length === 0) return {};
  const short = (v: number) => Number(v.toFixed(1));
  return {
    palette: coloured.flatMap(({ cell, colour }) =>
      colour
        ? [
            {
              hex: hexOfLab(colour),
              l: short(colour.l),
              a: short(colour.a),
              b: short(colour.b),
              settings: settingsOnEdges(plan, cell.settings),
            },
          ]
        : [],
    ),
  };
}
