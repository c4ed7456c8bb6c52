/**
 * Trials on practice machines in which slips are made on purpose.
 *
 * Simulated beside the slip: all that `axis-scale-accuracy`, `scan-offset-accuracy` and `origin-accuracy` draw, with a common error of the
 * gauge in axes and scan offset; `focus-ladder` for the focus.
 */
import { axisScale } from "../../core/procedures/axis-scale/procedure";
import type { AnyProcedure } from "../../core/procedures/contract";
import { focus } from "../../core/procedures/focus/procedure";
import { origin } from "../../core/procedures/origin/procedure";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import type { History } from "../../core/trial/history";
import { seeded, seedOf } from "../../practice/random";
import { historyOf, LENGTH_GAUGES, rehearsedScale, soundGantry } from "./axis-scale-accuracy";
import { ladderHead, widthLadder } from "./focus-ladder";
import { AS_FOUND, originGantry, originHistory, rehearsedOrigin } from "./origin-accuracy";
import { scanOffsetHistory } from "./scan-offset-accuracy";
import { type SlipCase, type SlipMaker, signSlips, slipMakers } from "./slip-rehearsal";

const scale = (gauge: keyof typeof LENGTH_GAUGES, plan: object) => (seed: number) => {
  const random = seeded(seedOf(seed, "reading"));
  const known = LENGTH_GAUGES[gauge];
  const round = rehearsedScale(soundGantry(seed), known, plan, random, random.between(-1, 1) * known.limitMm);
  return historyOf([round], known);
};

const corner = (repeats: number) => (seed: number) =>
  originHistory(
    rehearsedOrigin(originGantry(seed), seed, 1, AS_FOUND, {
      sideX: "left",
      sideY: "front",
      senseX: "away",
      senseY: "away",
      repeats,
    }),
  );

export type SlipSet = {
  name: string;
  procedure: AnyProcedure;
  historyOf: (seed: number) => History;
  /** Size of an error of unknown size, mm. */
  sizeMm: number;
  makers: readonly SlipMaker[];
  /** Kinds that this layout cannot show, which the page says before. */
  unseen: readonly string[];
  /** Share of slips that are named, at least: some change hardly anything. */
  named: number;
  /** Share of slips whose point is named first, at least, over all kinds; left out: 90 %. */
  namedFirst?: number;
  /** Share of slips that may move a result without a word; left out: 3 %. */
  silent?: number;
};

const of = (set: Omit<SlipSet, "makers"> & { more?: readonly SlipMaker[] }): SlipSet => ({
  ...set,
  makers: [...slipMakers(set.sizeMm), ...(set.more ?? [])],
});

export const SLIP_SETS: readonly SlipSet[] = [
  of({
    name: "axis scale by a ladder, calipers",
    procedure: axisScale,
    historyOf: scale("calipers", {}),
    sizeMm: 0.3,
    unseen: [],
    named: 0.9,
  }),
  of({
    name: "axis scale by part and hole, calipers",
    procedure: axisScale,
    historyOf: scale("calipers", { way: "part and hole" }),
    sizeMm: 0.3,
    unseen: [],
    named: 0.9,
  }),
  of({
    name: "axis scale by a ladder, rule",
    procedure: axisScale,
    historyOf: scale("rule", {}),
    sizeMm: 2,
    unseen: [],
    named: 0.9,
  }),
  of({
    name: "scan offset, calipers, three readings",
    procedure: scanOffset,
    historyOf: (seed) => scanOffsetHistory(seed, 3),
    sizeMm: 0.2,
    more: signSlips,
    unseen: [],
    // Inches for mm hardly change the small staggers of slow rows.
    named: 0.8,
  }),
  of({
    name: "origin, three readings a place",
    procedure: origin,
    historyOf: corner(3),
    sizeMm: 0.3,
    unseen: ["two points swapped"],
    named: 0.9,
  }),
  of({
    name: "focus by the widths of a ladder",
    procedure: focus,
    historyOf: (seed) => widthLadder(ladderHead(seed)),
    sizeMm: 0.1,
    // Widths at heights as far above focus as below are alike.
    unseen: ["two points swapped"],
    // Near the ends of what marks, a slip hardly differs from the scatter there, and moves no focus.
    named: 0.6,
    // Of eight cells the last to mark is checked by nothing, and the page says so.
    silent: 0.05,
    namedFirst: 0.75,
  }),
];

export function slipCases({ procedure, historyOf: history }: SlipSet, first: number, count: number): SlipCase[] {
  return Array.from({ length: count }, (_, i) => ({ procedure, history: history(first + i) }));
}
