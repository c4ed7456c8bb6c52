/** A zero that was not taken, on procedures whose readings all have it in common: silent without a known length, named with one. */
import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE, SAMPLE_STOCK } from "../../testing/sample-machine";
import { type Gauge, gaugeAsUsual } from "../metrology/gauge";
import { axisScale } from "../procedures/axis-scale/procedure";
import type { AnyProcedure } from "../procedures/contract";
import { kerf } from "../procedures/kerf/procedure";
import { origin } from "../procedures/origin/procedure";
import { type Answer, PLAIN_SHARES } from "../trial/answer";
import type { History } from "../trial/history";
import type { PlanContext } from "../trial/plan-form";
import { knownLengthField, knownLengthSites } from "./known-length";

const CALIPERS: Gauge = gaugeAsUsual("calipers");
const CONTEXT: PlanContext = {
  machine: SAMPLE_MACHINE,
  couponCode: "K-1",
  inForce: {},
  gauges: [CALIPERS],
  stocks: [SAMPLE_STOCK],
};
const KERF_MM = 0.16;

/** What would be read with jaws whose zeros are off, for a machine that makes no error. */
function readAt(
  site: string,
  plan: Record<string, number | string>,
  zero: { outside: number; inside: number },
): number {
  if (site === "known outside") return 10 + zero.outside;
  if (site === "known inside") return 10 + zero.inside;
  const length = (words: readonly string[]) => Number(words.includes("x") ? plan.spanXMm : plan.spanYMm);
  const words = site.split(" ");
  const nominal = Number(plan.sideMm ?? 0) || length(words);
  if (words.includes("part")) return nominal - KERF_MM + zero.outside;
  if (words.includes("hole")) return nominal + KERF_MM + zero.inside;
  return Number(words[0] === "x" ? plan.distanceXMm : plan.distanceYMm) + zero.outside;
}

function historyOf(procedure: AnyProcedure, changes: object, zero: { outside: number; inside: number }): History {
  const plan = { ...procedure.plan(CONTEXT).defaults, ...changes };
  const spec = procedure.round(plan, CONTEXT, "measure");
  // Readings of one point differ a little, as a hand does.
  const off = [0.01, -0.01, 0, 0.01];
  let k = 0;
  const answers = spec.sites.flatMap((site) =>
    Array.from({ length: site.repeats }, (): Answer => {
      const value = readAt(site.id, plan, zero) + (off[k++ % off.length] as number);
      return {
        site: site.id,
        u: null,
        gauge: CALIPERS.id,
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed",
        content: { status: "read", value: { kind: "quantity", value } },
      };
    }),
  );
  return {
    rounds: [{ n: 1, purpose: "measure", plan, spec, inForce: {}, answers }],
    gauges: [CALIPERS],
    available: [CALIPERS],
    machine: SAMPLE_MACHINE,
    decisions: {},
    tolerance: procedure.tolerance.default,
  };
}

const CASES: readonly [string, AnyProcedure, object, "outside" | "inside"][] = [
  ["a part and its hole", kerf, {}, "inside"],
  ["a part alone", kerf, { way: "part" }, "outside"],
  ["a rectangle and its hole", axisScale, { way: "part and hole", spanXMm: 100, spanYMm: 90 }, "outside"],
  ["the origin", origin, {}, "outside"],
];

describe("a known length", () => {
  it("is asked for once with each pair of jaws that the other points are read with", () => {
    const sites = (procedure: AnyProcedure, changes: object) =>
      procedure
        .round({ ...procedure.plan(CONTEXT).defaults, ...changes }, CONTEXT, "measure")
        .sites.filter((s) => s.measurand.kind === "known length")
        .map((s) => s.id);
    expect(sites(kerf, {})).toEqual(["known outside", "known inside"]);
    expect(sites(kerf, { way: "comb" })).toEqual(["known inside"]);
    expect(sites(kerf, { knownMm: 0 })).toEqual([]);
    expect(sites(origin, {})).toEqual(["known outside"]);
    // Along a ladder the zero shows by itself.
    expect(sites(axisScale, {})).toEqual([]);
    expect(sites(axisScale, { way: "pair" })).toEqual(["known outside"]);
    expect(knownLengthSites({ knownMm: 0 }, [])).toEqual([]);
  });

  it("is usual where the workshop measures with jaws, and not with a rule", () => {
    const rule: Gauge = { ...CALIPERS, id: "rule", kind: "rule" };
    expect(knownLengthField(CONTEXT).usual).toBe(10);
    expect(knownLengthField({ gauges: [rule] }).usual).toBe(0);
  });

  it.each(CASES)("shows a zero of the jaws that is 0.15 mm off, by %s", (_, procedure, changes, jaws) => {
    const zero = { outside: 0, inside: 0, [jaws]: 0.15 };
    const suspects = (more: object) =>
      procedure.solve(historyOf(procedure, { ...changes, ...more }, zero)).findings.filter((f) => f.suspect);
    const named = suspects({});
    expect(named.length).toBeGreaterThan(0);
    expect(JSON.stringify(named)).toMatch(new RegExp(`known length, ${jaws} jaws|zero of the ${jaws} jaws`));
    // Without it nobody could have said so.
    expect(suspects({ knownMm: 0 })).toEqual([]);
  });

  it.each(CASES)("accuses nobody where the zeros are right, by %s", (_, procedure, changes) => {
    const outcome = procedure.solve(historyOf(procedure, changes, { outside: 0, inside: 0 }));
    expect(outcome.findings.filter((f) => f.suspect)).toEqual([]);
  });
});
