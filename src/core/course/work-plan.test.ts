import { describe, expect, it } from "vitest";
import { PROCEDURES, proceduresFor } from "./registry";
import type { State } from "./state";
import { type ToPlan, workPlan } from "./work-plan";

type Given = State | readonly [State, number];

function stands(states: Readonly<Record<string, Given>>, kind: "CO2 gantry" | "galvo"): ToPlan[] {
  return proceduresFor(kind).map((procedure) => {
    const given = states[procedure.id] ?? "not done";
    const [state, since] = typeof given === "string" ? [given, given === "not done" ? null : 1] : given;
    return { procedure, state, since, wasProved: state !== "not done" };
  });
}

const idsOf = (plan: ReturnType<typeof workPlan>) => plan?.lines.map((l) => l.of.procedure.id);

describe("the plan of the first day", () => {
  it("holds what belongs to the kind of machine, in practice order, and nothing that needs a reason", () => {
    const gantry = workPlan(stands({}, "CO2 gantry"));
    expect(gantry?.occasion).toBe("first day");
    expect(idsOf(gantry)).toEqual(["focus", "axis-scale", "scan-offset"]);
    expect(idsOf(workPlan(stands({}, "galvo")))).toEqual(["orientation", "focus", "field"]);
  });

  it("is ticked by proofs alone, says what waits for each, and ends when all is proved", () => {
    const plan = workPlan(stands({ focus: "holding", "axis-scale": "to prove" }, "CO2 gantry"));
    expect(plan?.lines.map((l) => [l.of.procedure.id, l.done])).toEqual([
      ["focus", true],
      ["axis-scale", false],
      ["scan-offset", false],
    ]);
    expect(plan?.lines[1]?.before).toEqual(["Scan offset"]);
    expect(plan?.lines[2]?.before).toEqual([]);
    // The last of them under way for the first time is still the first day.
    const last = { focus: "holding", "axis-scale": "holding", "scan-offset": "to prove" } as const;
    const underWay = stands(last, "CO2 gantry").map((s) => ({ ...s, wasProved: s.state === "holding" }));
    expect(workPlan(underWay)?.occasion).toBe("first day");
    expect(idsOf(workPlan(underWay))).toEqual(["focus", "axis-scale", "scan-offset"]);
    expect(workPlan(stands(last, "CO2 gantry"))?.occasion).toBe("change");
    const all = { focus: "holding", "axis-scale": "holding", "scan-offset": "holding" } as const;
    expect(workPlan(stands(all, "CO2 gantry"))).toBeNull();
  });
});

describe("the plan after a change", () => {
  const proved = { orientation: ["holding", 10], focus: ["holding", 10], field: ["holding", 10] } as const;

  it("holds what another lens makes out of date, and what was proved again since", () => {
    const fitted = workPlan(
      stands({ orientation: ["holding", 10], focus: ["stale", 50], field: ["stale", 50] }, "galvo"),
    );
    expect(fitted?.occasion).toBe("change");
    expect(idsOf(fitted)).toEqual(["focus", "field"]);
    const begun = workPlan(
      stands({ orientation: ["holding", 10], focus: ["holding", 60], field: ["stale", 50] }, "galvo"),
    );
    expect(begun?.lines.map((l) => [l.of.procedure.id, l.done])).toEqual([
      ["focus", true],
      ["field", false],
    ]);
    expect(workPlan(stands({ ...proved, field: ["holding", 70] }, "galvo"))).toBeNull();
  });

  it("holds what is done only for a reason as soon as there is one", () => {
    const squareness = PROCEDURES.find((p) => p.id === "squareness");
    expect(squareness?.occasional).toBe(true);
    const plan = workPlan(
      stands(
        { focus: "holding", "axis-scale": "holding", "scan-offset": "holding", squareness: "stale" },
        "CO2 gantry",
      ),
    );
    expect(idsOf(plan)).toEqual(["squareness"]);
  });
});
