/** A plan as typed: texts by field, so that nothing entered is lost, and the numbers behind them. */
import { z } from "zod";
import { inUnit, plain } from "../metrology/quantity-text";
import { parseReading, parseSignedReading } from "../metrology/reading-text";
import type { Dimension, UnitId } from "../metrology/units";
import type { FieldSpec, PlanForm, PlanIssue, ReadPlan } from "./plan-form";
import { askedFields } from "./plan-table";

export const draftSchema = z.record(z.string(), z.string());
export type Draft = z.infer<typeof draftSchema>;

/** The texts that stand for a plan. */
export function draftOf<P extends object>(form: PlanForm<P>, plan: P): Draft {
  // What this plan does not ask for stands as usual, for when it is asked.
  const values: ReadonlyMap<string, unknown> = new Map(Object.entries({ ...form.defaults, ...plan }));
  return Object.fromEntries(form.fields.map((field) => [field.key, fieldText(field, values.get(field.key))]));
}

/** A draft of before there was a field says there what is usual. */
export function wholeDraft<P extends object>(form: PlanForm<P>, draft: Draft): Draft {
  return { ...draftOf(form, form.defaults), ...draft };
}

/** Parses every text and checks the whole plan; every fault names its field. */
export function readDraft<P extends object>(form: PlanForm<P>, kept: Draft): ReadPlan<P> {
  const draft = wholeDraft(form, kept);
  const issues: PlanIssue[] = [];
  const values: Record<string, unknown> = {};
  for (const field of askedFields(form.fields, (key) => draft[key] ?? "")) {
    const read = readField(field, draft[field.key] ?? "");
    if (read.ok) values[field.key] = read.value;
    else issues.push({ field: field.key, message: read.message });
  }
  return issues.length > 0 ? { ok: false, issues, unfit: null } : form.read(values);
}

function fieldText(field: FieldSpec, value: unknown): string {
  if (Array.isArray(value)) return value.map((v) => plain(Number(v))).join(" ");
  if (typeof value === "number") return field.kind === "quantity" ? inUnit(value, field.unit) : plain(value);
  return typeof value === "string" ? value : "";
}

type Value = { ok: true; value: unknown } | { ok: false; message: string };

/** One text of a plan, as its field reads it: a number, several, or a word. */
export function readField(field: FieldSpec, text: string): Value {
  if (text.trim() === "") {
    const isList = field.kind === "quantities" || field.kind === "numbers";
    return { ok: true, value: isList ? [] : undefined };
  }
  switch (field.kind) {
    case "choice":
    case "drawing":
    case "colour":
      return { ok: true, value: text };
    case "count": {
      const read = parseReading(text, "ratio", "one");
      return read.ok ? { ok: true, value: read.value } : read;
    }
    case "quantity": {
      const read = (field.signed ? parseSignedReading : parseReading)(text, field.dimension, field.unit);
      return read.ok ? { ok: true, value: read.value } : read;
    }
    case "quantities":
      return readQuantities(text, field.dimension, field.unit);
    case "numbers":
      return readNumbers(text, field);
  }
}

/** Numbers apart by spaces or semicolons, or by commas that have a space behind them. Another unit than its own is refused. */
function readNumbers(text: string, { unit, signed }: Extract<FieldSpec, { kind: "numbers" }>): Value {
  const atEnd = /[^\d\s.,;+−-]+\s*$/.exec(text)?.[0].trim() ?? "";
  if (atEnd !== "" && atEnd.toLowerCase() !== unit.toLowerCase())
    return {
      ok: false,
      message: `“${atEnd}” is not the unit of this field. ${unit === "" ? "Enter numbers without a unit." : `Enter the values in ${unit}.`}`,
    };
  const values: number[] = [];
  for (const part of text
    .slice(0, atEnd === "" ? undefined : text.lastIndexOf(atEnd))
    .split(APART_WITH_DECIMAL_COMMAS)) {
    if (part === "") continue;
    const read = (signed ? parseSignedReading : parseReading)(part, "ratio", "one");
    if (!read.ok) return { ok: false, message: `${part}: ${read.message}` };
    values.push(read.value);
  }
  return { ok: true, value: values };
}

export type ReadQuantities = { ok: true; value: number[] } | { ok: false; message: string };

/** Between numbers whose decimals are told by a comma as well: one that has a space behind it parts them. */
export const APART_WITH_DECIMAL_COMMAS = /[\s;]+|,\s+/;

/** Numbers apart by spaces, commas or semicolons; one unit after the last covers all. @returns internal units */
export function readQuantities(
  text: string,
  dimension: Dimension,
  unit: UnitId,
  apart: RegExp = /[\s,;]+/,
): ReadQuantities {
  const unitAtEnd = /([a-zµμ"]+(?:\/[a-z]+)?)\s*$/i.exec(text)?.[1] ?? "";
  const parts = text
    .slice(0, text.length - unitAtEnd.length - (unitAtEnd ? (/\s*$/.exec(text)?.[0].length ?? 0) : 0))
    .split(apart)
    .filter((part) => part !== "");
  const values: number[] = [];
  for (const part of parts) {
    const read = parseReading(`${part} ${unitAtEnd}`, dimension, unit);
    if (!read.ok) return { ok: false, message: `${part}: ${read.message}` };
    values.push(read.value);
  }
  return { ok: true, value: values };
}

/** Whether two drafts say the same at every field. */
export function isSameDraft(a: Draft, b: Draft): boolean {
  return differingFields(a, b).length === 0;
}

/** Keys of the fields at which two drafts differ. */
export function differingFields(a: Draft, b: Draft): string[] {
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].filter((key) => (a[key] ?? "") !== (b[key] ?? ""));
}
