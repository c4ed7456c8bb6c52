/** Trials that are kept as text, by the folder of their procedure: each way of measuring once. */

import { axisScale } from "../../core/procedures/axis-scale/procedure";
import { bedTilt } from "../../core/procedures/bed-tilt/procedure";
import type { AnyProcedure } from "../../core/procedures/contract";
import { galvoField } from "../../core/procedures/field/procedure";
import { fixtureStops } from "../../core/procedures/fixture-stops/procedure";
import { focus } from "../../core/procedures/focus/procedure";
import { headTurn } from "../../core/procedures/head-turn/procedure";
import { kerf } from "../../core/procedures/kerf/procedure";
import { orientation } from "../../core/procedures/orientation/procedure";
import { origin } from "../../core/procedures/origin/procedure";
import { ramp } from "../../core/procedures/ramp/procedure";
import { rotary } from "../../core/procedures/rotary/procedure";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import { squareness } from "../../core/procedures/squareness/procedure";
import { testArray } from "../../core/procedures/test-array/procedure";
import { SAMPLE_GALVO } from "../sample-machine";
import type { WholeTrial } from "./whole-trial";

const WIDTHS = { judged: "by widths", stepMm: 0.5, count: 29, stockHeightMm: 120, marks: "lines", settableMm: 0.1 };
const AXIS_UM = { "axis scale x": 0.00625, "axis scale y": 0.00625 };
const STOCK = { stock: "test-sheet/1" };
const ROTARY = { "rotary steps": 10_000, "roller diameter": 63 };
const STOPS = { "fixture stop x": 30, "fixture stop y": 30 };

type Kept = { procedure: AnyProcedure; trials: Readonly<Record<string, Omit<WholeTrial, "procedure">>> };

