/** Coupons burned on practice heads of all kinds, read, corrected and proved. */
import { describe, expect, it } from "vitest";
import { isGalvo, practiceFromSeed } from "../../../practice/practice-truth";
import { seeded } from "../../../practice/random";
import { rehearseRound } from "../../../testing/rehearsal/rehearse-round";
import { SAMPLE_GALVO } from "../../../testing/sample-machine";
import type { SettingsInForce } from "../../settings/setting";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import { SITES } from "./coupon";
import { ORDERS, type Order, type Switches } from "./eight";
import type { OrientationPlan } from "./plan";
import { orientation } from "./procedure";
import { readLie } from "./read";
import { INVERT_X, INVERT_Y, SWAP } from "./setting";
import { orderMatters } from "./solve";

const GAUGE = { id: "eye", name: "Eye", kind: "eye", unit: "mm", resolutionMm: 1, limitMm: 0, placing: null } as const;
const BOTH = [false, true];
const ALL: Switches[] = BOTH.flatMap((swap) =>
  BOTH.flatMap((invertX) => BOTH.map((invertY) => ({ swap, invertX, invertY }))),
);

function inForce({ swap, invertX, invertY }: Switches): SettingsInForce {
  const one = (is: boolean) => ({ shape: "scalar" as const, value: Number(is) });
  return { [SWAP]: one(swap), [INVERT_X]: one(invertX), [INVERT_Y]: one(invertY) };
}

function entered(now: Switches, found: Switches) {
  const one = (key: keyof Switches) => ({ found: Number(found[key]), now: Number(now[key]) });
  return { [SWAP]: one("swap"), [INVERT_X]: one("invertX"), [INVERT_Y]: one("invertY") };
}

/** Burns, reads, corrects, until it is proved. @returns how many burns it took, and the history */
function course(mounted: Switches, found: Switches, order: Order, said: OrientationPlan["order"]) {
  const truth = practiceFromSeed(5, SAMPLE_GALVO);
  if (!isGalvo(truth) || !truth.head) throw new Error("no galvo");
  const machine = { ...truth, head: { ...truth.head, mounted, order } };
  const context = { machine: SAMPLE_GALVO, couponCode: "T-1", inForce: {} };
  const plan = { ...orientation.plan(context).defaults, order: said };
  const rounds: RoundRecord<OrientationPlan>[] = [];
  let now = found;
  for (let n = 1; n <= 4; n++) {
    const { round } = rehearseRound({
      procedure: orientation,
      plan,
      context: { ...context, inForce: inForce(now) },
      purpose: n === 1 ? "measure" : "proof",
      n,
      truth: machine,
      controller: { table: [], switchedOn: true, numbers: entered(now, found) },
      gauge: GAUGE,
      hand: { placingMm: 0, commonMm: 0, resolutionMm: 0.01 },
      random: seeded(n),
    });
    rounds.push({ ...round, plan });
    const history = historyOf(rounds);
    if (orientation.judge(history)?.result === "proved") return { burns: n, history };
    const outcome = orientation.solve(history);
    if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
    const value = (key: string) => outcome.corrections.find((c) => c.setting === key)?.rows[0]?.enter === 1;
    now = { swap: value(SWAP), invertX: value(INVERT_X), invertY: value(INVERT_Y) };
  }
  return { burns: 5, history: historyOf(rounds) };
}

function historyOf(rounds: readonly RoundRecord<OrientationPlan>[]): History<OrientationPlan> {
  return {
    rounds,
    gauges: [],
    available: [],
    machine: SAMPLE_GALVO,
    tolerance: orientation.tolerance.default,
    decisions: {},
  };
}

describe("orientation on practice heads", () => {
  it.each(ORDERS)("is right after one correction in all 64 cases where the controller %s", (order) => {
    for (const mounted of ALL)
      for (const found of ALL)
        expect(course(mounted, found, order, order).burns, JSON.stringify({ mounted, found })).toBe(2);
  });

  it.each(ORDERS)("learns an order that is not known with one more burn where it matters: %s", (order) => {
    let more = 0;
    for (const mounted of ALL)
      for (const found of ALL) {
        const { burns, history } = course(mounted, found, order, "not known");
        const [first] = history.rounds;
        const read = first && readLie(first);
        if (!read?.ok) throw new Error("not read");
        const mattered = orderMatters(read.lie, found);
        // The first try is for swap first.
        expect(burns).toBe(mattered && order === "invert first" ? 3 : 2);
        if (mattered) {
          more += 1;
          const outcome = orientation.solve(history);
          expect(outcome.status === "solved" && outcome.learned[`sense: ${SWAP}`]).toBe(
            order === "swap first" ? 1 : -1,
          );
        }
      }
    expect(more).toBe(24);
  });

  it("finds the other order where a wrong one was said, and says so", () => {
    const { burns, history } = course(
      { swap: false, invertX: true, invertY: false },
      { swap: true, invertX: false, invertY: false },
      "invert first",
      "swap first",
    );
    expect(burns).toBe(3);
    const failed = { ...history, rounds: history.rounds.slice(0, 2) };
    const outcome = orientation.solve(failed);
    expect(outcome.findings.map((f) => f.headline)).toContain("The controller inverts first, then swaps X and Y.");
  });
});

describe("orientation, read wrongly", () => {
  const context = { machine: SAMPLE_GALVO, couponCode: "T-1", inForce: {} };
  const plan = orientation.plan(context).defaults;
  const spec = orientation.round(plan, context, "measure");
  const seen = (x: string, y: string, words: string) => {
    const answer = (site: string, option: string): Answer => ({
      site,
      content: { status: "read", value: { kind: "choice", option } },
      u: null,
      gauge: "eye",
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
    });
    const answers = [answer(SITES.x, x), answer(SITES.y, y), answer(SITES.words, words)];
    const round: RoundRecord<OrientationPlan> = {
      n: 1,
      purpose: "measure",
      plan,
      spec,
      answers,
      inForce: inForce({ swap: false, invertX: false, invertY: false }),
    };
    return orientation.solve(historyOf([round]));
  };

  it("tells two arrows along one line from mirrored words", () => {
    expect(seen("right", "left", "read")).toMatchObject({
      status: "unsolvable",
      reason: expect.stringMatching(/cannot end along the same line/),
    });
    expect(seen("left", "away", "read")).toMatchObject({
      status: "unsolvable",
      reason: expect.stringMatching(/arrows and the words contradict/),
    });
    expect(seen("left", "away", "mirrored")).toMatchObject({ status: "solved" });
  });

  it("says what no look can show", () => {
    const outcome = seen("left", "toward you", "read");
    expect(outcome.findings.map((f) => f.id)).toContain("turned by hand");
  });

  it("gives no new settings before those in force are read back", () => {
    const answers = (["x", "y", "words"] as const).map(
      (key): Answer => ({
        site: SITES[key],
        content: {
          status: "read",
          value: { kind: "choice", option: { x: "left", y: "away", words: "mirrored" }[key] },
        },
        u: null,
        gauge: "eye",
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed",
      }),
    );
    const round: RoundRecord<OrientationPlan> = { n: 1, purpose: "measure", plan, spec, answers, inForce: {} };
    const outcome = orientation.solve(historyOf([round]));
    expect(outcome).toMatchObject({ status: "solved", corrections: [] });
    expect(outcome.findings[0]?.headline).toBe("The settings in force are not known.");
  });
});
