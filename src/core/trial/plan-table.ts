/** A plan as one table of fields: its type, its form and its checks come from the table. */
import type { Field } from "./plan-field";
import type { FieldSpec, PlanForm, PlanIssue, ReadPlan } from "./plan-form";

export type PlanFields = Readonly<Record<string, Field<unknown>>>;

/** The plan that a table of fields describes. */
export type PlanOf<F extends PlanFields> = { [K in keyof F]: F[K] extends Field<infer T> ? T : never };

/** What does not go together in a plan, each with the field that says it; `null` where nothing is wrong. */
export type Faults<P> = readonly (readonly [field: keyof P & string, message: string | null])[];

/** @param of.faults run once every value is fine by itself */
export function planForm<F extends PlanFields>(
  fields: F,
  of: { faults?: (plan: PlanOf<F>) => Faults<PlanOf<F>> } = {},
): PlanForm<PlanOf<F>> {
  return completedPlanForm(fields, { ...of, complete: (plan) => plan });
}

/** @param of.complete adds what is known without being asked */
export function completedPlanForm<F extends PlanFields, P extends PlanOf<F>>(
  fields: F,
  of: { complete: (plan: PlanOf<F>) => P; faults?: (plan: P) => Faults<P> },
): PlanForm<P> {
  const keys = Object.keys(fields);
  const usual = Object.fromEntries(keys.map((key) => [key, fields[key]?.usual]));
  const specs = keys.flatMap((key) => specOf(key, fields[key]) ?? []);
  // Each key holds what its own field has checked; the compiler does not follow a mapping over keys.
  const planFrom = (values: Readonly<Record<string, unknown>>): P => of.complete({ ...usual, ...values } as PlanOf<F>);
  return {
    fields: specs,
    defaults: planFrom({}),
    whole: (kept) => ({ ...usualBefore(fields), ...kept }) as P,
    read: (values) => {
      const asked = askedFields(specs, (key) => String(values[key] ?? usual[key]));
      const { taken, issues, lacks } = readEach(fields, asked, values);
      const plan = lacks ? null : planFrom(taken);
      if (issues.length > 0 || plan === null) return { ok: false, issues, unfit: plan };
      return together(plan, of.faults?.(plan) ?? []);
    },
  };
}

function together<P>(plan: P, faults: Faults<P>): ReadPlan<P> {
  const issues = faults.flatMap(([field, message]) => (message === null ? [] : [{ field, message }]));
  return issues.length > 0 ? { ok: false, issues, unfit: plan } : { ok: true, plan };
}

/** A plan without this value of a field that is always asked for cannot be drawn; with the usual value of another it can. */
function readEach(fields: PlanFields, asked: readonly FieldSpec[], values: Readonly<Record<string, unknown>>) {
  const taken: Record<string, unknown> = {};
  const issues: PlanIssue[] = [];
  let lacks = false;
  for (const { key, when } of asked) {
    const read = fields[key]?.type.safeParse(values[key]);
    const message = read?.success ? (fields[key]?.refusal(read.data) ?? null) : (read?.error.issues[0]?.message ?? "");
    if (read?.success) taken[key] = read.data;
    else lacks ||= when === undefined;
    if (message !== null) issues.push({ field: key, message });
  }
  return { taken, issues, lacks };
}

function usualBefore(fields: PlanFields): Record<string, unknown> {
  return Object.fromEntries(Object.entries(fields).map(([key, f]) => [key, f.before ?? f.usual]));
}

/** @returns `null` for a field that is never asked for on this machine */
function specOf(key: string, field: Field<unknown> | undefined): FieldSpec | null {
  if (!field || field.when === false) return null;
  const { label, group, why, when, limits, shown } = field;
  return { key, label, group, why, limits, ...shown, ...(when.length > 0 ? { when } : {}) };
}

/** The fields that count with these values of the others. */
export function askedFields(fields: readonly FieldSpec[], textOf: (key: string) => string): FieldSpec[] {
  const isAsked = ({ when = [] }: FieldSpec): boolean =>
    when.every(({ field, is }) => {
      const other = fields.find((f) => f.key === field);
      return other !== undefined && isAsked(other) && is.includes(textOf(field));
    });
  return fields.filter(isAsked);
}
