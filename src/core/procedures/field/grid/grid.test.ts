/** The field by a grid of dots: what two scans tell, the scale by calipers, the map with its budget, the table that follows. */
import { describe, expect, it } from "vitest";
import { planWith } from "../../../../testing/plan-with";
import { readAnswer } from "../../../../testing/read-answer";
import { SAMPLE_GALVO } from "../../../../testing/sample-machine";
import { combine } from "../../../estimate/adjustment";
import { turned } from "../../../fitting/rigid-pose";
import { gaugeAsUsual } from "../../../metrology/gauge";
import { expandedUncertainty } from "../../../metrology/measured";
import { NO_FIELD_TABLE } from "../../../settings/field-table";
import type { Answer } from "../../../trial/answer";
import type { History, RoundRecord } from "../../../trial/history";
import type { Vector } from "../map";
import type { FieldPlan } from "../plan";
import { galvoField } from "../procedure";
import { MAP_KEYS } from "../setting";
import { gridRound } from "./coupon";
import { dotsOf, gridEndsOf, gridLengthsOf, gridNominalMm, pitchMm, reachMm } from "./lengths";
import { DEGREE, gridIn } from "./observe";

const CALIPERS = gaugeAsUsual("calipers");
const CONTEXT = { machine: SAMPLE_GALVO, couponCode: "T-1", inForce: {}, gauges: [CALIPERS] };

function planOf(own: object = {}): FieldPlan {
  return planWith(galvoField.plan(CONTEXT), { how: "grid", takes: "table", knownMm: 0, ...own }) as FieldPlan;
}

type Scanner = { ratio?: number; skew?: number; dpi?: number };

/** A scan of what the head marks, the stock turned on the glass. */
function scanned(plan: FieldPlan, site: string, head: (p: Vector) => Vector, turnRad: number, s: Scanner = {}): Answer {
  const { ratio = 0, skew = 0, dpi = 0 } = s;
  const points = dotsOf(plan).map((d) => {
    const p = turned(head(d), turnRad);
    return { x: 80 + (1 + dpi + ratio / 2) * p.x + skew * p.y, y: 70 + (1 + dpi - ratio / 2) * p.y };
  });
  return answer(site, { kind: "points", points });
}

const answer = (site: string, value: Parameters<typeof readAnswer>[1]) => readAnswer(site, value, CALIPERS, "typed");

function lengths(plan: FieldPlan, head: (p: Vector) => Vector, times = 4): Answer[] {
  return gridLengthsOf(plan).flatMap((id) => {
    const { from, to } = gridEndsOf(id, plan);
    const [a, b] = [head(from), head(to)];
    const value = Math.hypot(b.x - a.x, b.y - a.y);
    return Array.from({ length: times }, () => answer(id, { kind: "quantity", value }));
  });
}

function historyOf(plan: FieldPlan, answers: Answer[], own: Partial<RoundRecord<FieldPlan>> = {}) {
  const round: RoundRecord<FieldPlan> = {
    n: 1,
    purpose: "measure",
    plan,
    spec: gridRound(plan, CONTEXT, "measure"),
    inForce: { [MAP_KEYS.table]: NO_FIELD_TABLE },
    answers,
    ...own,
  };
  const history: History<FieldPlan> = {
    rounds: [round],
    gauges: [CALIPERS],
    available: [CALIPERS],
    machine: SAMPLE_GALVO,
    tolerance: 0.1,
    decisions: {},
  };
  return { round, history };
}

function issuesOf(own: object, inForce = {}): string {
  const form = galvoField.plan({ ...CONTEXT, inForce });
  const read = form.read({ ...form.defaults, how: "grid", ...own });
  return read.ok ? "" : read.issues.map((i) => `${i.field}: ${i.message}`).join();
}

const same = (p: Vector): Vector => p;
/** 0.4 % wide, leaning by 0.1 %, a bow. */
const bent = ({ x, y }: Vector): Vector => ({
  x: 1.004 * x + 0.001 * y + (x * y * y) / 110_000,
  y: 0.998 * y - (y * x * x) / 90_000,
});

