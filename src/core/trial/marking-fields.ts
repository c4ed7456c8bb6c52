/** Fields of plans that look for the marking settings of a stock. */
import type { MachineSpec } from "../machine/machine-spec";
import { field } from "./plan-field";
import { powerField, topSpeed } from "./shared-fields";

/** What a stock is marked for. */
export const PURPOSES = {
  "engrave dark": "Engrave dark",
  "engrave deep": "Engrave deep",
  mark: "Mark",
  "cut through": "Cut through",
} as const;

export const NO_CARD = "Make a card of the stock first. The marking settings are stored on that card.";

/** (common practice, no source) */
const USUAL = {
  "CO2 gantry": { watts: 40, lineMm: 0.15, rowPitchMm: 0.1 },
  "diode gantry": { watts: 10, lineMm: 0.15, rowPitchMm: 0.1 },
  galvo: { watts: 20, lineMm: 0.05, rowPitchMm: 0.04 },
} as const;

export function usualRowPitchMm({ kind }: Pick<MachineSpec, "kind">): number {
  return USUAL[kind].rowPitchMm;
}

/** Settings of labels and scale. */
export function labelFields(machine: MachineSpec) {
  const group = "Labels";
  return {
    labelSpeedMmPerS: field.speed({
      label: "Speed of labels",
      group,
      usual: Math.min(100, machine.topSpeedMmPerS / 4),
      max: topSpeed(machine),
    }),
    labelPowerPct: powerField({
      label: "Power of labels, %",
      group,
      why: "Safe settings that mark this stock without fail.",
      usual: 20,
    }),
    labelKHz: field.number({
      label: "Pulse frequency of labels, kHz",
      group,
      usual: 30,
      when: machine.kind === "galvo" ? undefined : false,
    }),
  };
}

/** What energy per area is worked out from. */
export function energyFields(machine: MachineSpec) {
  const group = "Energy";
  const { kind } = machine;
  return {
    wattsAtFull: field.number({
      label: "Power at 100 %, W",
      group,
      why: "Energy per area is worked out from it.",
      usual: USUAL[kind].watts,
      max: [10_000, "Enter watts, not milliwatts."],
    }),
    lineMm: field.length({
      label: "Width of one line",
      group,
      why: "From the focus height, or measured.",
      usual: USUAL[kind].lineMm,
      max: 5,
    }),
  };
}
