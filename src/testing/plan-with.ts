import type { PlanForm } from "../core/trial/plan-form";

/**
 * The usual plan with some changes, checked as a typed one is.
 *
 * @throws Error where it is refused
 */
export function planWith<P extends object>(form: PlanForm<P>, changes: Partial<P> = {}): P {
  const read = form.read({ ...form.defaults, ...changes });
  if (!read.ok) throw new Error(read.issues.map(({ field, message }) => `${field}: ${message}`).join(" "));
  return read.plan;
}
