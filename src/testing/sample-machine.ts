/** A machine on which every procedure can be tried: for tests, rehearsals and benches. */
import { USUAL_DIALECT } from "../core/machine/gcode-dialect";
import { type MachineSpec, UNKNOWN_AXES } from "../core/machine/machine-spec";
import type { StockAtHand } from "../core/stock/stock-at-hand";

/** Its counterpart with mirrors that turn, on metal. */
export const SAMPLE_GALVO: MachineSpec = {
  name: "Testfield",
  kind: "galvo",
  widthMm: 110,
  depthMm: 110,
  topSpeedMmPerS: 4000,
  accelerationMmPerS2: null,
  wavelengthNm: 1064,
  axes: UNKNOWN_AXES,
  workingSpeedsMmPerS: [800],
  gcode: USUAL_DIALECT,
  scansBlocks: false,
  held: {},
  tolerances: {},
  recheckDays: {},
};

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

/** A stock that every procedure can be tried on. */
export const SAMPLE_STOCK: StockAtHand = {
  key: "test-sheet/1",
  name: "Test sheet",
  batch: "1",
  nominalMm: 3,
  thickness: { meanMm: 3, leastMm: 2.97, mostMm: 3.03, sdMm: 0.02, count: 5, uMm: 0.012 },
};
