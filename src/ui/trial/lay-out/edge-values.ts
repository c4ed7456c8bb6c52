/** The values along an edge as texts: each typed by itself, kept as one list. */
import { type Draft, readField } from "../../../core/trial/draft";
import type { Edges } from "../../../core/trial/edges";
import type { FieldSpec } from "../../../core/trial/plan-form";

// biome-ignore lint/suspicious/noExplicitAny: the plan is the procedure's own business
export type AnyEdges = Edges<any>;

/** Values along an edge, at most and at least. */
export const VALUES = { least: 2, most: 20 } as const;
/** Stands for a value that was emptied, so that its column stays. */
const EMPTY = "?";
/** A setting that comes onto an edge goes from this share of its value to this; where it is 0 or below, from and to this distance. */
const REACH = { from: 0.5, to: 2, even: 2 };

/** @returns numbers in the unit of the field; what cannot be read stays as it was typed */
export function valuesIn(field: FieldSpec | undefined, text: string): string[] {
  const read = field && readField(field, text);
  if (read?.ok && Array.isArray(read.value)) return read.value.map(String);
  return text.split(/[\s;]+/).filter((t) => t !== "");
}

export function listText(values: readonly string[]): string {
  return values.join(" ");
}

/** A single value as it is kept: with a unit of its own it becomes a number of the field. */
export function typedValue(field: FieldSpec | undefined, text: string): string {
  const [only, ...more] = valuesIn(field, text);
  if (only === undefined) return EMPTY;
  return more.length === 0 ? only : text.replaceAll(/\s/g, "");
}

export function shownValue(value: string): string {
  return value === EMPTY ? "" : value;
}

/** More or fewer values between the same ends; ends that cannot be read keep all as they are. */
export function resized(edges: AnyEdges, setting: string, values: readonly string[], count: number): string[] {
  return respaced(edges, setting, values, count, Number(values[0]) > 0 ? "ratio" : "even");
}

export function respaced(
  edges: AnyEdges,
  setting: string,
  values: readonly string[],
  count: number,
  by: "even" | "ratio",
): string[] {
  const [first, last] = [Number(values[0]), Number(values.at(-1))];
  if (!Number.isFinite(first) || !Number.isFinite(last) || count < VALUES.least || count > VALUES.most)
    return [...values];
  return edges.spaced(setting, first, last, count, by).map(String);
}

/** Another setting on an edge: it gets as many values as the one before, which keeps its middle one. */
export function movedTo(
  edges: AnyEdges,
  fields: readonly FieldSpec[],
  draft: Draft,
  key: string,
  next: string,
  count: number,
): Draft {
  const valuesOf = (setting: string) =>
    valuesIn(
      fields.find((f) => f.key === setting),
      draft[setting] ?? "",
    );
  const before = draft[key] ?? "";
  const changes: Draft = { [key]: next };
  if (before !== edges.none && before !== next) {
    const values = valuesOf(before);
    changes[before] = values[Math.floor(values.length / 2)] ?? "";
  }
  if (next === edges.none) return changes;
  const [first, ...more] = valuesOf(next);
  const only = Number(first);
  if (more.length === 0 && Number.isFinite(only)) {
    const ends = only > 0 ? [only * REACH.from, only * REACH.to] : [-REACH.even, REACH.even];
    changes[next] = listText(resized(edges, next, ends.map(String), Math.max(VALUES.least, count)));
  }
  return changes;
}
