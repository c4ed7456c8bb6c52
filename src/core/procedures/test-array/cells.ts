/** The cells of an array: settings, dose, place, and the reason why a cell is left out. */
import { elementAt } from "../../fitting/element-at";
import { seededDraws } from "../../fitting/seeded-draws";
import type { MachineSpec } from "../../machine/machine-spec";
import { type CellSetting, type CellSettings, settingText } from "../../marking/cell-settings";
import { type Dose, doseOf, energyText, type Source } from "../../marking/dose";
import { fastestRow } from "../../marking/run-up";
import { plain } from "../../metrology/quantity-text";
import { isFilled, NO_BLOCKS, PASSES_LIMIT, type TestArrayPlan } from "./plan";

export type ArrayCell = {
  /** `c12`. */
  id: string;
  settings: CellSettings;
  dose: Dose;
  /** Index of its value along each edge. */
  column: number;
  row: number;
  block: number;
  /** Place in the drawing, in columns, rows and blocks; another than its values where places are mixed. */
  place: { column: number; row: number; block: number };
  /** Pulses so far apart that they do not touch. */
  isApart: boolean;
  /** Why it is not burned; `null` = it is. */
  leftOut: string | null;
};

export type Edges = {
  across: number[];
  up: number[];
  blocks: number[];
};

/** Values along each edge; one block alone has no value. */
export function edgesOf(plan: TestArrayPlan): Edges {
  return {
    across: plan[plan.across],
    up: plan[plan.up],
    blocks: plan.blocks === NO_BLOCKS ? [0] : plan[plan.blocks],
  };
}

export function sourceOf(plan: TestArrayPlan, { kind }: MachineSpec): Source {
  return {
    wattsAtFull: plan.wattsAtFull,
    lineMm: plan.lineMm,
    isPulsed: kind === "galvo",
    isFilled: isFilled(plan),
  };
}

/** Block by block, row by row from the front, from left to right: the order in which they are called. */
export function arrayCells(plan: TestArrayPlan, machine: MachineSpec): ArrayCell[] {
  const edges = edgesOf(plan);
  const source = sourceOf(plan, machine);
  const [columns, rows] = [edges.across.length, edges.up.length];
  const count = columns * rows * edges.blocks.length;
  const places = plan.order === "mixed" ? mixed(count, plan.code) : Array.from({ length: count }, (_, i) => i);
  return places.map((placed, i): ArrayCell => {
    const at = (n: number) => ({
      column: n % columns,
      row: Math.floor(n / columns) % rows,
      block: Math.floor(n / (columns * rows)),
    });
    const values = at(i);
    const settings = settingsAt(plan, edges, values);
    const dose = doseOf(settings, source);
    return {
      id: `c${i + 1}`,
      settings,
      dose,
      ...values,
      place: at(placed),
      isApart: dose.pulses !== null && dose.pulses.overlap < 0,
      leftOut: whyLeftOut(plan, settings, dose, machine),
    };
  });
}

function settingsAt(
  plan: TestArrayPlan,
  edges: Edges,
  at: { column: number; row: number; block: number },
): CellSettings {
  const of = (key: CellSetting): number => {
    if (key === plan.across) return elementAt(edges.across, at.column);
    if (key === plan.up) return elementAt(edges.up, at.row);
    if (key === plan.blocks) return elementAt(edges.blocks, at.block);
    return elementAt(plan[key], 0);
  };
  return {
    speedMmPerS: of("speedMmPerS"),
    powerPct: of("powerPct"),
    rowPitchMm: of("rowPitchMm"),
    passes: of("passes"),
    pulseKHz: of("pulseKHz"),
    pulseNs: of("pulseNs"),
    aboveFocusMm: of("aboveFocusMm"),
    dwellMs: of("dwellMs"),
  };
}

/** Random places, the same for the same coupon. */
function mixed(count: number, code: string): number[] {
  const draws = seededDraws([...code].reduce((sum, c) => (31 * sum + (c.codePointAt(0) ?? 0)) % 2 ** 31, 7));
  const all = Array.from({ length: count }, (_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const j = Math.floor(draws.even() * (i + 1));
    const [a, b] = [elementAt(all, i), elementAt(all, j)];
    all[i] = b;
    all[j] = a;
  }
  return all;
}

const LIMITS = { powerPct: 100, passes: PASSES_LIMIT } as const;

/** The largest value that the machine takes, where there is one. */
export function limitOf(key: CellSetting, { topSpeedMmPerS }: Pick<MachineSpec, "topSpeedMmPerS">): number {
  if (key === "speedMmPerS") return topSpeedMmPerS;
  return key === "powerPct" || key === "passes" ? LIMITS[key] : Number.POSITIVE_INFINITY;
}

function whyLeftOut(plan: TestArrayPlan, settings: CellSettings, dose: Dose, machine: MachineSpec): string | null {
  const { speedMmPerS, powerPct } = settings;
  if (powerPct > LIMITS.powerPct) return `Power ${plain(powerPct)} % is above ${LIMITS.powerPct} %.`;
  if (speedMmPerS > machine.topSpeedMmPerS)
    return `Speed ${plain(speedMmPerS)} mm/s is above the top speed of ${plain(machine.topSpeedMmPerS)} mm/s.`;
  const reached = reachedSpeed(plan, machine);
  if (speedMmPerS > reached)
    return `Speed ${plain(speedMmPerS)} mm/s is not reached over ${plain(plan.cellMm)} mm. The limit is ${plain(Math.floor(reached))} mm/s.`;
  const most = plan.from?.mostJPerMm2;
  if (most !== undefined && dose.per === "area" && dose.energy > most)
    return `${energyText(dose)} is above ${plain(most)} J/mm², which chars this stock.`;
  return null;
}

/** The largest speed that is reached at least in the middle of a side: v^2 = a L. Rows have a run-up of their own. */
function reachedSpeed(plan: TestArrayPlan, machine: MachineSpec): number {
  const { kind, accelerationMmPerS2 } = machine;
  if (isFilled(plan)) return fastestRow(plan, machine);
  if (kind === "galvo" || accelerationMmPerS2 === null) return Number.POSITIVE_INFINITY;
  return Math.sqrt(accelerationMmPerS2 * plan.cellMm);
}

/** Cells as they are burned: weak ones first. */
export function inOrder(cells: readonly ArrayCell[]): ArrayCell[] {
  return cells.filter((c) => c.leftOut === null).sort((a, b) => a.dose.energy - b.dose.energy);
}

/** `200 mm/s, 40 %`: what differs from cell to cell. */
export function variedText(plan: TestArrayPlan, { settings }: Pick<ArrayCell, "settings">): string {
  const varied = [plan.across, plan.up, ...(plan.blocks === NO_BLOCKS ? [] : [plan.blocks])];
  return varied.map((key) => settingText(key, settings[key])).join(", ");
}

/** Time for an area, or for a length where cells are outlined: only ratios of it mean anything. */
export function relativeTime({ fill }: Pick<TestArrayPlan, "fill">, settings: CellSettings): number {
  const { passes, dwellMs, rowPitchMm, speedMmPerS } = settings;
  if (!isFilled({ fill })) return passes / speedMmPerS;
  return dwellMs > 0 ? (passes * dwellMs) / rowPitchMm ** 2 : passes / (speedMmPerS * rowPitchMm);
}

/** `200 mm/s, 40 %`: the two settings on the edges. */
export function settingsOnEdges({ across, up }: Pick<TestArrayPlan, "across" | "up">, settings: CellSettings): string {
  return [across, up].map((key) => settingText(key, settings[key])).join(", ");
}
