/** A machine on which every procedure can be tried: for tests, rehearsals and benches. */
import { USUAL_DIALECT } from "./gcode-dialect";
import type { MachineSpec } from "./machine-spec";

export const SAMPLE_MACHINE: MachineSpec = {
  name: "Testbed",
  kind: "CO2 gantry",
  widthMm: 900,
  depthMm: 600,
  topSpeedMmPerS: 600,
  accelerationMmPerS2: 5000,
  wavelengthNm: 10600,
  axes: { home: "front left", x: "to the right", y: "away" },
  workingSpeedsMmPerS: [150, 300],
  gcode: USUAL_DIALECT,
  scansBlocks: true,
  held: { "scan offset": { unit: "mm", step: 0.001, range: null, tableKind: "interpolated", sense: 1 } },
  tolerances: {},
  recheckDays: {},
};
