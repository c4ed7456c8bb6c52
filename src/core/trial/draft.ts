/** A plan as typed: texts by field, so that nothing entered is lost, and the numbers behind them. */
import { z } from "zod";
import { inUnit, plain } from "../metrology/quantity-text";
import { parseReading, parseSignedReading } from "../metrology/reading-text";
import type { Dimension, UnitId } from "../metrology/units";
import type { FieldSpec, PlanForm } from "./plan-form";

export const draftSchema = z.record(z.string(), z.string());
export type Draft = z.infer<typeof draftSchema>;

export type DraftIssue = { field: string; message: string };

export type ReadDraft<P> =
  | { ok: true; plan: P }
  | {
      ok: false;
      issues: DraftIssue[];
      /** Every text is a number, but the plan does not go together: it can still be drawn. */
      unfit: P | null;
    };

/** The texts that stand for a plan. */
export function draftOf<P>(form: PlanForm<P>, plan: P): Draft {
  // What this plan does not ask for stands as usual, for when it is asked.
  const values = { ...(form.defaults as Record<string, unknown>), ...(plan as Record<string, unknown>) };
  return Object.fromEntries(form.fields.map((field) => [field.key, fieldText(field, values[field.key])]));
}

/** A draft of before there was a field says there what is usual. */
export function wholeDraft<P>(form: PlanForm<P>, draft: Draft): Draft {
  return { ...draftOf(form, form.defaults), ...draft };
}

/** Parses every text and checks the whole plan; every fault names its field. */
export function readDraft<P>(form: PlanForm<P>, kept: Draft): ReadDraft<P> {
  const draft = wholeDraft(form, kept);
  const issues: DraftIssue[] = [];
  const values: Record<string, unknown> = {};
  const asked = askedFields(form.fields, draft);
  for (const field of asked) {
    const read = readField(field, draft[field.key] ?? "");
    if (read.ok) values[field.key] = read.value;
    else issues.push({ field: field.key, message: read.message });
  }
  if (issues.length > 0) return { ok: false, issues, unfit: null };
  const parsed = form.schema.safeParse(values);
  if (parsed.success) return { ok: true, plan: parsed.data };
  const whole = asked.every((field) => field.when || values[field.key] !== undefined);
  return {
    ok: false,
    unfit: whole ? (values as P) : null,
    issues: parsed.error.issues.map((issue) => ({
      field: String(issue.path[0] ?? ""),
      message: issue.message,
    })),
  };
}

/** The fields that mean anything with what is typed at the others. */
export function askedFields(fields: readonly FieldSpec[], draft: Draft): FieldSpec[] {
  const isAsked = ({ when }: FieldSpec): boolean => {
    if (!when) return true;
    const other = fields.find((f) => f.key === when.field);
    return other !== undefined && isAsked(other) && when.is.includes(draft[when.field] ?? "");
  };
  return fields.filter(isAsked);
}

function fieldText(field: FieldSpec, value: unknown): string {
  if (value === undefined) return "";
  switch (field.kind) {
    case "quantity":
      return inUnit(value as number, field.unit);
    case "quantities":
      return (value as number[]).map((v) => plain(v)).join(" ");
    case "count":
      return plain(value as number);
    case "choice":
      return String(value);
  }
}

type Value = { ok: true; value: unknown } | { ok: false; message: string };

function readField(field: FieldSpec, text: string): Value {
  if (text.trim() === "") return { ok: true, value: field.kind === "quantities" ? [] : undefined };
  switch (field.kind) {
    case "choice":
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
  }
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
