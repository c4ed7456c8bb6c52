/**
 * A trial on a practice machine from the layout to the verdict, written down with all that is said of it.
 *
 * The texts are kept beside each procedure. They are no proof that a number is right: accuracy is tested against the hidden errors of the
 * machine, and budgets by hand. They show what a change of the code changes. A difference needs a reason in the commit.
 */
import { withTable } from "../../burning/loaded-table";
import { forecastOf } from "../../core/course/forecast";
import type { MachineSpec } from "../../core/machine/machine-spec";
import { type Gauge, type GaugeKind, usualGauge } from "../../core/metrology/gauge";
import type { UnitId } from "../../core/metrology/units";
import type { AnyProcedure } from "../../core/procedures/contract";
import { NO_FIELD_TABLE } from "../../core/settings/field-table";
import type { HeldSetting, SettingSpec, SettingsInForce, SettingValue } from "../../core/settings/setting";
import { usualStepIn } from "../../core/settings/setting";
import type { Answer } from "../../core/trial/answer";
import { leaveOut } from "../../core/trial/decisions";
import type { History, RoundRecord } from "../../core/trial/history";
import type { Estimate } from "../../core/trial/outcome";
import type { PlanContext } from "../../core/trial/plan-form";
import type { PracticeController } from "../../practice/gantry-truth";
import { practiceFromSeed } from "../../practice/practice-truth";
import { type Random, seeded, seedOf } from "../../practice/random";
import { planWith } from "../plan-with";
import { rehearseRound } from "../rehearsal/rehearse-round";
import { SAMPLE_MACHINE, SAMPLE_STOCK } from "../sample-machine";

export type WholeTrial = {
  procedure: AnyProcedure;
  seed: number;
  machine?: MachineSpec;
  /** Of the usual layout. */
  plan?: object;
  gauge?: GaugeKind;
  /** Values that are stored at the beginning, internal unit; left out: 1 for shares, 0 for all else. */
  stored?: Readonly<Record<string, number>>;
  /** Units in which settings are stored, where they are not the usual ones. */
  units?: Readonly<Record<string, UnitId>>;
  /** Burns at most. */
  burns?: number;
  tolerance?: number;
};

/** Everything that is said of a trial, one fact a line, numbers with seven figures. */
export function wholeTrial(trial: WholeTrial): string {
  const { procedure, seed, burns = 2 } = trial;
  const machine = holding(trial.machine ?? SAMPLE_MACHINE, trial);
  const kind = trial.gauge ?? "calipers";
  const gauge: Gauge = { id: kind, name: kind, kind, unit: "mm", ...usualGauge(kind, "mm") };
  const truth = practiceFromSeed(seed, machine);
  const random = seeded(seedOf(seed, "whole trial"));
  const tolerance = trial.tolerance ?? procedure.tolerance.default;
  let stored = storedAtFirst(trial);
  let numbers = Object.fromEntries(Object.entries(stored).flatMap(found));
  let controller: PracticeController = { table: [], switchedOn: true, numbers };
  const contextNow = (): PlanContext => ({
    machine,
    couponCode: "T-1",
    inForce: stored,
    gauges: [gauge],
    stocks: [SAMPLE_STOCK],
    tolerance,
  });
  let plan: Record<string, unknown> = planWith(procedure.plan(contextNow()), trial.plan ?? {});
  let history: History = { rounds: [], gauges: [gauge], available: [gauge], machine, decisions: {}, tolerance };
  let purpose: RoundRecord["purpose"] = "measure";
  const lines = [`forecast ${written(forecastOf({ procedure, plan, context: contextNow(), tolerance }))}`];
  for (let n = 1; n <= burns; n++) {
    const { round } = rehearseRound({
      procedure,
      plan,
      context: contextNow(),
      purpose,
      n,
      truth,
      gauge,
      controller,
      random,
      hand: {
        placingMm: gauge.placing?.sdMm ?? 0.02,
        commonMm: random.between(-1, 1) * gauge.limitMm,
        resolutionMm: gauge.resolutionMm,
      },
    });
    const before = history;
    history = { ...before, rounds: [...before.rounds, round] };
    const outcome = procedure.solve(history);
    const next = procedure.next(history, outcome);
    lines.push(
      "",
      `burn ${n}: ${purpose}`,
      ...expectedLines(procedure, history, round),
      ...fieldsOf("outcome", outcome),
      ...fieldsOf("verdict", procedure.judge(history)),
      ...fieldsOf("next", next),
    );
    if (n === 1) lines.push(...drawnLines(procedure, history, round), ...slipLines(procedure, history, round, random));
    if (next.do !== "round" || outcome.status !== "solved") break;
    for (const { setting, newValue } of outcome.corrections) {
      stored = { ...stored, [setting]: newValue };
      ({ controller, numbers } = entered(controller, numbers, procedure, setting, newValue, machine));
    }
    plan = next.plan as Record<string, unknown>;
    purpose = next.purpose;
  }
  return `${lines.join("\n")}\n`;
}

