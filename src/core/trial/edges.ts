/** A layout whose cells stand over settings that are chosen on its edges: what its editor needs to know of it. */
import type { PlanContext } from "./plan-form";

export type EdgeCell = {
  id: string;
  column: number;
  row: number;
  block: number;
  /** How it is called. */
  name: string;
  /** What it gets, one line each. */
  lines: string[];
  state: "burned" | "apart" | "left out";
  /** Energy as a share of the strongest cell, 0 to 1: how dark it is drawn. */
  strength: number;
};

export type Edges<P> = {
  /** Fields of the plan that name the setting on each edge. The fields of these names hold their values. */
  keys: { across: string; up: string; blocks: string };
  /** Value of the field of the blocks where there are none. */
  none: string;
  cells(plan: P, context: PlanContext): EdgeCell[];
  /** Values from the first to the last. */
  spaced(setting: string, first: number, last: number, count: number, by: "even" | "ratio"): number[];
  /** Unit behind the values of a setting. */
  unitOf(setting: string): string;
  /** For the foot of the editor: time and stock that it takes. */
  needs(plan: P, context: PlanContext): string;
};
