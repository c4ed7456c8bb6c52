import { describe, expect, it } from "vitest";
import { planWith } from "../../../testing/plan-with";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import type { MachineSpec } from "../../machine/machine-spec";
import { type Gauge, gaugeAsUsual } from "../../metrology/gauge";
import type { HeldSetting } from "../../settings/setting";
import { type Answer, PLAIN_SHARES } from "../../trial/answer";
import { draftOf, readDraft } from "../../trial/draft";
import type { History, RoundRecord } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { linesOf, type OriginPlan, originPlan, planWarnings } from "./plan";
import { origin } from "./procedure";
import { HOME_OFFSET } from "./setting";

const RULER: Gauge = gaugeAsUsual("calipers");
const COUNTS: HeldSetting = { unit: "counts", step: 1, range: null, tableKind: "not known", sense: 1 };
const LENGTH: HeldSetting = { ...COUNTS, unit: "mm", step: 0.01 };
const INCH = 25.4;

const machineWith = (held: HeldSetting): MachineSpec => ({
  ...SAMPLE_MACHINE,
  held: { ...SAMPLE_MACHINE.held, [HOME_OFFSET.x]: held, [HOME_OFFSET.y]: held },
});

type Wanted = {
  machine: MachineSpec;
  plan?: Partial<OriginPlan>;
  read: Record<string, number[]>;
  held?: number | null;
  n?: number;
};

function roundWith({ machine, plan: changes, read, held = 100, n = 1 }: Wanted) {
  const context: PlanContext = { machine, couponCode: "T-1", inForce: {} };
  const form = originPlan(context);
  const plan = planWith(form, { knownMm: 0, ...changes });
  const answers = Object.entries(read).flatMap(([site, values]) =>
    values.map(
      (value): Answer => ({
        site,
        u: null,
        gauge: "calipers",
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed",
        content: { status: "read", value: { kind: "quantity", value } },
      }),
    ),
  );
  const purpose = n === 1 ? "measure" : "proof";
  const value = held === null ? null : { shape: "scalar" as const, value: held };
  const inForce = { [HOME_OFFSET.x]: value, [HOME_OFFSET.y]: value };
  return { n, purpose, plan, spec: origin.round(plan, context, purpose), inForce, answers } as RoundRecord<OriginPlan>;
}

const historyOf = (machine: MachineSpec, ...rounds: RoundRecord<OriginPlan>[]): History<OriginPlan> => ({
  rounds,
  gauges: [RULER],
  available: [RULER],
  machine,
  decisions: {},
  tolerance: origin.tolerance.default,
});

function solved(machine: MachineSpec, ...rounds: RoundRecord<OriginPlan>[]) {
  const outcome = origin.solve(historyOf(machine, ...rounds));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}

const row = (outcome: ReturnType<typeof solved>, k = 0) => {
  const found = outcome.corrections[k]?.rows[0];
  if (!found) throw new Error("nothing to enter");
  return found;
};

