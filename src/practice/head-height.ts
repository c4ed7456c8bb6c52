/** How a practice machine comes to a height, and what its beam does there: hidden from everything that computes corrections. */
import { z } from "zod";
import {
  type BeamTruth,
  beamTruthSchema,
  doseOfMiddle,
  type LineBurn,
  lineWidth,
  radiiAt,
  type StockTruth,
  stockTruthSchema,
} from "./beam";
import { EARLIER_SOURCE, type LaserSource } from "./laser-source";
import { type Random, seeded, seedOf } from "./random";
import { thresholdShare } from "./stock-map";

export const focusTruthSchema = z.object({
  beam: beamTruthSchema,
  stock: stockTruthSchema,
  wattsAtFull: z.number().positive(),
  /** True mm of gap by mm of what is shown, and the gap where 0 is shown. */
  gapByShown: z.number().positive(),
  gapAtZeroMm: z.number(),
  /** How much of a turn back is lost in the screw, mm. */
  screwPlayMm: z.number().nonnegative(),
  /** SD of setting a height by hand, mm. */
  settingSdMm: z.number().nonnegative(),
});
export type FocusTruth = z.infer<typeof focusTruthSchema>;

/** Drawn by chance from what is usual of a source; focal depth 0.8 to 1.6 mm, a scale within 1 %. */
export function focusFromSeed(seed: number, source: LaserSource = EARLIER_SOURCE): FocusTruth {
  const random = seeded(seedOf(seed, "height"));
  const { wavelengthMm, addsUp, usual } = source;
  const m2 = random.between(...source.m2);
  const depth = random.between(0.8, 1.6);
  const waistMm = Math.sqrt((depth * m2 * wavelengthMm) / Math.PI);
  const gapByShown = 1 + random.between(-0.01, 0.01);
  const gapAtZeroMm = random.between(...source.gapAtZeroMm);
  const wattsAtFull = random.between(...source.wattsAtFull);
  const beam: BeamTruth = {
    wavelengthMm,
    m2,
    waistMm,
    pulseHz: usual.pulseHz,
    focusMm: gapAtZeroMm + gapByShown * random.between(...source.shownFocusMm),
    astigmatismMm: depth * random.between(-0.05, 0.05),
  };
  const strength = random.between(...source.strength);
  const burn: LineBurn = {
    heightMm: beam.focusMm,
    speedMmPerS: usual.speedMmPerS,
    powerW: usual.powerShare * wattsAtFull,
    along: "x",
  };
  return {
    beam,
    stock: { addsUp, thresholdJPerMm2: doseOfMiddle(beam, addsUp, burn) / strength },
    wattsAtFull,
    gapByShown,
    gapAtZeroMm,
    screwPlayMm: random.between(0, 0.1),
    settingSdMm: 0.05,
  };
}

/** With a stock that is not the same all over. */
export function grained(focus: FocusTruth, seed: number): FocusTruth {
  const random = seeded(seedOf(seed, "grain"));
  const grain = { seed, sd: random.between(0.01, 0.04), sizeMm: random.between(3, 10) };
  return { ...focus, stock: { ...focus.stock, grain } };
}

/** The same head, its beam and its stock with everything random taken out. */
export function still(focus: FocusTruth): FocusTruth {
  const { grain: _, ...stock } = focus.stock;
  return { ...focus, stock, settingSdMm: 0, screwPlayMm: 0, beam: { ...focus.beam, astigmatismMm: 0 } };
}

/** The number shown where the beam is narrowest: the truth of a ladder. */
export function shownFocus({ beam, gapByShown, gapAtZeroMm }: FocusTruth): number {
  return (beam.focusMm - gapAtZeroMm) / gapByShown;
}

type WantedLine = {
  powerShare: number;
  speedMmPerS: number;
  along: "x" | "y";
  /** Of the line, where the machine puts it, mm. */
  middle: { x: number; y: number };
  /** The source's own where it is left out. */
  pulseHz?: number;
  /** By how much the stock is higher there, mm. */
  riseMm?: number;
};

function stockAt(stock: StockTruth, place: { x: number; y: number }): StockTruth {
  if (!stock.grain) return stock;
  return { ...stock, thresholdJPerMm2: stock.thresholdJPerMm2 * thresholdShare(stock.grain, place) };
}

