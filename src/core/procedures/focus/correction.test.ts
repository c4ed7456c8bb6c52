import { describe, expect, it } from "vitest";
import { asLadder, historyWith, judgedRound } from "../../../testing/judged-ladder";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import type { MachineSpec } from "../../machine/machine-spec";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import { FOCUS_HEIGHT, type LadderPlan, STORED_HEIGHT } from "./plan";
import { focus } from "./procedure";

const HOLD = { unit: "mm", step: 0.1, range: null, tableKind: "not known", sense: 1 } as const;
const MACHINE: MachineSpec = { ...SAMPLE_MACHINE, held: { [STORED_HEIGHT]: HOLD } };
/** Around 2965.4 as a readout shows it, the machine coming by itself to 3000 (common practice, no source). */
const PLAN: Partial<LadderPlan> = {
  readAt: "scale, further apart",
  firstMm: 2960.4,
  stepMm: 1,
  count: 11,
  lowestMm: 2900,
  highestMm: 3100,
  setIn: "stored",
  homedMm: 3000,
  sense: "larger",
  settableMm: 0.1,
};
const stored = (value: number | null) => ({
  [STORED_HEIGHT]: value === null ? null : { shape: "scalar" as const, value },
});

function outcomeOf(plan: Partial<LadderPlan>, old: number | null = 122, machine = MACHINE) {
  const round = judgedRound({ machine, plan: { ...PLAN, ...plan }, inForce: stored(old), marked: [4, 8] });
  const history = historyWith(machine, [round]);
  const outcome = focus.solve(history);
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return { outcome, history, row: outcome.corrections[0]?.rows[0] };
}

describe("a stored number by which the machine finds its height", () => {
  it("goes by the distance from where it comes by itself, every line shown", () => {
    const { outcome, row } = outcomeOf({});
    expect(outcome.corrections[0]?.setting).toBe(STORED_HEIGHT);
    // 3000 - 2965.4 = 34.6 and 122 - 34.6 = 87.4 (common practice, no source)
    expect(row?.enter).toBeCloseTo(87.4, 9);
    expect(row?.arithmetic.join("\n")).toContain("2965.40 − 3000.00 = −34.60 mm");
    expect(row?.arithmetic.join("\n")).toContain("122.00 − 34.60 = 87.40");
  });

  it("keeps the sense of the number and that of the readout apart", () => {
    expect(outcomeOf({ sense: "smaller" }).row?.enter).toBeCloseTo(156.6, 9);
    expect(outcomeOf({ readAt: "scale, closer" }).row?.enter).toBeCloseTo(156.6, 9);
    expect(outcomeOf({ readAt: "scale, closer", sense: "smaller" }).row?.enter).toBeCloseTo(87.4, 9);
  });

  it("learns its sense by a small change, and says what it learned it from", () => {
    const learn = (triedNumberMm: number, triedHomedMm: number) =>
      outcomeOf({ sense: "not known", triedNumberMm, triedHomedMm });
    expect(learn(120, 2998).row?.enter).toBeCloseTo(87.4, 9);
    expect(learn(120, 3002).row?.enter).toBeCloseTo(156.6, 9);
    expect(learn(120, 2998).row?.arithmetic.join("\n")).toContain(
      "tried: 122.00 to 120.00 led from 3000.00 to 2998.00",
    );
    expect(learn(120, 2998).outcome.findings).toEqual([]);
    expect(learn(120, 2949.2).outcome.findings.map((f) => f.id)).toEqual(["number in another unit"]);
  });

  it("is not told where the old number, or what a larger one does, is not known", () => {
    const unread = outcomeOf({}, null);
    expect(unread.row).toBeUndefined();
    expect(unread.outcome.findings[0]?.headline).toMatch(/not read back/);
    expect(focus.next(unread.history, unread.outcome)).toMatchObject({
      do: "read",
      why: expect.stringMatching(/Confirm the stored value/),
    });
    const same = outcomeOf({ sense: "not known", triedNumberMm: 122, triedHomedMm: 2998 });
    expect(same.row).toBeUndefined();
    expect(same.outcome.findings.map((f) => f.id)).toEqual(["sense not known"]);
  });

  it("is held back where it leaves the range that the machine takes", () => {
    const range = { low: 100, high: 200 };
    const { row } = outcomeOf({}, 122, { ...MACHINE, held: { [STORED_HEIGHT]: { ...HOLD, range } } });
    expect(row?.heldBack?.why).toMatch(/^The value is 87\.4 mm\. Enter between 100\.0 and 200\.0 mm/);
  });

  it("is proved where the machine then comes by itself, which is looked at anew", () => {
    const { outcome, history } = outcomeOf({});
    const next = focus.next(history, outcome);
    if (next.do !== "round") throw new Error(next.why);
    expect(next.set).toEqual([STORED_HEIGHT]);
    expect(asLadder(next.plan).homedMm).toBeUndefined();
    const proof = (homedMm: number) =>
      focus.judge(
        historyWith(MACHINE, [
          ...history.rounds,
          judgedRound({
            machine: MACHINE,
            plan: { ...asLadder(next.plan), homedMm },
            inForce: stored(87.4),
            marked: [3, asLadder(next.plan).count - 2] as [number, number],
            purpose: "proof" as const,
            n: 2,
            sharpest: [(asLadder(next.plan).count + 1) / 2],
          }),
        ]),
      );
    expect(proof(2965.4)).toMatchObject({ result: "proved" });
    expect(proof(3000)).toMatchObject({
      result: "not proved",
      asFound: { quantity: { value: expect.closeTo(-34.6, 6) } },
    });
  });
});