function readOf(plan: FieldPlan, head: (p: Vector) => Vector, s: Scanner = {}, turns = [0.01, 1.56]) {
  const scans = ["dots", "dots turned"]
    .slice(0, plan.pictures === "two" ? 2 : 1)
    .map((site, i) => scanned(plan, site, head, turns[i] ?? 0, s));
  const { history, round } = historyOf(plan, [...lengths(plan, head), ...scans]);
  const read = gridIn(history, round);
  if (!read) throw new Error("not read");
  return { read, history, round };
}

describe("the layout of a grid", () => {
  it("has its dots in rows, an L of larger ones, and marks in the middle of four dots", () => {
    const plan = planOf({ across: 11, fieldMm: 100 });
    expect(pitchMm(plan)).toBeCloseTo(9.5, 12);
    const dots = dotsOf(plan);
    expect(dots).toHaveLength(121);
    expect(dots[0]).toMatchObject({ x: -47.5, y: -47.5, column: -5, row: -5 });
    expect(dots.filter((d) => d.diameterMm > 1.2).map((d) => `${d.column} ${d.row}`)).toEqual(
      ["0 0", "1 0", "2 0", "3 0", "4 0", "5 0", "0 1", "0 2", "0 3"].sort((a, b) => {
        const [ca = 0, ra = 0] = a.split(" ").map(Number);
        const [cb = 0, rb = 0] = b.split(" ").map(Number);
        return ra - rb || ca - cb;
      }),
    );
    expect(gridEndsOf("length x", plan)).toEqual({ from: { x: -42.75, y: 4.75 }, to: { x: 42.75, y: 4.75 } });
    expect(gridNominalMm("diagonal 1", plan)).toBeCloseTo(85.5 * Math.SQRT2, 10);
  });

  it("refuses by name an even number, dots too small, lengths beyond the gauge, and two corrections at once", () => {
    expect(issuesOf({})).toBe("");
    expect(issuesOf({ across: 12 })).toMatch(/across: 12 is even. Enter 11 or 13/);
    expect(issuesOf({ across: 33, fieldMm: 30 })).toMatch(/across: The dots would be 0.2 mm wide/);
    expect(issuesOf({ caliperReachMm: 100 })).toMatch(/gauge: The longest length is 14\d.\d mm/);
    const table = { shape: "map", undone: [{ map: { degree: 1, half: 50, x: [0], y: [0] }, reachMm: 40 }], form: null };
    expect(issuesOf({ takes: "artwork" }, { [MAP_KEYS.table]: table })).toMatch(/takes: .*corrected twice/);
    expect(issuesOf({ takes: "coefficients" }, { [MAP_KEYS.table]: table })).toMatch(
      /takes: A correction table is in force/,
    );
    expect(issuesOf({ takes: "table" }, { [MAP_KEYS.artwork]: table })).toMatch(/takes: Drawings are bent/);
    expect(issuesOf({ takes: "table" }, { [MAP_KEYS.table]: table })).toBe("");
  });
});

