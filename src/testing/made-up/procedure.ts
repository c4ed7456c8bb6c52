/**
 * A procedure that measures nothing real: it uses every ask once, so that screens, files and tests can be shown to work
 * for procedures that nobody has written yet. It is never listed.
 */

import type { RoundSpec } from "../../core/coupon/round-spec";
import type { Ask, Measurand, Site } from "../../core/coupon/site";
import { corners } from "../../core/geometry/rect";
import { measured } from "../../core/metrology/measured";
import { signed } from "../../core/metrology/quantity-text";
import { ruling } from "../../core/metrology/tolerance";
import { defineProcedure } from "../../core/procedures/contract";
import { scalarSetting } from "../../core/settings/declared";
import { quantitiesAt } from "../../core/trial/answer";
import type { GivenOutcome } from "../../core/trial/given-outcome";
import type { History } from "../../core/trial/history";
import { field } from "../../core/trial/plan-field";
import type { PlanContext } from "../../core/trial/plan-form";
import { type PlanOf, planForm } from "../../core/trial/plan-table";
import type { Verdict } from "../../core/trial/verdict";
import { wholeProof } from "../../core/trial/whole-proof";

const FIELDS = {
  sizeMm: field.length({
    label: "Size",
    group: "Square",
    why: "Side of the square.",
    usual: 20,
    max: [40, "40 mm is the largest square."],
  }),
};

export type MadeUpPlan = PlanOf<typeof FIELDS>;

const SETTING = "made-up length";
const PIECE = "square";

const ASKS: Record<Ask["kind"], { ask: Ask; measurand: Measurand; question: string }> = {
  quantity: {
    question: "How wide is the square?",
    ask: { kind: "quantity", dimension: "length", signedBy: null, jaws: "outside", plausibleUpTo: 500 },
    measurand: {
      kind: "distance",
      from: { kind: "spot", near: { x: 10, y: 10 } },
      to: { kind: "spot", near: { x: 30, y: 10 } },
      along: "x",
    },
  },
  count: {
    question: "How many sides can be seen?",
    ask: { kind: "count", most: 4 },
    measurand: { kind: "ticks visible", within: { x0: 0, y0: 0, x1: 60, y1: 60 } },
  },
  ordinal: {
    question: "How dark is the outline?",
    ask: { kind: "ordinal", categories: ["faint", "clear", "burnt"] },
    measurand: { kind: "darkness", within: { x0: 0, y0: 0, x1: 60, y1: 60 } },
  },
  choice: {
    question: "Which corner is sharpest?",
    ask: {
      kind: "choice",
      options: [
        { id: "lower left", label: "lower left" },
        { id: "upper right", label: "upper right" },
      ],
    },
    measurand: { kind: "depth", within: { x0: 0, y0: 0, x1: 60, y1: 60 } },
  },
  cells: {
    question: "Which cells are marked?",
    ask: {
      kind: "cells",
      mode: "range",
      cells: ["A", "B", "C", "D"].map((id) => ({ id, label: id })),
    },
    measurand: { kind: "marked", cells: [{ x0: 0, y0: 0, x1: 60, y1: 60 }] },
  },
  pair: {
    question: "Measure the tongue and the slot.",
    ask: {
      kind: "pair",
      first: "tongue",
      second: "slot",
      dimension: "length",
      firstJaws: "outside",
      secondJaws: "inside",
    },
    measurand: { kind: "clearance", mate: "tongue" },
  },
  points: {
    question: "Where do the two corners lie?",
    ask: {
      kind: "points",
      nominal: [
        { x: 10, y: 10 },
        { x: 30, y: 30 },
      ],
    },
    measurand: { kind: "spot centre", near: { x: 10, y: 10 } },
  },
  comparison: {
    question: "Which cell is darker?",
    ask: {
      kind: "comparison",
      cells: ["A", "B", "C"].map((id, i) => ({ id, label: id, u: i - 1, v: 0 })),
    },
    measurand: { kind: "darkness", within: { x0: 0, y0: 0, x1: 60, y1: 60 } },
  },
  scores: {
    question: "How dark is each cell?",
    ask: { kind: "scores", cells: ["A", "B"].map((id) => ({ id, label: id })) },
    measurand: { kind: "darkness", within: { x0: 0, y0: 0, x1: 60, y1: 60 } },
  },
  vector: {
    question: "How far is the mark from the centre?",
    ask: { kind: "vector", dimension: "length" },
    measurand: { kind: "height of peak", going: "up" },
  },
};

