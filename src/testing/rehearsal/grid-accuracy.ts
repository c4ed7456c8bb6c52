/**
 * A field measured by a grid of dots, corrected once by a table, and looked at over the whole field, on heads drawn by chance.
 *
 * Heads as in `field-accuracy`. Each has a scanner of its own: X against Y up to 0.2 %, skew up to 0.1 %, dots per inch up to 0.2 %, bands of
 * up to 10 um, waves of up to 0.008 mm that are 30 to 150 mm long. Dots scatter by 0.02 pixels at 600 dots per inch. Calipers: placing 0.02
 * mm, step 0.01 mm, common error up to 0.02 mm, zero up to 0.005 mm off. Turn and place of the whole, which no grid shows, are taken out.
 */
import type { MachineSpec } from "../../core/machine/machine-spec";
import { gaugeAsUsual } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import { MM_PER_INCH } from "../../core/metrology/units";
import { gridRound, scansOf } from "../../core/procedures/field/grid/coupon";
import { dotsOf, gridEndsOf, gridLengthsOf, reachMm } from "../../core/procedures/field/grid/lengths";
import { gridIn } from "../../core/procedures/field/grid/observe";
import type { FieldPlan } from "../../core/procedures/field/plan";
import { galvoField } from "../../core/procedures/field/procedure";
import { betweenNodes, tableAfter } from "../../core/procedures/field/table";
import { NO_FIELD_TABLE } from "../../core/settings/field-table";
import type { Answer } from "../../core/trial/answer";
import type { History, RoundRecord } from "../../core/trial/history";
import { GalvoHead, NOTHING_HELD } from "../../practice/galvo-head";
import { type Random, seeded, seedOf } from "../../practice/random";
import { laidOnGlass, scannedAt, scannerFromSeed } from "../../practice/scanner";
import { planWith } from "../plan-with";
import { readAnswer } from "../read-answer";
import { fieldMachine, fieldTruth } from "./field-accuracy";

export type GridCase = Pick<FieldPlan, "pictures" | "lengths"> & { across?: number };

type Point = { x: number; y: number };

const CALIPERS = gaugeAsUsual("calipers");
const ZERO_MM = 0.005;
const DOT_MM = (0.02 * MM_PER_INCH) / 600;
/** Off the straight way on the glass, rad. */
const LAID_RAD = 0.026;
/** Nodes of the table along each side. */
const NODES = 65;
/** Points along each side at which the field is compared. */
const SIDE = 15;
/** One point in this many is also compared with its stated uncertainty. */
const EVERY = 7;

export type GridTrial = {
  /** Left over the field, mm: root of the mean square, largest, and the first with scale and shear taken out. */
  rms: number;
  worst: number;
  shape: number;
  degree: number;
  /** Errors along X and Y that lie within their 95 % interval, of how many. */
  held: number;
  of: number;
};

export function gridTrial(seed: number, { across = 25, ...how }: GridCase): GridTrial {
  const machine = fieldMachine("known");
  const head = new GalvoHead(fieldTruth(seed, machine).head, NOTHING_HELD, machine.widthMm / 2);
  const marked = (p: Point) => head.marked(p, 0);
  const context = { machine, couponCode: "T", inForce: {}, gauges: [CALIPERS] };
  const plan = planWith(galvoField.plan(context), {
    how: "grid",
    takes: "table",
    across,
    knownMm: 0,
    ...how,
  }) as FieldPlan;
  const random = seeded(seedOf(seed, "grid accuracy"));
  const answers = [...lengthsOf(plan, marked, random), ...scansIn(plan, marked, seed, random)];
  const { map, found } = readOf(plan, machine, answers, context);
  const table = tableAfter(NO_FIELD_TABLE, map, reachMm(plan));
  const places = Array.from({ length: SIDE * SIDE }, (_, i): Point => {
    const at = (k: number) => reachMm(plan) * ((2 * k) / (SIDE - 1) - 1);
    return { x: at(i % SIDE), y: at(Math.floor(i / SIDE)) };
  });
  const left = places.map((w) => {
    // As a controller does: in proportion between its nodes.
    const lies = marked(betweenNodes(table, NODES, machine.widthMm, w));
    return { at: w, x: lies.x - w.x, y: lies.y - w.y };
  });
  const straight = withoutTurn(left, 0);
  const laid = withoutTurn(left, 0.5);
  const seen = straight.filter((_, i) => i % EVERY === 0);
  const inside = (axis: "x" | "y") =>
    seen.filter((e) => {
      const along = axis === "x" ? { x: 1, y: 0 } : { x: 0, y: 1 };
      return Math.abs(e[axis]) <= expandedUncertainty(found.errorOver([{ at: e.at, along }]).quantity);
    }).length;
  return {
    rms: rms(laid),
    worst: Math.max(...laid.map((e) => Math.hypot(e.x, e.y))),
    shape: rms(withoutLines(laid)),
    degree: map.degree,
    held: inside("x") + inside("y"),
    of: 2 * seen.length,
  };
}

