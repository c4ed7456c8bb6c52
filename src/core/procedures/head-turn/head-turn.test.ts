import { describe, expect, it } from "vitest";
import { isGalvo, practiceFromSeed } from "../../../practice/practice-truth";
import { seeded } from "../../../practice/random";
import { rehearseRound } from "../../../testing/rehearsal/rehearse-round";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import type { TurnPlan } from "./plan";
import { headTurn } from "./procedure";
import { FIELD_TURN } from "./setting";
import { turnIn } from "./solve";

const CALIPERS: Gauge = gaugeAsUsual("calipers", { id: "c" });
const DEGREE = Math.PI / 180;
const context = { machine: SAMPLE_GALVO, couponCode: "T-1", inForce: {}, gauges: [CALIPERS] };
const usual = headTurn.plan(context).defaults;

function read(
  plan: TurnPlan,
  first: number[],
  second: number[],
): { history: History<TurnPlan>; round: RoundRecord<TurnPlan> } {
  const answer =
    (site: string) =>
    (value: number): Answer => ({
      site,
      content: { status: "read", value: { kind: "quantity", value } },
      u: null,
      gauge: "c",
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
    });
  const round: RoundRecord<TurnPlan> = {
    n: 1,
    purpose: "measure",
    plan,
    spec: headTurn.round(plan, context, "measure"),
    inForce: { [FIELD_TURN]: { shape: "scalar", value: 0.5 * DEGREE } },
    answers: [...first.map(answer("first")), ...second.map(answer("second"))],
  };
  return { round, history: historyOf([round]) };
}

function historyOf(rounds: readonly RoundRecord<TurnPlan>[]): History<TurnPlan> {
  return {
    rounds,
    gauges: [CALIPERS],
    available: [CALIPERS],
    machine: SAMPLE_GALVO,
    tolerance: headTurn.tolerance.default,
    decisions: {},
  };
}

describe("the turn against a fence", () => {
  it("is counter-clockwise where the right end is farther from a fence in front, or the front end from one to the left", () => {
    const front = read({ ...usual, fence: "front", baseMm: 90 }, [27], [28]);
    expect(turnIn(front.history, front.round)?.quantity.value).toBeCloseTo(Math.atan(1 / 90), 12);
    const left = read({ ...usual, fence: "left", baseMm: 90 }, [28], [27]);
    expect(turnIn(left.history, left.round)?.quantity.value).toBeCloseTo(Math.atan(1 / 90), 12);
  });

  it("has the uncertainty of a difference over its base: what the gauge always reads wrong cancels", () => {
    const { history, round } = read({ ...usual, baseMm: 90 }, [27.5, 27.52, 27.48], [27.5, 27.51, 27.49]);
    const turn = turnIn(history, round);
    // u of one reading 0.0202 mm by its gauge, little changed by these: sqrt(2 / 3) of it over 90 mm.
    expect(turn?.quantity.standardUncertainty).toBeGreaterThan((0.8 * 0.0202 * Math.sqrt(2 / 3)) / 90);
    expect(turn?.quantity.standardUncertainty).toBeLessThan((1.1 * 0.0202 * Math.sqrt(2 / 3)) / 90);
    expect(turn?.parts.map((p) => p.label)).not.toContain("Limit of error, calipers");
  });

  it("takes the turn off the value in force, by its sense", () => {
    const { history } = read({ ...usual, baseMm: 90 }, [27], [28]);
    const entered = (sense: 1 | -1) => {
      const held = {
        [FIELD_TURN]: { unit: "deg", step: 0.01 * DEGREE, range: null, tableKind: "not known", sense },
      } as const;
      const outcome = headTurn.solve({ ...history, machine: { ...SAMPLE_GALVO, held } });
      return outcome.status === "solved" ? (outcome.corrections[0]?.rows[0]?.enter ?? 0) / DEGREE : Number.NaN;
    };
    // atan(1/90) = 0.6366 degrees.
    expect(entered(1)).toBeCloseTo(0.5 - 0.64, 6);
    expect(entered(-1)).toBeCloseTo(0.5 + 0.64, 6);
  });

  it("is proved on practice heads once it is entered, from either side, and covers the true turn", () => {
    let covered = 0;
    const fences = ["front", "left"] as const;
    for (let seed = 1; seed <= 30; seed++) {
      const truth = practiceFromSeed(seed, SAMPLE_GALVO);
      if (!isGalvo(truth) || !truth.head) throw new Error("no galvo");
      // The field itself is right: a shear would turn a line along Y.
      const own = { cubic: 0, size: 1 };
      const head = {
        ...truth.head,
        mounted: { swap: false, invertX: false, invertY: false },
        skewRad: 0,
        tilt: { x: 0, y: 0 },
        lens: { cubic: 0, quintic: 0, pupil: 0 },
        x: own,
        y: own,
      };
      const plan = { ...usual, fence: fences[seed % 2] ?? "front" };
      const rounds: RoundRecord<TurnPlan>[] = [];
      let now = 0;
      for (const purpose of ["measure", "proof"] as const) {
        const inForce = { [FIELD_TURN]: { shape: "scalar" as const, value: now } };
        const { round } = rehearseRound({
          procedure: headTurn,
          plan,
          context: { ...context, inForce },
          purpose,
          n: rounds.length + 1,
          truth: { ...truth, head },
          controller: { table: [], switchedOn: true, numbers: { [FIELD_TURN]: { found: 0, now } } },
          gauge: CALIPERS,
          hand: { placingMm: 0.02, commonMm: 0.015, resolutionMm: 0.01 },
          random: seeded(seed),
        });
        rounds.push({ ...round, plan });
        const outcome = headTurn.solve(historyOf(rounds));
        if (outcome.status !== "solved") throw new Error("not solved");
        if (purpose === "measure") {
          const turn = outcome.estimates[0]?.quantity;
          if (turn && Math.abs(turn.value - head.turnRad) < expandedUncertainty(turn)) covered += 1;
          now = outcome.corrections[0]?.rows[0]?.enter ?? 0;
        }
      }
      expect(headTurn.judge(historyOf(rounds))?.result, `seed ${seed}`).toBe("proved");
    }
    expect(covered).toBeGreaterThanOrEqual(26);
  });
});