describe("the height itself", () => {
  it("has what the rule leaves out on top", () => {
    const plan: Partial<LadderPlan> = { firstMm: 345, lowestMm: 340, highestMm: 360, count: 11, allowanceMm: 6 };
    const round = judgedRound({
      machine: SAMPLE_MACHINE,
      plan,
      marked: [4, 8] as [number, number],
      inForce: { [FOCUS_HEIGHT]: { shape: "scalar", value: 348 } },
    });
    const outcome = focus.solve(historyWith(SAMPLE_MACHINE, [round]));
    // 350 + 6 (common practice, no source)
    expect(JSON.stringify(outcome)).toContain("the gap is 350.00 + 6.00 = 356.00 mm");
  });
});

describe("a ladder that ended too early", () => {
  const PLAN_LOW: Partial<LadderPlan> = { firstMm: 2, count: 7, lowestMm: 0, highestMm: 30 };
  const measured = judgedRound({ machine: SAMPLE_MACHINE, plan: PLAN_LOW, marked: [4, 7] });

  it("goes on at that side, and what was read so far stays part of it", () => {
    const history = historyWith(SAMPLE_MACHINE, [measured]);
    const next = focus.next(history, focus.solve(history));
    if (next.do !== "round") throw new Error(next.why);
    expect(next).toMatchObject({ purpose: "refine", set: [] });
    expect(asLadder(next.plan).firstMm).toBe(8);
    // Marked from 5 mm (cell 4) to 11 mm, the fourth of the cells that go on.
    const more = judgedRound({
      machine: SAMPLE_MACHINE,
      plan: asLadder(next.plan),
      marked: [1, 4],
      purpose: "refine",
      n: 2,
    });
    const outcome = focus.solve(historyWith(SAMPLE_MACHINE, [measured, more]));
    if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
    expect(outcome.estimates[0]?.quantity.value).toBe(8);
    expect(outcome.estimates[0]?.quantity.standardUncertainty).toBeCloseTo(
      // A step of 1 mm, one edge in seven misjudged, and the rule.
      Math.hypot(Math.sqrt((1 / 12 + 0.15) / 2), 0.5 / Math.sqrt(12)),
      9,
    );
  });

  it("is open still while the cells that go on are not judged", () => {
    const history = historyWith(SAMPLE_MACHINE, [measured]);
    const next = focus.next(history, focus.solve(history));
    if (next.do !== "round") throw new Error(next.why);
    const unjudged = judgedRound({ machine: SAMPLE_MACHINE, plan: asLadder(next.plan), purpose: "refine", n: 2 });
    expect(focus.solve(historyWith(SAMPLE_MACHINE, [measured, unjudged]))).toMatchObject({ status: "unsolvable" });
  });

  it("asks for what was burned on to be read before it goes further", () => {
    const history = historyWith(SAMPLE_MACHINE, [measured]);
    const next = focus.next(history, focus.solve(history));
    if (next.do !== "round") throw new Error(next.why);
    const unread = historyWith(SAMPLE_MACHINE, [
      measured,
      judgedRound({ machine: SAMPLE_MACHINE, plan: asLadder(next.plan), purpose: "refine", n: 2 }),
    ]);
    expect(focus.next(unread, focus.solve(unread))).toMatchObject({ do: "read" });
  });

  it("goes on at both ends, one after the other, where cells marked from end to end", () => {
    const all = judgedRound({ machine: SAMPLE_MACHINE, plan: { ...PLAN_LOW, firstMm: 10 }, marked: [1, 7] });
    const history = historyWith(SAMPLE_MACHINE, [all]);
    const up = focus.next(history, focus.solve(history));
    if (up.do !== "round") throw new Error(up.why);
    expect(asLadder(up.plan).firstMm).toBe(16);
    const upper = judgedRound({
      machine: SAMPLE_MACHINE,
      plan: asLadder(up.plan),
      marked: [1, 2],
      purpose: "refine",
      n: 2,
    });
    const half = historyWith(SAMPLE_MACHINE, [all, upper]);
    const down = focus.next(half, focus.solve(half));
    if (down.do !== "round") throw new Error(down.why);
    expect(asLadder(down.plan).firstMm + (asLadder(down.plan).count - 1) * asLadder(down.plan).stepMm).toBe(10);
    const n = asLadder(down.plan).count;
    const lower = judgedRound({
      machine: SAMPLE_MACHINE,
      plan: asLadder(down.plan),
      marked: [n - 1, n],
      purpose: "refine",
      n: 3,
    });
    const whole = focus.solve(historyWith(SAMPLE_MACHINE, [all, upper, lower]));
    // From 9 to 17 mm.
    expect(whole).toMatchObject({ status: "solved", estimates: [{ quantity: { value: 13 } }] });
  });

  it("is gone by as it is where the sharpest cell is chosen, when that is said", () => {
    const sharp = judgedRound({ machine: SAMPLE_MACHINE, plan: PLAN_LOW, marked: [4, 7], sharpest: [5, 5] });
    const history = historyWith(SAMPLE_MACHINE, [sharp]);
    expect(focus.next(history, focus.solve(history))).toMatchObject({ do: "round", purpose: "refine" });
    expect(focus.solve(history)).toMatchObject({ corrections: [{ choice: { chosen: "burn on" } }] });
    const decided = historyWith(SAMPLE_MACHINE, [sharp], { "focus by": "sharpest" });
    expect(focus.next(decided, focus.solve(decided))).toMatchObject({ do: "round", purpose: "proof" });
  });

  it("goes downwards too, and not past what may be set", () => {
    const low = judgedRound({
      machine: SAMPLE_MACHINE,
      plan: { ...PLAN_LOW, firstMm: 6, lowestMm: 4 },
      marked: [1, 3],
    });
    const history = historyWith(SAMPLE_MACHINE, [low]);
    expect(focus.next(history, focus.solve(history))).toMatchObject({ do: "round", plan: { firstMm: 4, count: 3 } });
    const atEnd = judgedRound({
      machine: SAMPLE_MACHINE,
      plan: { ...PLAN_LOW, firstMm: 4, lowestMm: 4 },
      marked: [1, 3],
    });
    const stuck = historyWith(SAMPLE_MACHINE, [atEnd]);
    expect(focus.next(stuck, focus.solve(stuck))).toMatchObject({ do: "read" });
  });
});

