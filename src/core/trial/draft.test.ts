import { describe, expect, it } from "vitest";
import { type Draft, draftOf, readDraft } from "./draft";
import { field } from "./plan-field";
import { askedFields, planForm } from "./plan-table";

const FORM = planForm(
  {
    way: field.choice({ rule: "Rule", readout: "Readout" }, { label: "Way", group: "Heights", usual: "rule" }),
    allowance: field.length({
      label: "Allowance",
      group: "Heights",
      usual: 6,
      when: { field: "way", is: ["rule"] },
    }),
    lowest: field.signedLength({ label: "Lowest", group: "Heights", usual: 2, max: [50, "The column ends there."] }),
    detail: field.length({
      label: "Detail",
      group: "Heights",
      usual: 1,
      before: 0,
      when: { field: "allowance", is: ["6 mm"] },
    }),
  },
  {
    faults: ({ allowance, lowest }) => [
      ["lowest", lowest < -allowance ? "The rule does not reach so low." : null],
      ["allowance", allowance > 100 ? "No rule leaves out so much." : null],
    ],
  },
);

describe("a layout as it is typed", () => {
  it("asks only what means anything, through fields that are not asked themselves", () => {
    const keys = (draft: Draft) => askedFields(FORM.fields, (key) => draft[key] ?? "").map((f) => f.key);
    expect(keys({ way: "rule", allowance: "6 mm" })).toEqual(["way", "allowance", "lowest", "detail"]);
    expect(keys({ way: "rule", allowance: "" })).toEqual(["way", "allowance", "lowest"]);
    // What was typed there once is no answer now.
    expect(keys({ way: "readout", allowance: "6 mm" })).toEqual(["way", "lowest"]);
  });

  it("has the usual value of what is not asked, and keeps its text", () => {
    const draft: Draft = { ...draftOf(FORM, FORM.defaults), way: "readout", allowance: "9 mm" };
    expect(draft.allowance).toBe("9 mm");
    const read = readDraft(FORM, draft);
    expect(read).toEqual({ ok: true, plan: { way: "readout", allowance: 6, lowest: 2, detail: 1 } });
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
      unfit: { lowest: 70, allowance: 6 },
      issues: [
        { field: "allowance", message: "Enter a length, for example 6 mm." },
        { field: "lowest", message: "The column ends there. Enter at most 50 mm." },
      ],
    });
    expect(readDraft(FORM, { ...typed, lowest: "" })).toMatchObject({ ok: false, unfit: null });
  });

  it("says what does not go together once each value is fine by itself", () => {
    const typed = (allowance: string, lowest: string) => readDraft(FORM, { way: "rule", allowance, lowest });
    expect(typed("101 mm", "-102 mm")).toMatchObject({
      ok: false,
      issues: [{ field: "lowest" }, { field: "allowance" }],
    });
    expect(typed("0 mm", "-102 mm")).toMatchObject({
      ok: false,
      issues: [{ field: "allowance", message: "Enter more than 0 mm." }],
    });
  });

  it("completes a plan that was kept before a field was there", () => {
    const kept = { way: "rule", lowest: -3 };
    expect(FORM.whole(kept)).toEqual({ way: "rule", lowest: -3, allowance: 6, detail: 0 });
  });
});