describe("the new home offset", () => {
  /** The box lies 0.064 in too near to the left edge: 64 counts of 0.001 in. (common practice, no source) */
  it("is 64 counts more for 0.064 in, where more counts move marks away", () => {
    const machine = machineWith(COUNTS);
    const near = INCH * (0.75 - 0.064);
    const round = roundWith({
      machine,
      plan: { axes: "X", senseX: "away", distanceXMm: INCH * 0.75, countMm: 0.0254 },
      read: { "x 1": [near, near], "x 2": [near, near] },
    });
    expect(row(solved(machine, round)).enter).toBe(164);
    expect(row(solved(machine, round)).arithmetic.join("; ")).toMatch(
      /100 \+ 1.626 mm ÷ 0.0254 mm per count = 164 counts/,
    );
    const toward = { ...round, plan: { ...round.plan, senseX: "toward" as const } };
    expect(row(solved(machine, toward)).enter).toBe(36);
  });

  it("takes out how the stock lies turned: a turn of a third of a degree leaves the corner alone", () => {
    const machine = machineWith(LENGTH);
    const turn = 0.006;
    const plan = {
      ...originPlan({ machine, couponCode: "T-1", inForce: {} }).defaults,
      sideX: "left",
      sideY: "back",
    } as const;
    const { x, y } = linesOf(plan);
    const along = ({ from, to }: { from: number; to: number }, share: number) => from + share * (to - from);
    // Left edge, seen from the back left corner: a turn counter-clockwise brings it nearer to its line, the further from the corner.
    const read = {
      "x 1": [20 + 0.3 - turn * along(x, 0.1)],
      "x 2": [20 + 0.3 - turn * along(x, 0.9)],
      "y 1": [15 - 0.5 + turn * along(y, 0.1)],
      "y 2": [15 - 0.5 + turn * along(y, 0.9)],
    };
    const outcome = solved(machine, roundWith({ machine, plan, read }));
    expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(0.3, 1);
    expect(outcome.estimates[1]?.quantity.value).toBeCloseTo(-0.5, 1);
    expect(outcome.findings.find((f) => f.id === "turned")?.headline).toMatch(/turned by 0.3\d ± .* counter-clockwise/);
  });

  it("adds half a line where its near edge was measured", () => {
    const machine = machineWith(LENGTH);
    const read = { "x 1": [19.9], "x 2": [19.9] };
    const plan = { axes: "X", senseX: "away", measuredTo: "near", lineWidthMm: 0.2 } as const;
    expect(solved(machine, roundWith({ machine, plan, read })).estimates[0]?.quantity.value).toBeCloseTo(0, 9);
    expect(solved(machine, roundWith({ machine, plan: { axes: "X" }, read })).estimates[0]?.quantity.value).toBeCloseTo(
      -0.1,
      9,
    );
  });

  it("is tried one way where the sense is not known, and right after the second burn", () => {
    const machine = machineWith(LENGTH);
    const lines = (mm: number) => ({ "x 1": [mm, mm], "x 2": [mm, mm], "x 3": [mm, mm] });
    const first = roundWith({ machine, plan: { axes: "X" }, read: lines(21), held: 5 });
    const tried = solved(machine, first);
    expect(row(tried).enter).toBeCloseTo(4, 9);
    expect(tried.findings.map((f) => f.id)).toContain("sense x");
    // It went the wrong way: 4 mm brings the line to 22 instead of 20
    const second = roundWith({ machine, plan: { axes: "X" }, read: lines(22), held: 4, n: 2 });
    expect(origin.judge(historyOf(machine, first, second))?.result).toBe("not proved");
    const told = solved(machine, first, second);
    expect(row(told).enter).toBeCloseTo(6, 9);
    expect(row(told).arithmetic[1]).toMatch(/toward the edge, as the last two burns show/);
    const third = roundWith({ machine, plan: { axes: "X" }, read: lines(20), held: 6, n: 3 });
    expect(origin.judge(historyOf(machine, first, second, third))?.result).toBe("proved");
    // Said wrongly, it is named
    const said = roundWith({ machine, plan: { axes: "X", senseX: "away" }, read: lines(22), held: 4, n: 2 });
    expect(solved(machine, first, said).findings.map((f) => f.id)).toContain("other sense x");
    const half = roundWith({ machine, plan: { axes: "X", senseX: "away" }, read: lines(20.5), held: 4, n: 2 });
    expect(solved(machine, first, half).findings.find((f) => f.id === "count x")?.headline).toMatch(/0.5 times as far/);
  });

  it.each([
    [21, "unchanged x"],
    [22, "doubled x"],
    [20.5, "halved x"],
    [19, "overshot x"],
  ])("that leaves the line at %f mm, where 20 was drawn and 21 found, is named: %s", (mm, id) => {
    const machine = machineWith(LENGTH);
    const lines = (at: number) => ({ "x 1": [at, at], "x 2": [at, at], "x 3": [at, at] });
    const plan = { axes: "X", senseX: "away" } as const;
    const first = roundWith({ machine, plan, read: lines(21), held: 5 });
    const proof = roundWith({ machine, plan, read: lines(mm), held: 4, n: 2 });
    const verdict = origin.judge(historyOf(machine, first, proof));
    expect(verdict?.result).toBe("not proved");
    expect(verdict?.findings.map((f) => f.id)).toEqual([id]);
  });

  it("beyond the end of the range is not entered, and says what to move; not read back it is not worked out", () => {
    const machine = machineWith({ ...LENGTH, range: { low: 0, high: 5 } });
    const read = { "x 1": [18, 18], "x 2": [18, 18] };
    const outcome = solved(machine, roundWith({ machine, plan: { axes: "X", senseX: "away" }, read, held: 4 }));
    expect(row(outcome).heldBack?.why).toMatch(/Enter between 0\.00 and 5\.00 mm/);
    expect(outcome.findings.find((f) => f.id.startsWith("range end"))?.text).toMatch(/2.00 mm.*home switch/);
    const unknown = solved(machine, roundWith({ machine, plan: { axes: "X" }, read, held: null }));
    expect(unknown.corrections).toEqual([]);
    expect(unknown.findings[0]?.headline).toMatch(/not read back/);
  });

  it("names inches, and X and Y that changed places", () => {
    const machine = machineWith(LENGTH);
    const inch = { "x 1": [508], "x 2": [508] };
    expect(
      solved(machine, roundWith({ machine, plan: { axes: "X" }, read: inch })).findings.map((f) => f.id),
    ).toContain("suspect all 0.03937007874015748");
    const turned = { "x 1": [15.1], "x 2": [15.1], "y 1": [20.2], "y 2": [20.2] };
    expect(solved(machine, roundWith({ machine, read: turned })).findings.map((f) => f.id)).toContain(
      "suspect swapped axes",
    );
  });
});

describe("a box that cannot be measured", () => {
  it.each([
    ["stockWidthMm", { stockWidthMm: "50" }, /10 mm beyond the stock/],
    ["stockHeightMm", { distanceYMm: "60" }, /20 mm beyond the stock/],
    ["stockWidthMm", { stockWidthMm: "2000" }, /at most 900 mm/],
    ["boxMm", { boxMm: "5" }, /does not show a turn/],
    ["distanceXMm", { distanceXMm: "0" }, /more than 0 mm/],
  ])("is refused at %s", (field, changes, message) => {
    const form = originPlan({ machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} });
    const read = readDraft(form, { ...draftOf(form, form.defaults), ...(changes as Record<string, string>) });
    expect(read.ok ? [] : read.issues).toContainEqual({ field, message: expect.stringMatching(message) });
  });

  it("warns of lines too near to the edge, and of equal distances", () => {
    const { defaults } = originPlan({ machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} });
    expect(planWarnings({ ...defaults, distanceYMm: 5 })[0]?.message).toMatch(/beside the stock/);
    expect(planWarnings({ ...defaults, distanceYMm: 20 })[0]?.message).toMatch(/mix-up/);
    expect(planWarnings(defaults)).toEqual([]);
  });
});
