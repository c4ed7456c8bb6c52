/**
 * Height ladders on practice gantries whose line widths are read, of lines along X or both ways.
 *
 * Simulated: strength of marking, focal depth and spot of the head, height set by hand with its scatter and the play of the screw, texture of
 * the stock, line widths read with scatter, step and a common error of the gauge.
 */
import { type Gauge, gaugeAsUsual } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import { GO_BY } from "../../core/procedures/focus/found";
import { FOCUS_HEIGHT, type LadderPlan } from "../../core/procedures/focus/plan";
import { focus } from "../../core/procedures/focus/procedure";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { focusOf, type GantryTruth, gantryFromSeed } from "../../practice/gantry-truth";
import { seeded, seedOf } from "../../practice/random";
import { SAMPLE_MACHINE } from "../sample-machine";
import { usualLadder } from "../usual-ladder";
import { rehearseRound } from "./rehearse-round";

const MICROSCOPE: Gauge = gaugeAsUsual("microscope");
const PLACING_MM = 0.004;

/** @param apartMm focus of lines along X above that of lines along Y; left out: as the head has it */
export function ladderHead(seed: number, apartMm?: number): GantryTruth {
  const truth = gantryFromSeed(seed);
  const head = focusOf(truth);
  if (apartMm === undefined) return truth;
  return { ...truth, focus: { ...head, beam: { ...head.beam, astigmatismMm: apartMm } } };
}

export function widthLadder(truth: GantryTruth, plan: Partial<LadderPlan> = {}): History<LadderPlan> {
  const context: PlanContext = {
    machine: SAMPLE_MACHINE,
    couponCode: "F-1",
    inForce: { [FOCUS_HEIGHT]: { shape: "scalar", value: 12 } },
  };
  const random = seeded(seedOf(truth.seed, "widths"));
  const { round } = rehearseRound({
    procedure: focus,
    context,
    purpose: "measure",
    n: 1,
    gauge: MICROSCOPE,
    truth,
    plan: {
      ...usualLadder({ ...context, inForce: {} }),
      moves: "by hand",
      judged: "by widths",
      stepMm: 0.5,
      count: 29,
      stockHeightMm: 120,
      marks: "lines",
      settableMm: 0.1,
      ...plan,
    },
    controller: { table: [], switchedOn: true },
    hand: {
      placingMm: PLACING_MM,
      resolutionMm: MICROSCOPE.resolutionMm,
      commonMm: random.between(-1, 1) * MICROSCOPE.limitMm,
    },
    random,
  });
  return {
    rounds: [round as RoundRecord<LadderPlan>],
    gauges: [MICROSCOPE],
    available: [MICROSCOPE],
    machine: SAMPLE_MACHINE,
    tolerance: focus.tolerance.default,
    decisions: {},
  };
}

/** Of practice gantries whose widths tell a focus: how many, and how many of their intervals hold the true height. */
export function ladderCoverage(first: number, count: number): { told: number; held: number } {
  let [told, held] = [0, 0];
  for (let seed = first; seed < first + count; seed++) {
    const truth = ladderHead(seed);
    const outcome = focus.solve({ ...widthLadder(truth), decisions: { [GO_BY.key]: "widths" } });
    const found = outcome.status === "solved" ? outcome.estimates.find((e) => e.id === "focus") : undefined;
    if (!found) continue;
    const { beam, gapByShown, gapAtZeroMm } = focusOf(truth);
    told++;
    const error = found.quantity.value - (beam.focusMm - gapAtZeroMm) / gapByShown;
    if (Math.abs(error) <= expandedUncertainty(found.quantity)) held++;
  }
  return { told, held };
}
