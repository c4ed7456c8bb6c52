/** The response over both settings, on the array that showed it. */
import { hexOfLab } from "../../colour/lab";
import type { ResponseFigure } from "../../drawing/figure";
import type { ArrayAnswer, Span } from "../../marking/array-given";
import { along, CELL_SETTINGS, type CellSetting, valueText } from "../../marking/cell-settings";
import { type Dose, doseOf, energyText } from "../../marking/dose";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { type ArrayCell, arrayCells, sourceOf } from "./cells";
import type { Found } from "./found";
import { NO_BLOCKS, type TestArrayPlan } from "./plan";
import { isFromPicture } from "./read-scores";
import { WAYS } from "./ways";

const ENERGY_LINES = 5;
/** Points of a line of equal energy, and of the edge on which its values are looked for. */
const LINE_POINTS = 13;

export function figuresOf(
  { machine, rounds }: History<TestArrayPlan>,
  { plan }: RoundRecord<TestArrayPlan>,
  found: Found,
): ResponseFigure[] {
  const { answer, reads } = found;
  const { map, peak } = answer;
  const words = WAYS[found.by].figure;
  // Differences of colour are shown as they are.
  const share = (value: number) => (found.by === "colour" ? value : peak.value > 0 ? value / peak.value : 0);
  const block = plan.blocks === NO_BLOCKS ? "" : `, ${valueText(plan.blocks, found.chosen.cell.settings[plan.blocks])}`;
  const energy = energyLines(plan, found, (settings) => doseOf(settings, sourceOf(plan, machine)));
  const pictured = new Map(
    rounds.filter(isFromPicture).map((r) => [
      r.n,
      {
        burn: r.n,
        ids: arrayCells(r.plan, machine)
          .filter((c) => c.leftOut === null)
          .map((c) => c.id),
      },
    ]),
  );
  return [
    {
      kind: "response",
      id: "response",
      title: `${words.title}${block}`,
      x: axisOf(
        plan.across,
        map.x,
        reads.map((r) => r.cell.settings[plan.across]),
      ),
      y: axisOf(
        plan.up,
        map.y,
        reads.map((r) => r.cell.settings[plan.up]),
      ),
      map: { columns: map.columns, rows: map.rows, values: map.values.map((v) => (v === null ? null : share(v))) },
      cells: reads.map(({ cell, name, score, noGood, round, colour }, i) => ({
        x: along(plan.across, cell.settings[plan.across]),
        y: along(plan.up, cell.settings[plan.up]),
        label: name,
        score: score === null ? null : found.by === "comparisons" || found.by === "yes or no" ? score : share(score),
        state: stateOf(answer, i, score, noGood, cell),
        lines: linesOf(cell, plan, score),
        // A picture is grey, so a cell with a colour is shown in it.
        ...(colour ? { colour: hexOfLab(colour) } : pictureOf(cell, pictured.get(round))),
      })),
      best: {
        x: peak.x,
        y: peak.y,
        x0: answer.best.x.low,
        x1: answer.best.x.high,
        y0: answer.best.y.low,
        y1: answer.best.y.high,
      },
      energy,
      asGood: words.asGood,
      caption: [
        `The dashed frame contains the ${words.framed} with 95 % certainty.`,
        ...(energy.length > 0 ? ["Thin lines have equal energy."] : []),
      ].join(" "),
    },
  ];
}

function pictureOf({ id }: ArrayCell, burned: { burn: number; ids: readonly string[] } | undefined) {
  const index = burned?.ids.indexOf(id) ?? -1;
  return burned && index >= 0 ? { picture: { burn: burned.burn, index, of: burned.ids.length } } : {};
}

function stateOf(answer: ArrayAnswer, i: number, score: number | null, noGood: boolean, { leftOut }: ArrayCell) {
  if (leftOut !== null) return "left out";
  if (noGood) return "no good";
  if (i === answer.chosen) return "chosen";
  if (answer.odd.includes(i)) return "odd";
  return answer.asGood.includes(i) && score !== null ? "as good" : "read";
}

function scoreText({ score: by, fill }: TestArrayPlan, score: number): string {
  if (by === "comparisons") return `won ${plain(100 * score, 0)} % of its comparisons`;
  if (by === "colour") return `ΔE ${plain(-score, 1)} from the wanted colour`;
  if (by !== "yes or no") return `score ${plain(score, 3)}`;
  const how = fill === "cut" ? "cut through" : "marked";
  return score > 0 ? how : `not ${how}`;
}

/** What a cell is: its settings, what it got, and its score. */
export function linesOf(cell: ArrayCell, plan: TestArrayPlan, score: number | null): string[] {
  const { settings, dose } = cell;
  return [
    [plan.across, plan.up].map((key) => valueText(key, settings[key])).join(", "),
    `${plain(dose.watts, 2)} W, ${energyText(dose)}`,
    ...(dose.pulses
      ? [`pulses ${plain(1000 * dose.pulses.pitchMm, 1)} µm apart, overlap ${plain(100 * dose.pulses.overlap, 0)} %`]
      : []),
    ...(cell.leftOut ? [cell.leftOut] : []),
    ...(score === null ? [] : [scoreText(plan, score)]),
  ];
}

function axisOf(key: CellSetting, { low, high }: Span, values: readonly number[]): ResponseFigure["x"] {
  const { label, unit } = CELL_SETTINGS[key];
  const different = [...new Set(values)].sort((a, b) => a - b);
  return { label, unit, low, high, ticks: different.map((v) => ({ at: along(key, v), text: plain(v) })) };
}

/** Lines on which energy per area is the same, where both settings count by their ratios. */
function energyLines(
  plan: TestArrayPlan,
  { answer, chosen: { cell: chosen } }: Found,
  dose: (settings: ArrayCell["settings"]) => Dose,
): ResponseFigure["energy"] {
  const { x, y } = answer.map;
  if (!CELL_SETTINGS[plan.across].byRatio || !CELL_SETTINGS[plan.up].byRatio) return [];
  const at = (px: number, py: number) =>
    Math.log(dose({ ...chosen.settings, [plan.across]: Math.exp(px), [plan.up]: Math.exp(py) }).energy);
  // ln energy is a plane over both: energy goes with a power of each setting.
  const zero = at(x.low, y.low);
  const [ax, ay] = [(at(x.high, y.low) - zero) / (x.high - x.low), (at(x.low, y.high) - zero) / (y.high - y.low)];
  if (Math.abs(ay) < 1e-9) return [];
  const corners = [zero, at(x.high, y.low), at(x.low, y.high), at(x.high, y.high)];
  const [least, most] = [Math.min(...corners), Math.max(...corners)];
  return Array.from({ length: ENERGY_LINES }, (_, k) => {
    const level = least + ((k + 1) / (ENERGY_LINES + 1)) * (most - least);
    const points = Array.from({ length: LINE_POINTS }, (_, i) => {
      const px = x.low + (i / (LINE_POINTS - 1)) * (x.high - x.low);
      return { x: px, y: y.low + (level - zero - ax * (px - x.low)) / ay };
    }).filter((p) => p.y >= y.low - 1e-9 && p.y <= y.high + 1e-9);
    return { text: energyText({ energy: Math.exp(level), per: chosen.dose.per }), points };
  }).filter((line) => line.points.length > 1);
}
