/** What a practice beam cuts away: by the stock, its thickness, and how strongly it is cut. */
import { doseOfMiddle, type LineBurn, lineWidth } from "./beam";
import type { FocusTruth } from "./head-height";
import { type Random, seeded, seedOf } from "./random";

/** In one pass through 3 mm a cut at 60 % and 10 mm/s has so many times what it needs, by the stock. (invented) */
const STRENGTH = { low: 5, high: 14 } as const;
const USUAL = { thicknessMm: 3, powerShare: 0.6, speedMmPerS: 10 };
/** How the width differs from cut to cut, sd, mm. (invented) */
const WANDER_MM = 0.003;
/** Narrower at the bottom, a mm of thickness, by the stock. (invented) */
const TAPER = { low: 0.002, high: 0.02 } as const;

export type CutStock = {
  /** Key of the stock: each has its own nature. */
  stock: string;
  thicknessMm: number;
  passes: number;
  /** Focus below the top face, mm. */
  focusBelowMm: number;
};

/** A beam that cuts a stock. */
export class Cutter {
  private readonly thresholdJPerMm2: number;
  private readonly widths = new Map<string, number>();
  private readonly random: Random;

  /** @param exact leaves out what differs from cut to cut */
  constructor(
    private readonly head: FocusTruth,
    private readonly cut: CutStock,
    seed: number,
    private readonly exact: boolean,
  ) {
    const strength = seeded(seedOf(cut.stock.split("/")[0] ?? "", "cut")).between(STRENGTH.low, STRENGTH.high);
    const usual = this.burn(USUAL.powerShare, USUAL.speedMmPerS, "x", 0);
    const needs = (doseOfMiddle(head.beam, true, usual) * cut.thicknessMm) / (USUAL.thicknessMm * strength);
    this.thresholdJPerMm2 = needs / cut.passes;
    this.random = seeded(seedOf(seed, "cuts", cut.stock));
  }

  /** Width of a cut at the top, mm; 0 where it does not go through. */
  width(powerShare: number, speedMmPerS: number, along: "x" | "y"): number {
    const key = `${powerShare} ${speedMmPerS} ${along}`;
    const known = this.widths.get(key);
    const width =
      known ??
      lineWidth(this.head.beam, this.stock(), this.burn(powerShare, speedMmPerS, along, this.cut.focusBelowMm));
    this.widths.set(key, width);
    return width === 0 || this.exact ? width : width + WANDER_MM * this.random.normal();
  }

  private stock() {
    return { thresholdJPerMm2: this.thresholdJPerMm2, addsUp: true };
  }

  private burn(powerShare: number, speedMmPerS: number, along: "x" | "y", below: number): LineBurn {
    const { beam, wattsAtFull } = this.head;
    return { heightMm: beam.focusMm - below, speedMmPerS, powerW: powerShare * wattsAtFull, along };
  }
}

/** By how much a cut is narrower at the bottom than at the top, mm. */
export function taperedBy({ stock, thicknessMm }: Pick<CutStock, "stock" | "thicknessMm">): number {
  return thicknessMm * seeded(seedOf(stock.split("/")[0] ?? "", "taper")).between(TAPER.low, TAPER.high);
}