export const TRIALS = {
  orientation: {
    procedure: orientation,
    trials: {
      "order not known": { seed: 1, machine: SAMPLE_GALVO, burns: 3 },
      "other head": { seed: 5, machine: SAMPLE_GALVO, burns: 3 },
    },
  },
  focus: {
    procedure: focus,
    trials: {
      "by eye": { seed: 1 },
      "by widths": { seed: 2, gauge: "microscope", plan: WIDTHS },
      "widths both ways": { seed: 3, gauge: "microscope", plan: { ...WIDTHS, marks: "lines both ways" } },
      ramp: { seed: 4, gauge: "microscope", plan: { way: "ramp" } },
      "ramp by widths": { seed: 5, gauge: "microscope", plan: { way: "ramp", judged: "by widths" } },
      sweep: { seed: 6, plan: { way: "sweep" } },
      "a galvo": { seed: 7, machine: SAMPLE_GALVO, stored: { "focus height": 181 } },
    },
  },
  field: {
    procedure: galvoField,
    trials: {
      scale: { seed: 1, machine: SAMPLE_GALVO, plan: { way: "scale" } },
      seven: { seed: 2, machine: SAMPLE_GALVO, plan: { way: "seven" } },
      "nine by rule": { seed: 3, machine: SAMPLE_GALVO, gauge: "rule", plan: { way: "nine", knownMm: 0 } },
      "grid, table": { seed: 4, machine: SAMPLE_GALVO, plan: { how: "grid", takes: "table" } },
      "grid, four overlapping scans": {
        seed: 7,
        machine: SAMPLE_GALVO,
        plan: { how: "grid", takes: "table", pictures: "parts", parts: "4", across: 21 },
      },
      "grid, table for coefficients": {
        seed: 9,
        machine: SAMPLE_GALVO,
        stored: { "field bow x": 20, "field bow y": -30, "field shear": 5 },
        plan: { how: "grid", takes: "table", coefficients: "replaced", across: 15 },
      },
      "grid, photo": {
        seed: 8,
        machine: SAMPLE_GALVO,
        plan: { how: "grid", takes: "table", pictures: "photo", across: 15 },
      },
      "grid, one scan, coefficients": {
        seed: 5,
        machine: SAMPLE_GALVO,
        plan: { how: "grid", pictures: "one", across: 15, way: "seven" },
      },
      "grid, bent artwork, proved by a square": {
        seed: 6,
        machine: SAMPLE_GALVO,
        plan: { how: "grid", takes: "artwork", proved: "square", across: 11 },
      },
    },
  },
  "head-turn": {
    procedure: headTurn,
    trials: {
      "in front": { seed: 1, machine: SAMPLE_GALVO },
      "other edge": { seed: 2, machine: SAMPLE_GALVO, plan: { edge: "left" } },
    },
  },
  "axis-scale": {
    procedure: axisScale,
    trials: {
      ladder: { seed: 1, stored: AXIS_UM },
      "ladder from both sides": { seed: 2, stored: AXIS_UM, plan: { approach: "both sides", rowsEach: 2 } },
      "pair by rule": { seed: 3, stored: AXIS_UM, gauge: "rule", plan: { way: "pair", knownMm: 0 } },
      "by hand": { seed: 4, stored: AXIS_UM, plan: { way: "by hand" } },
      part: { seed: 5, stored: AXIS_UM, plan: { way: "part" } },
      "part and hole": { seed: 6, stored: AXIS_UM, plan: { way: "part and hole" } },
    },
  },
  "scan-offset": {
    procedure: scanOffset,
    trials: {
      blocks: { seed: 1 },
      outlines: { seed: 2, plan: { outline: "each block" } },
      "open rows": { seed: 3, plan: { delivery: "rows" } },
    },
  },
  kerf: {
    procedure: kerf,
    trials: {
      "part and hole": { seed: 1, plan: STOCK },
      "part alone, both faces": { seed: 2, plan: { ...STOCK, way: "part", faces: "both" } },
      "hole alone": { seed: 3, plan: { ...STOCK, way: "hole" } },
      comb: { seed: 4, plan: { ...STOCK, way: "comb" } },
      "tongue and slot": { seed: 5, plan: { ...STOCK, way: "tongue and slot" } },
      "slots for the sheet": { seed: 6, plan: { ...STOCK, way: "sheet slot" } },
    },
  },
  "test-array": {
    procedure: testArray,
    trials: {
      "darkness from a scan": { seed: 1, plan: STOCK },
      "by eye": { seed: 2, plan: { ...STOCK, score: "eye" } },
      "two at a time, a galvo": {
        seed: 3,
        machine: SAMPLE_GALVO,
        plan: { ...STOCK, score: "comparisons", comparisons: 8 },
      },
      "cut through": { seed: 4, plan: { ...STOCK, fill: "cut", score: "yes or no" } },
      "colour, a galvo": { seed: 5, machine: SAMPLE_GALVO, plan: { ...STOCK, score: "colour" } },
    },
  },
  ramp: {
    procedure: ramp,
    trials: {
      power: { seed: 1, plan: STOCK },
      speed: { seed: 2, plan: { ...STOCK, varied: "speedMmPerS" } },
      height: { seed: 3, plan: { ...STOCK, varied: "aboveFocusMm" } },
    },
  },
  rotary: {
    procedure: rotary,
    trials: {
      "line around, rollers": { seed: 1, stored: ROTARY },
      "line around, chuck": { seed: 2, stored: ROTARY, plan: { drive: "chuck" } },
      "span by rule": { seed: 3, stored: ROTARY, gauge: "rule", plan: { way: "span", spanMm: 100 } },
      traced: { seed: 4, stored: ROTARY, gauge: "rule", plan: { way: "traced", spanMm: 90 } },
      "neck, around": { seed: 5, stored: ROTARY, plan: { rests: "other", restsOnMm: 72, sizedBy: "around" } },
    },
  },
  "bed-tilt": {
    procedure: bedTilt,
    trials: {
      "five points": { seed: 1 },
      "nine points, closer, three supports": {
        seed: 2,
        plan: { places: "9", readAt: "scale, closer", supports: "three", pitchMm: 0 },
      },
      "a galvo": { seed: 3, machine: SAMPLE_GALVO },
    },
  },
  squareness: {
    procedure: squareness,
    trials: {
      diagonals: { seed: 1, plan: { repeats: 3 } },
      triangle: { seed: 2, gauge: "rule", plan: { way: "triangle" } },
    },
  },
  origin: {
    procedure: origin,
    trials: {
      "left front": { seed: 1, plan: { senseX: "away", senseY: "away" } },
      "right back, near edge": {
        seed: 2,
        plan: { senseX: "away", senseY: "toward", sideX: "right", sideY: "back", measuredTo: "near", lineWidthMm: 0.3 },
      },
      "sense not known": { seed: 3, burns: 3, plan: { senseX: "not known", senseY: "not known" } },
    },
  },
  "fixture-stops": {
    procedure: fixtureStops,
    trials: {
      burned: { seed: 1, stored: STOPS },
      "traced, right back": { seed: 2, stored: STOPS, plan: { way: "traced", sideX: "right", sideY: "back" } },
    },
  },
} as const satisfies Record<string, Kept>;