type Numbers = NonNullable<PracticeController["numbers"]>;

function found([key, value]: [string, SettingsInForce[string]]): [string, Numbers[string]][] {
  return value?.shape === "scalar" ? [[key, { found: value.value, now: value.value }]] : [];
}

function entered(
  controller: PracticeController,
  numbers: Numbers,
  procedure: AnyProcedure,
  setting: string,
  value: SettingValue,
  machine: MachineSpec,
): { controller: PracticeController; numbers: Numbers } {
  if (value.shape === "scalar") {
    const before = numbers[setting] ?? { found: value.value, now: value.value };
    const now = { ...numbers, [setting]: { ...before, now: value.value } };
    return { controller: { ...controller, numbers: now }, numbers: now };
  }
  const { on } = procedure.settings.find((s) => s.key === setting)?.acts ?? { on: "next burn" };
  if (value.shape === "map")
    return { controller: on === "field table" ? withTable(controller, value, machine) : controller, numbers };
  const table = on === "scanned rows" ? { rowShifts: value.rows } : { table: value.rows };
  return { controller: { ...controller, ...table }, numbers };
}

/** A controller that has every setting of the procedure. */
function holding(machine: MachineSpec, { procedure, units = {} }: WholeTrial): MachineSpec {
  const held = procedure.settings.map((setting): [string, HeldSetting] => {
    const unit = units[setting.key] ?? setting.unit;
    const common = { unit, step: usualStepIn(setting, unit), tableKind: "interpolated", sense: 1 } as const;
    if (setting.effect === undefined) return [setting.key, { ...common, range: null }];
    return [setting.key, { ...common, range: { low: -100, high: 100 }, effectMm: 0.04 }];
  });
  return { ...machine, held: Object.fromEntries(held) };
}

function storedAtFirst({ procedure, stored = {} }: WholeTrial): SettingsInForce {
  const first = (setting: SettingSpec): SettingValue =>
    setting.shape === "map"
      ? NO_FIELD_TABLE
      : setting.shape === "table"
        ? { shape: "table", rows: [] }
        : { shape: "scalar", value: stored[setting.key] ?? (setting.unit === "percent" ? 1 : 0) };
  return Object.fromEntries(procedure.settings.map((setting) => [setting.key, first(setting)]));
}

/** What each point should read by all others, and with nothing read. */
function expectedLines(procedure: AnyProcedure, history: History, round: RoundRecord): string[] {
  const rounds = history.rounds.map((r) => (r === round ? { ...r, answers: [] } : r));
  return round.spec.sites.map(
    ({ id }) =>
      `expected ${id}: ${written(procedure.expected(history, id))} unread ${written(procedure.expected({ ...history, rounds }, id))}`,
  );
}

/** Close-ups and marks on the coupon, by the sums of their numbers. */
function drawnLines(procedure: AnyProcedure, history: History, { spec }: RoundRecord): string[] {
  const closeUps = spec.sites.map(
    ({ id }) => `close-up of ${id}: ${sums(procedure.detail(history, { site: id, typed: null }))}`,
  );
  const pieces = spec.pieces.map((piece) => `piece ${piece.id}: ${sums(piece)}`);
  return [...pieces, ...closeUps, `marks on the coupon: ${sums(procedure.overlay(history))}`];
}

