/** Quantiles and shares over responses that were drawn. */
import { elementAt } from "../fitting/element-at";
import type { Span } from "./array-given";

/** Responses drawn. */
export const DRAWS = 400;
export const SURE = 0.95;

export function quantile(values: readonly number[], p: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return elementAt(sorted, Math.min(sorted.length - 1, Math.floor(p * sorted.length)));
}

/** The middle 95 of 100. */
export function middleOf(values: readonly number[]): Span {
  return { low: quantile(values, (1 - SURE) / 2), high: quantile(values, (1 + SURE) / 2) };
}

export function share<T>(values: readonly T[], is: (value: T) => boolean): number {
  return values.filter(is).length / values.length;
}

/** Mean, and the value that holds in 95 of 100. */
export function meanAndMost(values: readonly number[]): { mean: number; most: number } {
  return { mean: values.reduce((s, v) => s + v, 0) / values.length, most: quantile(values, SURE) };
}

export function indexOfLargest(values: { readonly length: number; readonly [i: number]: number }): number {
  let at = 0;
  for (let i = 1; i < values.length; i++) if ((values[i] ?? 0) > (values[at] ?? 0)) at = i;
  return at;
}