export const madeUp = defineProcedure<MadeUpPlan>({
  id: "made-up",
  title: "Made-up square",
  summary: "Uses every kind of question once",
  machineKinds: ["CO2 gantry"],
  settings: [scalarSetting({ key: SETTING, label: "Made-up length", acts: { on: "next burn" }, copied: true })],
  needs: [],
  tolerance: { default: 0.1, unit: "mm", label: "Largest error left" },
  recheck: { defaultDays: 30, why: "Made-up things do not last." },
  plan: () => planForm(FIELDS),
  round: roundOf,
  solve,
  next: (history, outcome) => {
    const last = history.rounds.at(-1);
    if (!last || outcome.status !== "solved") return { do: "read", sites: [], why: "Read every site." };
    if (last.purpose !== "measure") return { do: "stop", why: "The proof is read." };
    return { do: "round", purpose: "proof", plan: last.plan, set: [SETTING], why: "Burn the square again." };
  },
  judge,
  overlay: () => [],
  detail: (history, focus) => ({
    title: `Detail, ${focus.site}`,
    note: "not to scale",
    radius: 2,
    primitives: [
      {
        kind: "stroke",
        points: corners({ x0: -1, y0: -1, x1: 1, y1: 1 }),
        closed: true,
        weight: "heavy",
        widthMm: 0,
        dashed: false,
        tone: history.rounds.length > 1 ? "proved" : "ink",
      },
    ],
  }),
});

function roundOf(plan: MadeUpPlan, { machine }: PlanContext): RoundSpec {
  const square = { x0: 10, y0: 10, x1: 10 + plan.sizeMm, y1: 10 + plan.sizeMm };
  return {
    pieces: [
      {
        id: PIECE,
        label: "Made-up square",
        stock: "card 60 × 60",
        widthMm: 60,
        heightMm: 60,
        settings: [
          {
            id: "outline",
            label: "Outline",
            use: "line",
            speedMmPerS: machine.topSpeedMmPerS / 10,
            powerPct: 10,
            runUpMm: 0,
            scan: null,
          },
        ],
        paths: [{ points: corners(square), closed: true, settings: "outline" }],
      },
    ],
    placement: { xMm: 20, yMm: 20 },
    program: [{ kind: "mark", piece: PIECE, settings: "outline" }],
    sites: (Object.keys(ASKS) as Ask["kind"][]).map(
      (kind): Site => ({
        id: kind,
        label: `Site for a ${kind}`,
        question: ASKS[kind].question,
        ask: ASKS[kind].ask,
        measurand: ASKS[kind].measurand,
        place: { piece: PIECE, at: { x: square.x1, y: square.y0 }, radiusMm: 4 },
        repeats: 1,
        openEnded: false,
      }),
    ),
    delivery: "One outline",
    checklist: ["Nothing is burned for real."],
  };
}

function solve(history: History<MadeUpPlan>): GivenOutcome {
  const round = history.rounds.at(-1);
  const widths = round ? quantitiesAt(round.answers, "quantity") : [];
  const width = widths.at(-1);
  if (!round || width === undefined) return { status: "open", missing: "Measure the width of the square." };
  const held = round.inForce[SETTING];
  const old = held?.shape === "scalar" ? held.value : 0;
  const change = measured(round.plan.sizeMm - width, 0.01, Infinity);
  const enter = Math.round((old + change.value) * 100) / 100;
  return {
    status: "solved",
    estimates: [
      {
        id: "width",
        label: "Width",
        quantity: measured(width, 0.01, Infinity),
        unit: "mm",
        headline: true,
        budget: [
          { id: "stated", label: "As stated", kind: "B", standardUncertainty: 0.01, degreesOfFreedom: "infinite" },
        ],
        helps: null,
      },
    ],
    corrections: [
      {
        setting: SETTING,
        label: "Made-up length",
        unit: "mm",
        decimals: 2,
        rows: [
          {
            key: "value",
            label: "Made-up length",
            estimate: "width",
            at: null,
            old,
            change,
            changeText: signed(change.value, 2),
            enter,
            rounding: enter - old - change.value,
            arithmetic: [`${old} + ${round.plan.sizeMm} − ${width} = ${enter}`],
            worth: Math.abs(change.value) > 0.02 ? "yes" : "no",
            heldBack: null,
          },
        ],
        newValue: { shape: "scalar", value: enter },
        choice: null,
      },
    ],
    findings: [],
    table: null,
    predicted: "The square should come out at its drawn size.",
  };
}

function judge(history: History<MadeUpPlan>): Verdict | null {
  const proof = history.rounds.findLast((r) => r.purpose === "proof" || r.purpose === "check");
  const width = proof ? quantitiesAt(proof.answers, "quantity").at(-1) : undefined;
  if (!proof || width === undefined) return null;
  const after = measured(width - proof.plan.sizeMm, 0.01, Infinity);
  const result = ruling(after, history.tolerance);
  return wholeProof(
    history,
    {
      result,
      headline: result,
      advice: "Nothing follows from a made-up square.",
      lines: [{ label: "Width", before: null, after, result }],
      tolerance: history.tolerance,
      unit: "mm",
      ways:
        result === "cannot tell" ? [{ text: "Measure it once more.", sites: ["quantity"], more: 1, gauge: null }] : [],
      asFound: { label: "width", quantity: after },
      findings: [],
    },
    [],
  );
}
