import { describe, expect, it } from "vitest";
import { z } from "zod";
import { askedFields, type Draft, draftOf, readDraft } from "./draft";
import type { PlanForm } from "./plan-form";

type Plan = { way: "rule" | "readout"; allowance?: number; lowest: number; detail?: number };

const length = { kind: "quantity", dimension: "length", unit: "mm", group: "", why: "" } as const;
const FORM: PlanForm<Plan> = {
  schema: z.object({
    way: z.enum(["rule", "readout"]),
    allowance: z.number().optional(),
    lowest: z.number().max(50, "No higher."),
    detail: z.number().optional(),
  }),
  defaults: { way: "rule", allowance: 6, lowest: 2 },
  fields: [
    {
      key: "way",
      label: "",
      group: "",
      why: "",
      kind: "choice",
      options: ["rule", "readout"].map((value) => ({ value, label: value, why: "" })),
    },
    { ...length, key: "allowance", label: "", when: { field: "way", is: ["rule"] } },
    { ...length, key: "lowest", label: "", signed: true },
    { ...length, key: "detail", label: "", when: { field: "allowance", is: ["6 mm"] } },
  ],
};

describe("a layout as it is typed", () => {
  it("asks only what means anything, through fields that are not asked themselves", () => {
    const keys = (draft: Record<string, string>) => askedFields(FORM.fields, draft).map((f) => f.key);
    expect(keys({ way: "rule", allowance: "6 mm" })).toEqual(["way", "allowance", "lowest", "detail"]);
    expect(keys({ way: "rule", allowance: "" })).toEqual(["way", "allowance", "lowest"]);
    // What was typed there once is no answer now.
    expect(keys({ way: "readout", allowance: "6 mm" })).toEqual(["way", "lowest"]);
  });

  it("leaves out of the plan what is not asked, and keeps its text", () => {
    const draft: Draft = { ...draftOf(FORM, FORM.defaults), way: "readout" };
    expect(draft.allowance).toBe("6 mm");
    expect(readDraft(FORM, draft)).toEqual({ ok: true, plan: { way: "readout", lowest: 2 } });
  });

  it("reads a minus where numbers may lie below 0, also as it writes it, and nowhere else", () => {
    const draft = draftOf(FORM, { ...FORM.defaults, lowest: -4.5 });
    expect(readDraft(FORM, draft)).toMatchObject({ ok: true, plan: { lowest: -4.5 } });
    expect(readDraft(FORM, { ...draft, lowest: "-4,5 mm" })).toMatchObject({ ok: true, plan: { lowest: -4.5 } });
    expect(readDraft(FORM, { ...draft, allowance: "-6 mm" })).toMatchObject({
      ok: false,
      issues: [{ field: "allowance" }],
    });
  });

  it("can be drawn while it does not go together, or while what is asked besides is empty", () => {
    const typed = { way: "rule", allowance: "", lowest: "70 mm" };
    expect(readDraft(FORM, typed)).toMatchObject({
      ok: false,
      unfit: { lowest: 70 },
      issues: [{ message: "No higher." }],
    });
    expect(readDraft(FORM, { ...typed, lowest: "" })).toMatchObject({ ok: false, unfit: null });
  });
});
