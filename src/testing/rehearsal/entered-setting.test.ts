/**
 * A number that is entered must act on the practice machine as its setting declares: else a proof there can never succeed. Each setting of
 * each procedure either changes what the machine burns from the same file, or is what the next burn is laid out by.
 */
import { describe, expect, it } from "vitest";
import { withTable } from "../../burning/loaded-table";
import { burnFile } from "../../burning/practice-burn";
import { PROCEDURES } from "../../core/course/registry";
import type { MachineSpec } from "../../core/machine/machine-spec";
import { type Gauge, gaugeAsUsual } from "../../core/metrology/gauge";
import type { AnyProcedure } from "../../core/procedures/contract";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import type { FieldTable } from "../../core/settings/field-table";
import type { SettingSpec, SettingsInForce } from "../../core/settings/setting";
import type { History } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { gcodeOf } from "../../formats/gcode-writer";
import { svgOf } from "../../formats/svg-writer";
import type { PracticeController } from "../../practice/gantry-truth";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seeded } from "../../practice/random";
import { SAMPLE_GALVO, SAMPLE_MACHINE } from "../sample-machine";
import { rehearseRound } from "./rehearse-round";

const CALIPERS: Gauge = gaugeAsUsual("calipers", { id: "c" });
const NOTHING: PracticeController = { table: [], switchedOn: true };

const EACH = PROCEDURES.flatMap((procedure) =>
  [SAMPLE_MACHINE, SAMPLE_GALVO]
    .filter((machine) => procedure.machineKinds.includes(machine.kind))
    .flatMap((machine) =>
      procedure.settings.map((setting) => [setting.key, machine.kind, setting, procedure, machine] as const),
    ),
);

const contextOn = (machine: MachineSpec): PlanContext => ({
  machine,
  couponCode: "T-1",
  inForce: {},
  gauges: [CALIPERS],
});

/** A field that is half a millimetre too wide at its edge is undone. */
const UNDONE: FieldTable = {
  shape: "map",
  undone: [{ map: { degree: 1, half: 50, x: [0, 50.5, 0], y: [0, 0, 50] }, reachMm: 45 }],
  form: null,
};

/** The controller with another value than it was found with. */
function changed({ key, shape, acts }: SettingSpec, machine: MachineSpec): PracticeController {
  const rows = [{ at: 300, value: 0.2 }];
  if (shape === "map") return acts.on === "field table" ? withTable(NOTHING, UNDONE, machine) : NOTHING;
  if (shape === "table")
    return acts.on === "scanned rows" ? { ...NOTHING, rowShifts: rows } : { ...NOTHING, table: rows };
  return { ...NOTHING, numbers: { [key]: { found: 1, now: 1.05 } } };
}

/** What the same file leaves on the stock: burned as drawn and, on a part that turns, laid around it. */
function marksOf(
  procedure: AnyProcedure,
  machine: MachineSpec,
  controller: PracticeController,
  inForce: SettingsInForce = {},
) {
  const context = contextOn(machine);
  const plan = procedure.plan(context).defaults;
  const spec = procedure.round(plan, context, "measure");
  const [piece] = procedure.asSent(spec, plan, inForce, machine).pieces;
  const text =
    machine.kind === "galvo"
      ? piece
        ? svgOf(piece)
        : ""
      : gcodeOf(spec, { couponCode: "T-1", machineName: machine.name, dialect: machine.gcode, bed: machine });
  const burn = burnFile(text, "T-1", machine, practiceFromSeed(3, machine), controller, spec);
  if (!burn.ok) throw new Error(burn.message);
  return burn;
}

/** Whether the next burn is laid out by what was found: the plan of the proof is another than that of the measuring burn. */
function isLaidOutBy(procedure: AnyProcedure, machine: MachineSpec, setting: SettingSpec): boolean {
  const context = contextOn(machine);
  const plan = procedure.plan(context).defaults;
  const inForce: SettingsInForce = { [setting.key]: { shape: "scalar", value: 1 } };
  const { round } = rehearseRound({
    procedure,
    plan,
    context: { ...context, inForce },
    purpose: "measure",
    n: 1,
    controller: NOTHING,
    truth: practiceFromSeed(3, machine),
    gauge: CALIPERS,
    random: seeded(3),
    hand: { placingMm: 0.01, commonMm: 0, resolutionMm: 0.01 },
  });
  const history: History = {
    rounds: [round],
    gauges: [CALIPERS],
    available: [CALIPERS],
    machine,
    decisions: {},
    tolerance: procedure.tolerance.default,
  };
  const next = procedure.next(history, procedure.solve(history));
  if (next.do !== "round") throw new Error(next.why);
  return JSON.stringify(next.plan) !== JSON.stringify(plan);
}

describe("a practice machine with the opposite sense", () => {
  const hold = { unit: "mm", step: 0.001, range: null, tableKind: "interpolated", sense: -1 } as const;
  const described = (held: MachineSpec["held"]): MachineSpec => ({ ...SAMPLE_MACHINE, held });
  const table: PracticeController = { ...NOTHING, table: [{ at: 300, value: 0.2 }] };
  const burned = (machine: MachineSpec, controller: PracticeController) =>
    JSON.stringify(marksOf(scanOffset, machine, controller));

  it("acts as its machine page says", () => {
    const [later, earlier] = [described({ "scan offset": hold }), described({ "scan offset": { ...hold, sense: 1 } })];
    const opposite: PracticeController = { ...table, table: [{ at: 300, value: -0.2 }] };
    expect(burned(later, table)).toBe(burned(earlier, opposite));
    expect(burned(later, table)).not.toBe(burned(earlier, table));
  });

  it("has a random sense if the sense is not known", () => {
    const unknown = described({ "scan offset": { ...hold, sense: 1, senseAssumed: true } });
    const senses = Array.from({ length: 20 }, (_, seed) => {
      const truth = practiceFromSeed(seed, unknown);
      return "controller" in truth ? truth.controller.sense : 0;
    });
    expect(new Set(senses)).toEqual(new Set([1, -1]));
  });

  it("makes marks longer with a larger axis size if the machine page says so", () => {
    const size = (sense: 1 | -1) => described({ "axis scale x": { ...hold, step: 0.01, sense } });
    const changed: PracticeController = { ...NOTHING, numbers: { "axis scale x": { found: 300, now: 303 } } };
    expect(burned(size(1), changed)).not.toBe(burned(size(-1), changed));
  });
});

describe.each(EACH)("%s on a practice %s", (_key, _kind, setting, procedure, machine) => {
  it("acts as it is declared once it is entered", () => {
    const bent: SettingsInForce = setting.acts.on === "drawings" ? { [setting.key]: UNDONE } : {};
    const before = marksOf(procedure, machine, NOTHING);
    const after = marksOf(procedure, machine, changed(setting, machine), bent);
    expect(JSON.stringify(before) !== JSON.stringify(after)).toBe(setting.acts.on !== "next burn");
    if (setting.acts.on === "next burn") expect(isLaidOutBy(procedure, machine, setting)).toBe(true);
  });
});
