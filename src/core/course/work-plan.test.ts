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
  it("lists the procedures of this kind of machine in practice order, without the occasional ones", () => {
    const gantry = workPlan(stands({}, "CO2 gantry"));
    expect(gantry?.occasion).toBe("first day");
    expect(idsOf(gantry)).toEqual(["focus", "axis-scale", "scan-offset"]);
    expect(idsOf(workPlan(stands({}, "galvo")))).toEqual(["orientation", "focus", "field"]);
  });

  it("is ticked by proofs, names dependent procedures, and ends with the last proof", () => {
    const plan = workPlan(stands({ focus: "holding", "axis-scale": "to prove" }, "CO2 gantry"));
    expect(plan?.lines.map((l) => [l.of.procedure.id, l.done])).toEqual([
      ["focus", true],
      ["axis-scale", false],
      ["scan-offset", false],
    ]);
    expect(plan?.lines[1]?.before).toEqual(["Scan offset"]);
    expect(plan?.lines[2]?.before).toEqual([]);
    // The first trial of the last procedure still belongs to the first day.
    const last = { focus: "holding", "axis-scale": "holding", "scan-offset": "to prove" } as const;
    const underWay = stands(last, "CO2 gantry").map((s) => ({ ...s, wasProved: s.state === "holding" }));
    expect(workPlan(underWay)?.occasion).toBe("first day");
    expect(idsOf(workPlan(underWay))).toEqual(["focus", "axis-scale", "scan-offset"]);
    expect(workPlan(stands(last, "CO2 gantry"))?.occasion).toBe("later");
    const all = { focus: "holding", "axis-scale": "holding", "scan-offset": "holding" } as const;
    expect(workPlan(stands(all, "CO2 gantry"))).toBeNull();
  });
});

describe("a later plan", () => {
  const proved = { orientation: ["holding", 10], focus: ["holding", 10], field: ["holding", 10] } as const;

  it("lists procedures that another lens made out of date, and those proved again since", () => {
    const fitted = workPlan(
      stands({ orientation: ["holding", 10], focus: ["stale", 50], field: ["stale", 50] }, "galvo"),
    );
    expect(fitted?.occasion).toBe("later");
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

  it("lists an occasional procedure if it is out of date", () => {
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
