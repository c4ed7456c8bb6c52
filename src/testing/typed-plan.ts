/** A layout as its texts are typed into the form. */
import { readDraft } from "../core/trial/draft";
import type { PlanForm } from "../core/trial/plan-form";

/** @throws Error if the form refuses it */
export function typedPlan<P extends object>(form: PlanForm<P>, texts: Record<string, string>): P {
  const read = readDraft(form, texts);
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.plan;
}

/** The messages of a form, by field; empty if it accepts the texts. */
export function messagesOf<P extends object>(form: PlanForm<P>, texts: Record<string, string>): Record<string, string> {
  const read = readDraft(form, texts);
  return read.ok ? {} : Object.fromEntries(read.issues.map((i) => [i.field, i.message]));
}
