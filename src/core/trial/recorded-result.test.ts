import { describe, expect, it } from "vitest";
import { measured } from "../metrology/measured";
import type { Outcome } from "./outcome";
import { comparedResults, recordedEstimatesSchema } from "./recorded-result";

const recorded = [{ id: "lag", label: "Lag", unit: "us" as const, quantity: measured(0.0004, 0.00001, Infinity) }];
const outcome = (value: number, u: number): Outcome => ({
  status: "solved",
  complete: true,
  corrections: [],
  adjustments: [],
  findings: [],
  table: null,
  figures: [],
  predicted: "",
  learned: {},
  wishes: [],
  artefacts: [],
  estimates: [
    {
      id: "lag",
      label: "Lag",
      unit: "us",
      headline: true,
      budget: [],
      helps: null,
      quantity: measured(value, u, Infinity),
    },
  ],
});
const differs = (value: number, u: number) => comparedResults(recorded, outcome(value, u))[0]?.differs;

describe("a recorded result beside the one of now", () => {
  it("reads the same within a twentieth of its uncertainty", () => {
    // U = 1.96 u = 0.0000196 s, a twentieth of it 0.00000098 s.
    expect(differs(0.0004, 0.00001)).toBe("same");
    expect(differs(0.00040097, 0.00001)).toBe("same");
    expect(differs(0.000401, 0.00001)).toBe("within");
    expect(differs(0.0004, 0.0000104)).toBe("same");
    expect(differs(0.0004, 0.0000106)).toBe("within");
  });

  it("is outside where one interval does not hold the other value", () => {
    expect(differs(0.000419, 0.00001)).toBe("within");
    expect(differs(0.00042, 0.00001)).toBe("outside");
    // The narrow one of now does not hold what was recorded.
    expect(differs(0.000406, 0.000002)).toBe("outside");
  });

  it("is outside where the readings give no such result any more", () => {
    const open: Outcome = { status: "open", missing: "", table: null, findings: [] };
    expect(comparedResults(recorded, open)).toMatchObject([{ now: null, differs: "outside" }]);
  });

  it("is read from outcomes of any age: nothing but what is compared is asked of them", () => {
    const old = { status: "solved", estimates: [{ ...recorded[0], doubt: 1 }], corrections: "of another shape" };
    expect(recordedEstimatesSchema.parse(old)).toEqual({ estimates: recorded });
  });
});
