/**
 * How the cells of an array come out on a practice stock: every mark in a cell adds to what it gets, and the stock answers.
 *
 * What counts of a cell is worked out from its marks alone: their power, speed and distance, how often each place was passed, how wide the beam was, and
 * the pulses. No plan is looked at.
 */
import { onCoupon, type Placement } from "../core/geometry/frames";
import type { Rect } from "../core/geometry/rect";
import type { Mark } from "./gantry";
import { type Random, seeded, seedOf } from "./random";
import { STOCK_KINDS, type StockResponse, stockResponse } from "./stock-response";

export type CellLook = {
  /** 1 - reflectance against the blank stock. */
  darkness: number;
  /** How well it came out, from 0 to about 1. */
  quality: number;
  /** Share that is burnt. */
  burnt: number;
  /** SD of the shade of single rows, as a share of the darkness, and of where they end, mm. */
  unevenness: number;
  raggedMm: number;
  depthMm: number;
  /** Oxide on steel that was marked so. */
  oxideNm: number;
};

/** Of the machine and its stock. */
export type Surface = {
  seed: number;
  /** Key of card and batch. */
  stock: string;
  topSpeedMmPerS: number;
  /** Without texture and scatter: what is true of the stock. */
  isSmooth?: true;
};

/** SD of the surface, as a share of the best mark. */
const ROUGHNESS = 0.04;
/** Settings in the middle of what this stock takes, as shares of full power and top speed, and with rows so far apart. (invented) */
const USUAL = { power: 0.35, speed: 0.13, rowMm: { pulsed: 0.04, steady: 0.1 }, kHz: 30, ns: 200 };
const HALF_RANGE = Math.log(Math.sqrt(6));
const DARKEST = 0.72;
const DEEPEST_MM = 0.6;
/** Of the settings in the middle. (invented) */
const OXIDE_NM = 45;

/** The stock that lies on this machine: its card makes the stock, its batch shifts it a little. */
export function stockOn({ seed, stock }: Pick<Surface, "seed" | "stock">): StockResponse {
  const card = stock.split("/", 1)[0] ?? stock;
  const random = seeded(seedOf(seed, card, "marking"));
  const response = stockResponse(random.oneOf(STOCK_KINDS.filter((k) => k !== "edge")), random, ROUGHNESS);
  return stock === card ? response : response.otherBatch(seeded(seedOf(seed, stock, "batch")));
}

/** @param cells of the drawing @param corner where the corner of the stock truly lay @returns `null` for a cell without marks */
export function cellLooks(
  cells: readonly Rect[],
  marks: readonly Mark[],
  corner: Placement,
  surface: Surface,
): (CellLook | null)[] {
  const stock = stockOn(surface);
  const chance = seeded(seedOf(surface.seed, surface.stock, "cells"));
  return cells.map((cell) => {
    const inside = marks.filter((m) => isInside(cell, m, corner));
    return inside.length === 0 ? null : lookOf(cell, inside, stock, surface, chance);
  });
}

/** Whether the middle of a mark lies in a cell of the drawing. */
export function isInside({ x0, y0, x1, y1 }: Rect, mark: Mark, corner: Placement): boolean {
  const at = mark.drawn ?? onCoupon({ x: (mark.x0 + mark.x1) / 2, y: (mark.y0 + mark.y1) / 2 }, corner);
  return at.x > x0 && at.x < x1 && at.y > y0 && at.y < y1;
}

function lookOf(
  cell: Rect,
  marks: readonly Mark[],
  stock: StockResponse,
  { topSpeedMmPerS, isSmooth }: Surface,
  chance: Random,
): CellLook {
  const first = marks[0];
  const { powerShare = 0.2, speedMmPerS, pulses, narrowness = 1, widthMm } = first ?? { speedMmPerS: 1, widthMm: 0.1 };
  const marked = marks.reduce((sum, m) => sum + Math.hypot(m.x1 - m.x0, m.y1 - m.y0), 0);
  const area = (cell.x1 - cell.x0) * (cell.y1 - cell.y0);
  // Length of line on each mm^2: rows closer together, and each pass again.
  const density = marked / area;
  const rowMm = pulses ? USUAL.rowMm.pulsed : USUAL.rowMm.steady;
  const speed = Math.log(speedMmPerS / (USUAL.speed * topSpeedMmPerS) / (density * rowMm)) / HALF_RANGE;
  const peak = pulses ? (USUAL.kHz / pulses.kHz) ** 0.3 * ((pulses.ns ?? USUAL.ns) / USUAL.ns) ** 0.15 : 1;
  const power = Math.log((powerShare / USUAL.power) * peak * narrowness ** 0.6) / HALF_RANGE;
  const at = { power, speed };
  const place = { x: cell.x0 / (cell.x1 - cell.x0), y: cell.y0 / (cell.y1 - cell.y0) };
  const quality = Math.max(0, stock.quality(at) + (isSmooth ? 0 : stock.surface(place, chance)));
  const burnt = stock.burnt(at);
  const stripes = Math.max(0, 1 / density / (1.2 * widthMm) - 1);
  return {
    darkness: Math.min(0.95, DARKEST * quality),
    quality,
    burnt,
    unevenness: 0.03 + 0.2 * burnt + 0.3 * Math.min(1, stripes),
    raggedMm: 0.01 + 0.08 * burnt + 0.02 * Math.exp(-(speed + 1)),
    oxideNm: OXIDE_NM * Math.exp(0.55 * (power - speed)) * (1 + (isSmooth ? 0 : stock.surface(place, chance))),
    depthMm: DEEPEST_MM * Math.max(0, quality) ** 1.5 * Math.exp(0.6 * (power - speed)),
  };
}
