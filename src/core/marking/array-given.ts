/** Input and result of an array of cells. */
import type { Lab } from "../colour/lab";
import type { Comparison } from "../fitting/preference-surface";
import type { EnergyVerdict } from "./energy-alone";

export type ScoredCell = {
  /** Along the two axes, as `along` has them. */
  x: number;
  y: number;
  /** On the stock, in sides of a cell. */
  place: { x: number; y: number };
  burn: number;
  /** The larger, the better; 1 and 0 of cells that pass and fail. `null` = not burned, or not read. */
  score: number | null;
  /** ln of the energy per area or length; left out if the settings do not count by ratio. */
  energy?: number;
  /** Charred, or no good for another reason: neither it nor what lies nearest to it is ever the best. */
  noGood?: boolean;
};

export type Span = { low: number; high: number };

export type ArrayAnswer = {
  /** Index of the burned cell with the largest expected value. */
  chosen: number;
  /** To compare the answers of several blocks: the larger, the better. */
  merit: number;
  /** Largest expected value over the map, and where: along the axes. */
  peak: { x: number; y: number; value: number };
  /** Where the best lies in 95 of 100 responses, along each axis. */
  best: { x: Span; y: Span };
  /** Loss of each cell against the best, as a share of the range from blank to best: mean, and the value that holds in 95 of 100. */
  short: { mean: number; most: number }[];
  /** Indices of cells that are as good as the best within {@link AS_GOOD}. */
  asGood: number[];
  /** Sides at which the best lies. */
  edges: ("left" | "right" | "low" | "high")[];
  /** Another peak that may be the higher one; `null` = none. */
  second: { x: number; y: number } | null;
  /** Indices of cells whose score contradicts all others. */
  odd: number[];
  /** Expected value at each cell. */
  expected: number[];
  /** Whether energy alone explains the scores; `null` if the cells cannot show it. */
  energy: EnergyVerdict | null;
  /** sd of one score about the response. */
  noise: number;
  /** Expected value over the spans of the array, row by row from low y; `null` beside cells that are no good. */
  map: { columns: number; rows: number; x: Span; y: Span; values: (number | null)[] };
};

export type ArrayGiven = {
  cells: readonly ScoredCell[];
  /** From one cell to the next along the axes, of the newest burn. */
  step: { x: number; y: number };
  /** Score of the blank stock. */
  blank: number;
  /** Comparisons of two cells, by their indices. Cells have no scores then. */
  comparisons?: readonly Comparison[];
  /** The colour of each cell, and the wanted one. Scores are then differences of colour, with the sign of a loss. */
  colours?: { wanted: Lab; of: readonly (Lab | null)[] };
  /** Cells pass or fail. By how much ln(time for an area) grows along each axis. */
  passes?: { slower: { x: number; y: number } };
};

export type NoAnswer = "few" | "all equal" | "none good" | "below blank" | "none passes";
