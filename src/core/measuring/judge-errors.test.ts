import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { measured } from "../metrology/measured";
import type { History, Purpose, RoundRecord } from "../trial/history";
import { judgeErrors } from "./judge-errors";

type Plan = { errors: Partial<Record<"x" | "y", number>>; refuted?: true };

const U = 0.01;
const judge = judgeErrors<Plan, "x" | "y">({
  unit: "mm",
  errors: (_, { plan }) =>
    (["x", "y"] as const).flatMap((key) => {
      const value = plan.errors[key];
      return value === undefined ? [] : [{ key, label: `Error of ${key}`, error: measured(value, U, Infinity) }];
    }),
  due: () => ["Error of x", "Error of y"],
  text: ({ key, error }) => `${key} is off by ${error.value}`,
  advice: { proved: "Go on.", "not proved": "Again.", "cannot tell": "Read more." },
  asFound: "largest error",
  became: () => ({
    unchanged: { headline: "As before.", text: "Check it." },
    doubled: { headline: "Twice.", text: "Turn it round." },
  }),
  refuting: (_, { plan }) =>
    plan.refuted ? [{ id: "mirrored", tone: "needs you", site: null, headline: "Mirrored.", text: "Turn." }] : [],
});

const SITE = { id: "a", label: "A", repeats: 1, openEnded: false } as RoundRecord["spec"]["sites"][number];

function round(n: number, purpose: Purpose, plan: Plan): RoundRecord<Plan> {
  const answer = {
    site: "a",
    content: { status: "read", value: { kind: "quantity", value: 0 } },
    gauge: "g",
    session: "1",
    from: "typed",
    u: null,
    shares: { scatter: 1, common: 1 },
  } as RoundRecord["answers"][number];
  const spec = { sites: [SITE] } as RoundRecord["spec"];
  return { n, purpose, plan, spec, inForce: {}, answers: [answer] };
}

const of = (...rounds: RoundRecord<Plan>[]) => {
  const history: History<Plan> = {
    rounds,
    gauges: [],
    available: [],
    machine: SAMPLE_MACHINE,
    tolerance: 0.1,
    decisions: {},
  };
  return judge(history);
};

describe("the verdict on errors", () => {
  it("is none before a proof, and none where the proof shows nothing", () => {
    expect(of(round(1, "measure", { errors: { x: 1, y: 1 } }))).toBeNull();
    expect(of(round(1, "measure", { errors: { x: 1 } }), round(2, "proof", { errors: {} }))).toBeNull();
  });

  it("compares each error with the newest burn before it that shows it, over three burns", () => {
    const verdict = of(
      round(1, "measure", { errors: { x: 0.9, y: 0.8 } }),
      round(2, "proof", { errors: { x: 0.4 } }),
      round(3, "proof", { errors: { x: 0.02, y: -0.03 } }),
    );
    expect(verdict?.lines.map((l) => [l.label, l.before?.value, l.after.value, l.result])).toEqual([
      ["Error of x", 0.4, 0.02, "proved"],
      ["Error of y", 0.8, -0.03, "proved"],
    ]);
    expect(verdict).toMatchObject({
      result: "proved",
      headline: "Proved",
      advice: "x is off by 0.02; y is off by -0.03. Go on.",
    });
    expect(verdict?.asFound.quantity.value).toBe(-0.03);
  });

  it("is that of the worst of them, and says what became of the error in a proof, not in a check", () => {
    const first = round(1, "measure", { errors: { x: 0.9, y: 0.8 } });
    const again: Plan = { errors: { x: 0.01, y: 1.6 } };
    expect(of(first, round(2, "proof", again))).toMatchObject({
      result: "not proved",
      findings: [{ id: "doubled y", headline: "Twice." }],
    });
    expect(of(first, round(2, "check", again))).toMatchObject({ headline: "No longer valid", findings: [] });
  });

  it("is undecided where the uncertainty is too large for the tolerance, and says where to read more", () => {
    const verdict = of(round(1, "proof", { errors: { x: 0.09, y: 0 } }));
    expect(verdict).toMatchObject({ result: "cannot tell", ways: [{ sites: ["a"], more: 2 }] });
  });

  it("is undecided while an error that is due is missing, and not proved by any number beside what refutes it", () => {
    expect(of(round(1, "proof", { errors: { x: 0 } }))).toMatchObject({
      result: "cannot tell",
      headline: "Results are missing",
    });
    expect(of(round(1, "proof", { errors: { x: 0, y: 0 }, refuted: true }))).toMatchObject({
      result: "not proved",
      advice: "Mirrored.",
      findings: [{ id: "mirrored" }],
    });
  });
});