describe("a ladder of which nothing is burned", () => {
  it("asks for widths of the beam at each height, and tells its focus, depth and quality", () => {
    const plan: Partial<LadderPlan> = { judged: "by widths", doses: "beam", firstMm: 6, stepMm: 0.5, count: 13 };
    const round = judgedRound({ machine: SAMPLE_MACHINE, plan });
    expect(round.spec.pieces).toEqual([]);
    expect(round.spec.sites.map((s) => s.measurand.kind)).toEqual(Array.from({ length: 13 }, () => "beam width"));
    const [rayleigh, d0, z0] = [1.975844, 0.2, 9.2];
    const answers = round.spec.sites.map((site, i): Answer => {
      const value = d0 * Math.hypot(1, (6 + i * 0.5 - z0) / rayleigh);
      return {
        site: site.id,
        u: null,
        gauge: "camera",
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed",
        content: { status: "read", value: { kind: "quantity", value } },
      };
    });
    const outcome = focus.solve(historyWith(SAMPLE_MACHINE, [{ ...round, answers }]));
    if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
    const found = (id: string) => outcome.estimates.find((e) => e.id === id)?.quantity.value;
    expect(found("focus")).toBeCloseTo(z0, 9);
    expect(found("depth")).toBeCloseTo(rayleigh, 6);
    expect(found("m2")).toBeCloseTo(1.5, 5);
    expect(outcome.figures[0]).toMatchObject({ title: "Width of the beam", span: { label: "depth of focus" } });
  });
});

describe("a ladder on which nothing marked", () => {
  it("says what to do, not that nothing was judged", () => {
    const round = judgedRound({ machine: SAMPLE_MACHINE });
    const lost = (site: string): Answer => ({
      site,
      u: null,
      gauge: "eye",
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
      content: { status: "cannot read", why: "nothing there" },
    });
    const history = historyWith(SAMPLE_MACHINE, [{ ...round, answers: [lost("marked"), lost("sharpest")] }]);
    expect(focus.solve(history)).toMatchObject({
      status: "unsolvable",
      reason: expect.stringMatching(/more power, a slower speed/),
    });
    expect(focus.next(history, focus.solve(history))).toMatchObject({ do: "read" });
  });
});
