/** How a field is measured. */
import type { When } from "../../trial/plan-field";

export const SEEINGS = {
  square: "A square, measured with calipers or a rule",
  grid: "A grid of dots, read from a scan",
} as const;

export const SQUARE_ONLY: When = { field: "how", is: ["square"] };
export const GRID_ONLY: When = { field: "how", is: ["grid"] };