describe("what the scans and the lengths tell", () => {
  it("is the field as it is, whatever the pose of the stock on the glass", () => {
    const { read } = readOf(planOf(), bent);
    for (const p of [
      { x: 50, y: 50 },
      { x: -50, y: 20 },
      { x: 0, y: -50 },
    ]) {
      const [is, to] = [read.found.to(p), bent(p)];
      expect(is.x).toBeCloseTo(to.x, 3);
      expect(is.y).toBeCloseTo(to.y, 3);
      const back = read.found.from(is);
      expect(back?.x).toBeCloseTo(p.x, 8);
      expect(back?.y).toBeCloseTo(p.y, 8);
    }
  });

  it("is free of the ratio and the skew of the scanner where the stock was turned: they are seen by the difference", () => {
    const { read } = readOf(planOf(), bent, { ratio: 0.003, skew: 0.002, dpi: 0.001 });
    const [is, to] = [read.found.to({ x: 50, y: 40 }), bent({ x: 50, y: 40 })];
    expect(is.x).toBeCloseTo(to.x, 3);
    expect(is.y).toBeCloseTo(to.y, 3);
    const half = 55;
    const share = (id: string) => combine(read.fit, { [id]: 1 }).quantity.value / half;
    // A scan that is too long is corrected to be shorter. Half of a ratio is in X and half in Y, also for a skew.
    expect(share("ratio")).toBeCloseTo(-0.0015, 5);
    expect(share("skew")).toBeCloseTo(-0.001, 5);
    expect(share("scale")).toBeCloseTo(-0.001, 5);
  });

  it("leaves the skew of one scan to the diagonals; with two lengths alone the skew remains in the field and a finding says it", () => {
    const skew = { skew: 0.001 };
    const with4 = readOf(planOf({ pictures: "one" }), same, skew).read;
    expect(Math.abs(with4.found.to({ x: 0, y: 50 }).x)).toBeLessThan(0.004);
    const with2 = readOf(planOf({ pictures: "one", lengths: "sides" }), same, skew);
    expect(with2.read.found.to({ x: 0, y: 50 }).x).toBeCloseTo(0.05, 3);
    const error = with2.read.found.errorOver([{ at: { x: 0, y: 50 }, along: { x: 1, y: 0 } }]);
    // A limit of 0.1 % over 50 mm: 50 x 0.001 / sqrt(3) = 0.029
    expect(error.parts.find((p) => p.id === "skew")?.standardUncertainty).toBeCloseTo(0.0289, 4);
    const outcome = galvoField.solve(with2.history);
    expect(outcome.findings.map((f) => f.id)).toContain("skew");
    expect(galvoField.solve(readOf(planOf({ pictures: "one" }), same).history).findings.map((f) => f.id)).not.toContain(
      "skew",
    );
  });

  it("has a budget of its lengths: a reading too long by 0.01 mm moves the scale by its share", () => {
    const plan = planOf({ lengths: "sides" });
    const exact = readOf(plan, same);
    const scans = ["dots", "dots turned"].map((site, i) => scanned(plan, site, same, i === 0 ? 0.01 : 1.56));
    const longer = lengths(plan, same).map((a) =>
      a.content.status === "read" && a.content.value.kind === "quantity"
        ? answer(a.site, { kind: "quantity", value: a.content.value.value + 0.01 })
        : a,
    );
    const { history, round } = historyOf(plan, [...longer, ...scans]);
    const at = (read: ReturnType<typeof gridIn>) => read?.found.to({ x: 50, y: 0 }).x ?? Number.NaN;
    const moved = at(gridIn(history, round)) - at(exact.read);
    expect(moved).toBeCloseTo((0.01 / gridNominalMm("length x", plan)) * 50, 6);
  });

  it("asks for what is missing, and refuses half a grid", () => {
    const plan = planOf();
    const scan = (site: string) => scanned(plan, site, same, 0);
    const outcome = (answers: Answer[]) => {
      const o = galvoField.solve(historyOf(plan, answers).history);
      return o.status === "open" ? o.missing : o.status === "unsolvable" ? o.reason : "solved";
    };
    expect(outcome([])).toMatch(/Nothing is read yet/);
    expect(outcome(lengths(plan, same))).toBe("Scan the grid and add the picture.");
    expect(outcome([...lengths(plan, same), scan("dots")])).toBe("Add the picture of the next scan.");
    expect(outcome([scan("dots"), scan("dots turned")])).toMatch(/Without a length the scan has no scale/);
    const half = scan("dots");
    if (half.content.status === "read" && half.content.value.kind === "points")
      half.content.value.points = half.content.value.points.map((p, i) => (i % 3 === 0 ? p : null));
    expect(outcome([...lengths(plan, same), half, scan("dots turned")])).toMatch(/fewer than half of the dots/);
  });

  it("joins overlapping scans by the dots that they share", () => {
    const plan = planOf({ pictures: "parts", parts: "2", across: 21 });
    const half = (site: string, turnRad: number, isRight: boolean) => {
      const all = scanned(plan, site, bent, turnRad);
      if (all.content.status !== "read" || all.content.value.kind !== "points") throw new Error("no points");
      const points = all.content.value.points.map((p, i) => {
        const column = (i % 21) - 10;
        return (isRight ? column > -6 : column < 6) ? p : null;
      });
      return answer(site, { kind: "points", points });
    };
    const parts = [half("dots part 1", 0.02, false), half("dots part 2", -0.015, true)];
    const { history, round } = historyOf(plan, [...lengths(plan, bent), ...parts]);
    const read = gridIn(history, round);
    expect(read?.seen.dots).toHaveLength(21 * 21);
    for (const p of [
      { x: 50, y: 50 },
      { x: -50, y: 20 },
    ]) {
      expect(read?.found.to(p).x).toBeCloseTo(bent(p).x, 3);
      expect(read?.found.to(p).y).toBeCloseTo(bent(p).y, 3);
    }
    // One part twice is half a grid
    const apart = historyOf(plan, [
      ...lengths(plan, bent),
      parts[0] as Answer,
      { ...(parts[0] as Answer), site: "dots part 2" },
    ]);
    expect(gridIn(apart.history, apart.round)).toBeNull();
    expect(issuesOf({ pictures: "parts", across: 15 })).toMatch(/across: Each overlapping scan must show/);
  });

  it("puts a photo from aside right by six distances, and refuses it without all of them", () => {
    const plan = planOf({ pictures: "photo", across: 15 });
    // A camera that looks from the right and the back, far too near, and turned by a quarter
    const photo = dotsOf(plan).map((d) => {
      const { x, y } = bent(d);
      const w = 1 + 0.002 * x - 0.0012 * y;
      return { x: 30 - (3.1 * y) / w, y: 20 + (3.1 * x) / w };
    });
    const dots = answer("dots", { kind: "points", points: photo });
    const all = lengths(plan, bent);
    const { history, round } = historyOf(plan, [...all, dots]);
    const found = gridIn(history, round)?.found;
    for (const p of [
      { x: 50, y: 50 },
      { x: -50, y: 20 },
      { x: 0, y: -48 },
    ]) {
      expect(found?.to(p).x).toBeCloseTo(bent(p).x, 2);
      expect(found?.to(p).y).toBeCloseTo(bent(p).y, 2);
    }
    // The lens of the camera may bend lines by a thousandth, 0.055 mm at the edge. The uncertainty contains this.
    const error = found?.errorOver([{ at: { x: 50, y: 0 }, along: { x: 1, y: 0 } }]);
    expect(error?.parts[0]).toMatchObject({ id: "waves" });
    expect(error?.quantity.standardUncertainty).toBeGreaterThan(0.055);
    const five = historyOf(plan, [...all.filter((a) => a.site !== "side back"), dots]);
    const outcome = galvoField.solve(five.history);
    expect(outcome.status === "open" ? outcome.missing : "").toMatch(/side along X, back.*Without all six distances/);
  });

  it("says that both scans lie the same way, and takes one picture twice for no less than it is", () => {
    const plan = planOf();
    const once = scanned(plan, "dots", bent, 0.01, { skew: 0.001 });
    const twice = { ...once, site: "dots turned" };
    const { history, round } = historyOf(plan, [...lengths(plan, bent), once, twice]);
    const outcome = galvoField.solve(history);
    expect(outcome.findings.map((f) => f.id)).toContain("same way");
    const error = gridIn(history, round)?.found.errorOver([{ at: { x: 0, y: 50 }, along: { x: 1, y: 0 } }]);
    expect(error?.quantity.standardUncertainty).toBeGreaterThan(0.002);
    expect(galvoField.solve(readOf(plan, bent).history).findings.map((f) => f.id)).not.toContain("same way");
  });

  it("never fails while readings come in any order: dots first, a diagonal alone, a known length alone", () => {
    const plan = planOf({ knownMm: 10 });
    const scans = ["dots", "dots turned"].map((site, i) => scanned(plan, site, bent, i === 0 ? 0.01 : 1.56));
    const all = lengths(plan, bent);
    const block = answer("known outside", { kind: "quantity", value: 10 });
    const diagonal = all.filter((a) => a.site === "diagonal 1");
    for (const answers of [[block], scans, [...scans, block], [...scans, ...diagonal], [...all, block], diagonal]) {
      const { history } = historyOf(plan, answers);
      const outcome = galvoField.solve(history);
      expect(["open", "unsolvable"]).toContain(outcome.status);
      for (const site of gridRound(plan, CONTEXT, "measure").sites) galvoField.expected(history, site.id);
    }
  });

  it("never fails while readings come one by one, and while one is typed", () => {
    const plan = planOf({ knownMm: 10 });
    const scans = ["dots", "dots turned"].map((site, i) => scanned(plan, site, bent, i === 0 ? 0.01 : 1.56));
    const block = answer("known outside", { kind: "quantity", value: 10 });
    const order = [...scans, ...lengths(plan, bent, 2), block, block];
    for (let count = 0; count <= order.length; count++) {
      const { history, round } = historyOf(plan, order.slice(0, count));
      const outcome = galvoField.solve(history);
      galvoField.next(history, outcome);
      for (const site of round.spec.sites) {
        galvoField.expected(history, site.id);
        galvoField.detail(history, { site: site.id, typed: 94 });
      }
      galvoField.overlay(history);
    }
    expect(galvoField.solve(historyOf(plan, order).history).status).toBe("solved");
  });

  it("says by how much the number of dots of a scan is wrong, by the calipers", () => {
    const { history } = readOf(planOf(), same, { dpi: 0.012 });
    const outcome = galvoField.solve(history);
    expect(outcome.findings.find((f) => f.id === "dpi")?.headline).toMatch(
      /has 1\.2 % more dots per inch than it says/,
    );
  });
});