function readOf(plan: FieldPlan, machine: MachineSpec, answers: Answer[], context: Parameters<typeof gridRound>[1]) {
  const round: RoundRecord<FieldPlan> = {
    n: 1,
    purpose: "measure",
    plan,
    spec: gridRound(plan, context, "measure"),
    inForce: {},
    answers,
  };
  const history: History<FieldPlan> = {
    rounds: [round],
    gauges: [CALIPERS],
    available: [CALIPERS],
    machine,
    tolerance: 0.1,
    decisions: {},
  };
  const read = gridIn(history, round);
  if (!read) throw new Error("the grid is not read");
  return read;
}

function lengthsOf(plan: FieldPlan, marked: (p: Point) => Point, random: Random): Answer[] {
  const common = random.between(-CALIPERS.limitMm, CALIPERS.limitMm) + random.between(-ZERO_MM, ZERO_MM);
  return gridLengthsOf(plan).flatMap((id) => {
    const { from, to } = gridEndsOf(id, plan);
    const [a, b] = [marked(from), marked(to)];
    const mm = Math.hypot(b.x - a.x, b.y - a.y);
    return Array.from({ length: plan.lengthRepeats }, () => {
      const shown = mm + common + (CALIPERS.placing?.sdMm ?? 0) * random.normal();
      const value = Math.round(shown / CALIPERS.resolutionMm) * CALIPERS.resolutionMm;
      return readAnswer(id, { kind: "quantity", value }, CALIPERS, "practice");
    });
  });
}

function scansIn(plan: FieldPlan, marked: (p: Point) => Point, seed: number, random: Random): Answer[] {
  const scanner = scannerFromSeed(seed);
  return scansOf(plan).map((site, i) => {
    const laid = {
      turnRad: (i * Math.PI) / 2 + random.between(-LAID_RAD, LAID_RAD),
      atX: random.between(80, 130),
      atY: random.between(80, 130),
    };
    const points = dotsOf(plan).map((d) => {
      const at = scannedAt(scanner, laidOnGlass(laid, marked(d)));
      return { x: at.x + DOT_MM * random.normal(), y: at.y + DOT_MM * random.normal() };
    });
    return readAnswer(site, { kind: "points", points }, CALIPERS, "practice");
  });
}

type Left = Point & { at: Point };

/** By least squares: sums of a, b and c in e = a + b x + c y. */
function plane(errors: readonly Left[], of: (e: Left) => number) {
  const n = errors.length;
  // The places lie evenly about the middle, so that the three sums do not mix.
  const sum = (f: (e: Left) => number) => errors.reduce((total, e) => total + f(e), 0);
  const [sxx, syy] = [sum((e) => e.at.x ** 2), sum((e) => e.at.y ** 2)];
  return { level: sum(of) / n, byX: sum((e) => of(e) * e.at.x) / sxx, byY: sum((e) => of(e) * e.at.y) / syy };
}

/**
 * Without the turn and the place of the whole, which only a fence shows.
 *
 * @param share of the turn that goes by Y: 0 = X straight to the right, as results have it; a half = laid as well as it can be
 */
function withoutTurn(errors: readonly Left[], share: number): Left[] {
  const [x, y] = [plane(errors, (e) => e.x), plane(errors, (e) => e.y)];
  const turn = (1 - share) * y.byX - share * x.byY;
  return errors.map((e) => ({ at: e.at, x: e.x - x.level + turn * e.at.y, y: e.y - y.level - turn * e.at.x }));
}

/** Residual error of the shape alone, without scale and shear. */
function withoutLines(errors: readonly Left[]): Left[] {
  const [x, y] = [plane(errors, (e) => e.x), plane(errors, (e) => e.y)];
  return errors.map((e) => ({
    at: e.at,
    x: e.x - x.byX * e.at.x - x.byY * e.at.y,
    y: e.y - y.byX * e.at.x - y.byY * e.at.y,
  }));
}

function rms(errors: readonly Point[]): number {
  return Math.sqrt(errors.reduce((sum, e) => sum + e.x ** 2 + e.y ** 2, 0) / errors.length);
}
