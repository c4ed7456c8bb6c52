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
import { WAYS } from "./ways";

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
    predicted: `Mark with ${settingsOnEdges(round.plan, found.chosen.cell.settings)}. ${WAYS[found.by].expect(mostText(found, short))}`,
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

/** The loss that holds in 95 of 100. */
function mostText({ by }: Found, { quantity }: Budgeted): string {
  return WAYS[by].size(quantity.value + expandedUncertainty(quantity));
}

function estimatesOf({ answer, by }: Found, short: Budgeted, plan: TestArrayPlan): Estimate[] {
  const words = WAYS[by];
  const best = (key: CellSetting, at: number, span: Span) =>
    estimate(`best ${key}`, `${words.best} ${CELL_SETTINGS[key].label.toLowerCase()}`, bestOf(key, at, span), {
      unit: unitOf(key),
      helps: "Burn a second array around the best cell.",
    });
  return [
    estimate("short", words.result, short, { unit: words.unit, headline: true, helps: words.helps }),
    best(plan.across, answer.peak.x, answer.best.x),
    best(plan.up, answer.peak.y, answer.best.y),
  ];
}

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
    resultLabel: WAYS[by].table,
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

function resultOf(
  { machine }: History<TestArrayPlan>,
  { plan }: RoundRecord<TestArrayPlan>,
  found: Found,
  short: Budgeted,
): StockResult {
  const { answer, reads, by } = found;
  const words = WAYS[by];
  const { cell: chosen, name } = found.chosen;
  const fastest = fastestOf(found, plan);
  const scored = reads.filter((r) => r.score !== null).length;
  const within = (key: CellSetting, { low, high }: Span) => {
    const text = (v: number) => plain(CELL_SETTINGS[key].byRatio ? Math.exp(v) : v, CELL_SETTINGS[key].decimals);
    const { label, unit } = CELL_SETTINGS[key];
    return {
      label: `${words.best} ${label.toLowerCase()}, 95 %`,
      text: `${text(low) === text(high) ? text(low) : `${text(low)} to ${text(high)}`} ${unit}`.trim(),
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
    quality: [{ id: "short", label: words.card, quantity: short.quantity, unit: words.unit }],
    scoredBy: SCORES[plan.score],
    conditions: [
      within(plan.across, answer.best.x),
      within(plan.up, answer.best.y),
      ...(fastest ? [{ label: "As good and fastest", text: settingsOnEdges(plan, fastest.cell.settings) }] : []),
    ],
    arithmetic: [`Cell ${name} of ${scored} judged cells ${words.chosenBy}.`, words.arithmetic(mostText(found, short))],
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
