/**
 * Slips made on purpose on practice machines. Seeds 20000 to 20079, fixed before the weights of slips were tuned.
 *
 * Simulated beside the slip: all that `axis-scale-accuracy` and `origin-accuracy` draw, with a common error of the gauge in the axes.
 */
import { describe, expect, it } from "vitest";
import { axisScale } from "../core/procedures/axis-scale/procedure";
import type { AnyProcedure, History } from "../core/procedures/contract";
import { origin } from "../core/procedures/origin/procedure";
import { scanOffset } from "../core/procedures/scan-offset/procedure";
import { seeded, seedOf } from "../practice/random";
import { historyOf, LENGTH_GAUGES, rehearsedScale, soundGantry } from "./axis-scale-accuracy";
import { AS_FOUND, originGantry, originHistory, rehearsedOrigin } from "./origin-accuracy";
import { scanOffsetHistory } from "./scan-offset-accuracy";
import { type SlipCase, signSlips, slipMakers, slipSummaries, suspectsOf } from "./slip-rehearsal";

const FIRST = 20_000;
const SEEDS = 80;

function cases(procedure: AnyProcedure, historyOfSeed: (seed: number) => History): SlipCase[] {
  return Array.from({ length: SEEDS }, (_, i) => ({ procedure, history: historyOfSeed(FIRST + i) }));
}

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

/** A gantry with three readings of each row end and the reference step. */
const staggers = (seed: number) => scanOffsetHistory(seed, 3);

/** `unseen`: slips that this layout cannot show, which the page says before. */
const SETS = [
  {
    name: "axis scale by a ladder, calipers",
    of: () => cases(axisScale, scale("calipers", {})),
    sizeMm: 0.3,
    unseen: [],
  },
  {
    name: "axis scale by part and hole, calipers",
    of: () => cases(axisScale, scale("calipers", { way: "part and hole" })),
    sizeMm: 0.3,
    unseen: [],
  },
  { name: "axis scale by a ladder, rule", of: () => cases(axisScale, scale("rule", {})), sizeMm: 2, unseen: [] },
  { name: "scan offset, calipers", of: () => cases(scanOffset, staggers), sizeMm: 0.2, unseen: [] },
  {
    name: "origin, three readings a place",
    of: () => cases(origin, corner(3)),
    sizeMm: 0.3,
    unseen: ["two points swapped"],
  },
];

describe.each(SETS)("$name", ({ name, of, sizeMm, unseen }) => {
  const all = of();
  const isSigned = name.startsWith("scan offset");

  it("accuses no reading of clean trials, but for one in fifty", () => {
    const accused = all.filter(({ procedure, history }) =>
      suspectsOf(procedure.solve(history)).some((finding) => finding.suspect),
    );
    // Three standard deviations above 2 %.
    expect(accused.length / SEEDS).toBeLessThanOrEqual(0.02 + 3 * Math.sqrt((0.02 * 0.98) / SEEDS));
  });

  it("is never wrong without a word, and names the point that was misread", () => {
    const makers = [...slipMakers(sizeMm), ...(isSigned ? signSlips : [])];
    const summaries = slipSummaries(all, makers, (i) => seeded(seedOf(i, "slip"))).filter(
      (s) => !unseen.includes(s.kind),
    );
    expect(summaries.length).toBeGreaterThan(4);
    for (const { kind, made, silent, named } of summaries) {
      expect(silent / made, `${kind}: silent`).toBeLessThanOrEqual(0.03);
      // Inches for mm hardly change the small staggers of slow rows.
      expect(named / made, `${kind}: named`).toBeGreaterThanOrEqual(isSigned ? 0.8 : 0.9);
    }
  });
});
