/** What is asked before each burn, as tables for the documents: made from the fields of the plans. */
import type { MachineSpec } from "../machine/machine-spec";
import type { AnyProcedure } from "../procedures/contract";
import { draftOf } from "../trial/draft";
import type { FieldSpec } from "../trial/plan-form";

const HEAD = ["Field", "Usual", "Limits", "Counts if", "Why"];

/** Markdown; one table for each procedure and each of these machines on which it is done. */
export function planTables(procedures: readonly AnyProcedure[], machines: readonly MachineSpec[]): string {
  return procedures
    .flatMap((procedure) =>
      machines
        .filter((m) => procedure.machineKinds.includes(m.kind))
        .map((machine) => `## ${procedure.title}, ${machine.kind}\n\n${planTable(procedure, machine)}`),
    )
    .join("\n\n");
}

function planTable(procedure: AnyProcedure, machine: MachineSpec): string {
  const form = procedure.plan({ machine, couponCode: "", inForce: {} });
  const usual = draftOf(form, form.defaults);
  const rows = form.fields.map((field) => [
    field.label,
    usualText(field, usual[field.key] ?? ""),
    field.limits,
    conditionText(field, form.fields),
    field.why,
  ]);
  return [HEAD, HEAD.map(() => "---"), ...rows].map((cells) => `| ${cells.join(" | ")} |`).join("\n");
}

function usualText(field: FieldSpec, usual: string): string {
  return (field.kind === "choice" ? labelOf(field, usual) : usual) || "–";
}

function conditionText({ when = [] }: FieldSpec, fields: readonly FieldSpec[]): string {
  const conditions = when.flatMap(({ field, is }) => {
    const other = fields.find((f) => f.key === field);
    return other ? [`${other.label}: ${is.map((value) => labelOf(other, value)).join("; ")}`] : [];
  });
  return conditions.join(", and ");
}

function labelOf(field: FieldSpec, value: string): string {
  return (field.kind === "choice" && field.options.find((o) => o.value === value)?.label) || value;
}