/** A head whose height is set now and then while it burns. */
export class HeadHeight {
  private readonly random: Random;
  private shownMm: number | null = null;
  private gapMm = 0;
  /** Cells burned out of focus on purpose are looked at for how they came out: whether they mark at all, the stock says. */
  private isOnPurpose = false;

  constructor(
    private readonly truth: FocusTruth,
    seed: number,
  ) {
    this.random = seeded(seedOf(seed, "heights"));
  }

  /** @param by who sets it: a hand is not as sure as a motor */
  set(shownMm: number, by: "hand" | "motor"): void {
    const { gapByShown, gapAtZeroMm, screwPlayMm, settingSdMm } = this.truth;
    const falls = this.shownMm !== null && shownMm < this.shownMm;
    const slip =
      (falls ? screwPlayMm : 0) + (by === "hand" && settingSdMm > 0 ? settingSdMm * this.random.normal() : 0);
    this.gapMm = gapAtZeroMm + gapByShown * shownMm + slip;
    this.shownMm = shownMm;
    this.isOnPurpose = false;
  }

  /** By hand, from the height in focus. */
  setAboveFocus(mm: number): void {
    const { beam, settingSdMm, gapAtZeroMm, gapByShown } = this.truth;
    this.gapMm = beam.focusMm + mm + settingSdMm * this.random.normal();
    this.shownMm = (this.gapMm - gapAtZeroMm) / gapByShown;
    this.isOnPurpose = true;
  }

  /** By how much the stock is nearer than the focus now, mm; 0 before a height was set: work is done in focus then. */
  get nearerMm(): number {
    return this.shownMm === null ? 0 : this.truth.beam.focusMm - this.gapMm;
  }

  /** What a straight line leaves at this height; `null` before any was set: work is done in focus then, as every day. */
  line(wanted: WantedLine): { widthMm: number; narrowness: number } | null {
    if (this.shownMm === null) return null;
    const { powerShare, speedMmPerS, along, middle, pulseHz = this.truth.beam.pulseHz, riseMm = 0 } = wanted;
    const { wattsAtFull } = this.truth;
    const beam = { ...this.truth.beam, pulseHz };
    const stock = stockAt(this.truth.stock, middle);
    const gapMm = this.gapMm - riseMm;
    const radii = radiiAt(beam, gapMm);
    const narrowness = beam.waistMm ** 2 / (radii.x * radii.y);
    if (this.isOnPurpose) return { widthMm: 2 * (along === "x" ? radii.y : radii.x), narrowness };
    return {
      widthMm: lineWidth(beam, stock, {
        heightMm: gapMm,
        speedMmPerS,
        along,
        powerW: powerShare * wattsAtFull,
      }),
      narrowness,
    };
  }
}

/** SD with which a person notes the brightest moment, mm, and how late, as a share of a mm. */
const NOTING = { sdMm: 0.15, lateMm: 0.04 };
/** The height is moved in steps of this while it is looked at, mm. */
const SWEEP_STEP_MM = 0.02;

/**
 * The number that a person notes where marking is brightest, moving it through all heights once.
 *
 * @param going whether the number rises or falls
 */
export function peakNoted(truth: FocusTruth, going: "up" | "down", random: Random): number {
  const middle = Math.round(shownFocus(truth));
  const reach = 8;
  const way = going === "up" ? 1 : -1;
  let best = { shown: middle, brightness: 0 };
  for (let k = 0; k <= (2 * reach) / SWEEP_STEP_MM; k++) {
    const shown = middle + way * (k * SWEEP_STEP_MM - reach);
    // Turning back, the screw leaves the head where it was by its play.
    const gapMm = truth.gapAtZeroMm + truth.gapByShown * shown + (going === "down" ? truth.screwPlayMm : 0);
    const { x, y } = radiiAt(truth.beam, gapMm);
    const brightness = 1 / (x * y);
    if (brightness > best.brightness) best = { shown, brightness };
  }
  const isStill = truth.settingSdMm === 0;
  return best.shown + (isStill ? 0 : way * NOTING.lateMm + NOTING.sdMm * random.normal());
}
