/** Plan fields of the procedures that find marking settings. */
import type { MachineSpec } from "../machine/machine-spec";
import { field } from "./plan-field";
import { powerField, topSpeed } from "./shared-fields";

/** Purposes of a mark. */
export const PURPOSES = {
  "engrave dark": "Engrave dark",
  "engrave deep": "Engrave deep",
  mark: "Mark",
  "cut through": "Cut through",
} as const;

export const NO_CARD = "Make a stock card first. The marking settings are stored on this card.";

/** (common practice, no source) */
const USUAL = {
  "CO2 gantry": { watts: 40, lineMm: 0.15, rowPitchMm: 0.1 },
  "diode gantry": { watts: 10, lineMm: 0.15, rowPitchMm: 0.1 },
  galvo: { watts: 20, lineMm: 0.05, rowPitchMm: 0.04 },
} as const;

export function usualRowPitchMm({ kind }: Pick<MachineSpec, "kind">): number {
  return USUAL[kind].rowPitchMm;
}

/** Settings for labels and scale. */
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
      why: "Use settings that always mark this stock.",
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

/** Fields for the energy per area. */
export function energyFields(machine: MachineSpec) {
  const group = "Energy";
  const { kind } = machine;
  return {
    wattsAtFull: field.number({
      label: "Power at 100 %, W",
      group,
      why: "Used to calculate the energy per area.",
      usual: USUAL[kind].watts,
      max: [10_000, "Enter watts, not milliwatts."],
    }),
    lineMm: field.length({
      label: "Width of one line",
      group,
      why: "Use the width from the focus trial, or measure a line.",
      usual: USUAL[kind].lineMm,
      max: 5,
    }),
  };
}