/** One reading ten times too large, and the same reading left out: what is found, what is held back, what is left. */
function slipLines(procedure: AnyProcedure, history: History, round: RoundRecord, random: Random): string[] {
  const read = round.answers.flatMap((a, i) =>
    a.content.status === "read" && a.content.value.kind === "quantity" && a.content.value.value !== 0 ? [i] : [],
  );
  const index = read[Math.floor(random.even() * read.length)];
  if (index === undefined) return [];
  const slipped: RoundRecord = { ...round, answers: round.answers.map((a, i) => (i === index ? tenfold(a) : a)) };
  const withSlip = { ...history, rounds: [slipped] };
  const model = procedure.observe?.(withSlip, slipped);
  const site = round.answers[index]?.site;
  const largest = model?.observations
    .filter((o) => o.reading?.point === site)
    .toSorted((a, b) => Math.abs(b.reading?.typed ?? 0) - Math.abs(a.reading?.typed ?? 0))[0];
  const decisions: Record<string, string> = largest ? { [leaveOut(largest.id).key]: "yes" } : {};
  const [slip, without] = [procedure.solve(withSlip), procedure.solve({ ...withSlip, decisions })];
  const rows = slip.status === "solved" ? slip.corrections.flatMap((c) => c.rows) : [];
  return [
    `slip at ${site}: ${slip.status}`,
    ...(slip.status === "open" ? [] : slip.findings.map((f, i) => `slip finding ${i}: ${written(f)}`)),
    ...rows.map((row) => `slip row ${row.key}: ${rounded(row.enter)} ${row.heldBack?.why ?? "may be entered"}`),
    `left out: ${without.status}`,
    ...(without.status === "solved" ? without.estimates.map((e) => `left out ${estimateText(e)}`) : []),
  ];
}

function tenfold(answer: Answer): Answer {
  const { content } = answer;
  if (content.status !== "read" || content.value.kind !== "quantity") return answer;
  return { ...answer, content: { status: "read", value: { kind: "quantity", value: 10 * content.value.value } } };
}

/** A line for each field, and for each item of a list. */
function fieldsOf(name: string, whole: object | null): string[] {
  if (!whole) return [`${name}: none`];
  return Object.entries(whole).flatMap(([key, value]) =>
    Array.isArray(value)
      ? value.map((item, i) => `${name} ${key} ${i}: ${key === "estimates" ? estimateText(item) : written(item)}`)
      : [`${name} ${key}: ${written(value)}`],
  );
}

function estimateText({ id, quantity, budget, helps, headline }: Estimate): string {
  const parts = budget.map((p) => `${p.id} ${rounded(p.standardUncertainty)}`).join(", ");
  const nu = quantity.degreesOfFreedom;
  const freedom = typeof nu === "number" ? rounded(nu) : nu;
  return `${id}${headline ? " (headline)" : ""} ${rounded(quantity.value)}, u ${rounded(quantity.standardUncertainty)}, freedom ${freedom}; ${parts}; ${helps ?? ""}`;
}

const FIGURES = 7;
/** A drawing or chart with more text than this is written as its sums. */
const LONG = 800;

function written(value: unknown): string {
  const text = textOf(value);
  return text.length <= LONG ? text : sums(value);
}

function sums(value: unknown): string {
  const text = textOf(value);
  const numbers = [...text.matchAll(/-?\d+(\.\d+)?(e-?\d+)?/g)].map(([n]) => Number(n));
  const sum = numbers.reduce((total, n, i) => total + n * (1 + (i % 7)), 0);
  return `${text.length} characters, ${numbers.length} numbers, sum ${rounded(sum)}`;
}

function textOf(value: unknown): string {
  return JSON.stringify(value, (_, v) => (typeof v === "number" ? rounded(v) : v)) ?? "none";
}

function rounded(value: number): number | string {
  if (!Number.isFinite(value)) return String(value);
  const short = Number(value.toPrecision(FIGURES));
  return Math.abs(short) < 1e-12 ? 0 : short;
}
