/** Rounds with readings as a test wants them. */

import type { MachineSpec } from "../core/machine/machine-spec";
import { type Gauge, gaugeAsUsual } from "../core/metrology/gauge";
import { type MeasuredPlace, placesOf } from "../core/procedures/axis-scale/places";
import type { AxisScalePlan } from "../core/procedures/axis-scale/plan";
import { axisScalePlan } from "../core/procedures/axis-scale/plan-faults";
import { axisScale } from "../core/procedures/axis-scale/procedure";
import { AXIS_SCALE } from "../core/procedures/axis-scale/setting";
import type { HeldSetting } from "../core/settings/setting";
import { type Answer, PLAIN_SHARES } from "../core/trial/answer";
import type { History, Purpose, RoundRecord } from "../core/trial/history";
import type { PlanContext } from "../core/trial/plan-form";
import { SAMPLE_MACHINE } from "./sample-machine";

export const CALIPERS: Gauge = gaugeAsUsual("calipers");

export function machineWith(held: Partial<HeldSetting>, machine = SAMPLE_MACHINE): MachineSpec {
  const hold: HeldSetting = { unit: "um", step: 1e-6, range: null, tableKind: "not known", sense: -1, ...held };
  return { ...machine, held: { ...machine.held, [AXIS_SCALE.x]: hold, [AXIS_SCALE.y]: hold } };
}

export const contextOn = (machine: MachineSpec): PlanContext => ({
  machine,
  couponCode: "T-1",
  inForce: {},
  gauges: [CALIPERS],
});

type Wanted = {
  plan?: Partial<AxisScalePlan>;
  machine?: MachineSpec;
  /** What is read at a place, mm; `null` = not read. */
  read: (place: MeasuredPlace) => readonly number[] | null;
  /** What was in force, internal unit; `null` = not read back. */
  held?: number | null;
  purpose?: Purpose;
  n?: number;
};

export function roundWith({
  plan: changes,
  machine = machineWith({}),
  read,
  held = 0.00625,
  purpose = "measure",
  n = 1,
}: Wanted) {
  const context = contextOn(machine);
  const plan = { ...axisScalePlan(context).defaults, knownMm: 0, ...changes };
  const answers = placesOf(plan).flatMap((place) =>
    (read(place) ?? []).map(
      (value): Answer => ({
        site: place.site,
        u: null,
        gauge: "calipers",
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed",
        content: { status: "read", value: { kind: "quantity", value } },
      }),
    ),
  );
  const value = held === null ? null : { shape: "scalar" as const, value: held };
  const inForce = { [AXIS_SCALE.x]: value, [AXIS_SCALE.y]: value };
  const spec = axisScale.round(plan, context, purpose);
  return { n, purpose, plan, spec, inForce, answers } as RoundRecord<AxisScalePlan>;
}

export function historyWith(
  rounds: RoundRecord<AxisScalePlan>[],
  { machine = machineWith({}), decisions = {} }: { machine?: MachineSpec; decisions?: Record<string, string> } = {},
): History<AxisScalePlan> {
  return {
    rounds,
    gauges: [CALIPERS],
    available: [CALIPERS],
    machine,
    decisions,
    tolerance: axisScale.tolerance.default,
  };
}

export function solvedWith(...args: Parameters<typeof historyWith>) {
  const outcome = axisScale.solve(historyWith(...args));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return outcome;
}