describe("what remains", () => {
  const figuresOf = (plan: FieldPlan, inForce: RoundRecord<FieldPlan>["inForce"]) => {
    const { history } = readOf(plan, bent);
    const outcome = galvoField.solve({ ...history, rounds: history.rounds.map((r) => ({ ...r, inForce })) });
    if (outcome.status !== "solved") throw new Error("not solved");
    const heat = outcome.figures.find((f) => f.id === "field remains");
    const after = outcome.figures.find((f) => f.id === "field after");
    if (heat?.kind !== "heat" || after?.kind !== "vectors") throw new Error("not drawn");
    return { heat, after };
  };

  it("is drawn as a heat map: little between the nodes of a table, what scale cannot do without one", () => {
    const table = figuresOf(planOf(), { [MAP_KEYS.table]: NO_FIELD_TABLE });
    expect(Math.max(...table.heat.cells.map((c) => c.value))).toBeLessThan(0.002);
    // The title contains the uncertainty of the scale, although the error of the farthest point is across it.
    const [, u = "0"] = / ± ([\d.]+) mm$/.exec(table.after.title) ?? [];
    const { read } = readOf(planOf(), bent);
    const at = { x: read.found.reachMm, y: read.found.reachMm };
    const along = (x: number, y: number) =>
      expandedUncertainty(read.found.errorOver([{ at, along: { x, y } }]).quantity);
    expect(Number(u)).toBeGreaterThanOrEqual(Math.max(along(1, 0), along(0, 1)) - 5e-4);
    expect(Number(u)).toBeGreaterThan(along(Math.SQRT1_2, -Math.SQRT1_2));
    const scaled = figuresOf(planOf({ takes: "coefficients", way: "scale" }), {
      "field scale x": { shape: "scalar", value: 1 },
      "field scale y": { shape: "scalar", value: 1 },
    });
    // As long as the arrow at the same place: at the corner the bow of Y stays.
    const corner = scaled.heat.cells[0];
    const arrow = scaled.after.arrows.find((a) => a.x === corner?.x && a.y === corner?.y);
    expect(corner?.value).toBeCloseTo(Math.hypot(arrow?.dx ?? 0, arrow?.dy ?? 0), 3);
    expect(corner?.value).toBeGreaterThan(0.3);
  });
});

describe("the degree of the map", () => {
  it("is the lowest that predicts the other dots, unless the user chooses a degree", () => {
    const { read, history, round } = readOf(planOf(), bent);
    expect(read.map.degree).toBe(3);
    const chosen = { ...history, decisions: { [DEGREE.key]: "2" } };
    expect(gridIn(chosen, { ...round })?.map.degree).toBe(2);
  });
});

describe("the verdict on a whole field", () => {
  it("is of its farthest point", () => {
    const plan = planOf();
    const wide = ({ x, y }: Vector) => ({ x: 1.001 * x, y });
    const { history } = readOf(plan, wide);
    const proof = { ...history, rounds: history.rounds.map((r) => ({ ...r, purpose: "proof" as const })) };
    const verdict = galvoField.judge(proof);
    expect(verdict?.result).toBe("proved");
    expect(verdict?.lines[0]?.after.value).toBeCloseTo(0.001 * reachMm(plan), 4);
    expect(galvoField.judge({ ...proof, tolerance: 0.03 })?.result).toBe("not proved");
    const u = expandedUncertainty(
      verdict?.lines[0]?.after ?? { value: 0, standardUncertainty: 0, degreesOfFreedom: 1 },
    );
    expect(u).toBeGreaterThan(0.004);
    expect(u).toBeLessThan(0.03);
  });
});
