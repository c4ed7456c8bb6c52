/**
 * How well a stock is marked at a power and a speed, from what heat does to it: a layer that darkens, and one that burns away or turns to ash.
 *
 *   dose = power^a / speed^b        a = b where energy alone counts; heat that flows away while the spot passes makes b differ from a
 *   darkened = 1 - exp(-(dose / d1)^k1),   burnt = 1 - exp(-(dose / d2)^k2),   quality = darkened (1 - loss burnt) steadied
 *
 * Progress of a reaction by Avrami's law [J. Chem. Phys. 7 (1939) 1103, from memory]; the numbers are invented.
 */
import type { Random } from "./random";
import { textureFromSeed } from "./stock-texture";

export const STOCK_KINDS = ["energy", "charring", "ridge", "apart", "edge", "two peaks"] as const;
export type StockKind = (typeof STOCK_KINDS)[number];

/** Natural logarithms of power and speed, from the middle of the range, in half ranges. */
export type Settings = { power: number; speed: number };

export type StockResponse = {
  kind: StockKind;
  /** From 0, blank, to about 1. */
  quality(at: Settings): number;
  /** How much of it is burnt, 0 to 1. */
  burnt(at: Settings): number;
  /** What the surface adds at a place, in sides of a cell: half a texture, half from cell to cell. */
  surface(place: { x: number; y: number }, random: Random): number;
  /** The same stock from another batch. */
  otherBatch(random: Random): StockResponse;
};

type Reaction = { a: number; b: number; d1: number; k1: number; d2: number; k2: number; loss: number };

/** ln of the range on each side of the middle. */
const HALF_RANGE = Math.log(Math.sqrt(6));
/** Over how many sides of a cell the texture keeps its sign. */
const TEXTURE_REACH = 1.6;
/** From batch to batch, SD: half ranges of power and speed, and share of the darkness. */
const BATCH = { shift: 0.04, gain: 0.05 };

export function stockResponse(kind: StockKind, random: Random, roughness: number): StockResponse {
  return withSurface(kind, lawOf(kind, random), roughness, random);
}

type Law = Pick<StockResponse, "quality" | "burnt">;

function withSurface(kind: StockKind, law: Law, roughness: number, random: Random): StockResponse {
  const texture = textureFromSeed(Math.floor(random.even() * 2 ** 31), TEXTURE_REACH);
  return {
    kind,
    ...law,
    surface: (place, chance) => roughness * Math.SQRT1_2 * (texture(place) + chance.normal()),
    otherBatch: (chance) => {
      const shift = { power: BATCH.shift * chance.normal(), speed: BATCH.shift * chance.normal() };
      const gain = 1 + BATCH.gain * chance.normal();
      const moved = (at: Settings) => ({ power: at.power + shift.power, speed: at.speed + shift.speed });
      const other = {
        quality: (at: Settings) => gain * law.quality(moved(at)),
        burnt: (at: Settings) => law.burnt(moved(at)),
      };
      return withSurface(kind, other, roughness, chance);
    },
  };
}

function lawOf(kind: StockKind, random: Random): Law {
  const reaction = reactionOf(kind, random);
  if (reaction) return { quality: reaction.quality, burnt: (at) => progress(at, reaction.law, "burnt") };
  return { quality: twoPeaks(random), burnt: () => 0 };
}

/** How far darkening or burning has gone. */
function progress({ power, speed }: Settings, { a, b, d1, k1, d2, k2 }: Reaction, of: "dark" | "burnt"): number {
  const dose = HALF_RANGE * (a * power - b * speed);
  const [at, order] = of === "dark" ? [d1, k1] : [d2, k2];
  return 1 - Math.exp(-Math.exp(order * (dose - at)));
}

function reacted(at: Settings, law: Reaction): number {
  return progress(at, law, "dark") * (1 - law.loss * progress(at, law, "burnt"));
}

function reactionOf(kind: StockKind, random: Random): { law: Reaction; quality: StockResponse["quality"] } | null {
  const { between } = random;
  switch (kind) {
    case "energy": {
      const middle = between(-0.9, 0.9);
      const r = {
        a: 1,
        b: 1,
        d1: middle - between(0.3, 0.8),
        k1: between(1, 2),
        d2: middle + between(0.3, 0.9),
        k2: between(1, 2.5),
        loss: between(0.5, 1),
      };
      return { law: r, quality: (at) => reacted(at, r) };
    }
    case "charring": {
      const char = between(-0.3, 1.2);
      const r = {
        a: 1,
        b: between(0.8, 1.2),
        d1: char - between(0.8, 1.6),
        k1: between(0.8, 1.4),
        d2: char,
        k2: between(3, 7),
        loss: between(0.6, 1),
      };
      return { law: r, quality: (at) => reacted(at, r) };
    }
    case "ridge": {
      const middle = between(-0.6, 0.6);
      const [a, b] = [between(0.8, 1.6), between(0.5, 1.1)];
      const r = {
        a,
        b,
        d1: middle - between(0.3, 0.7),
        k1: between(1, 2),
        d2: middle + between(0.3, 0.8),
        k2: between(1, 2.5),
        loss: between(0.6, 1),
      };
      const [along, fall] = [between(-0.8, 0.8), between(0.01, 0.08)];
      return { law: r, quality: (at) => reacted(at, r) * (1 - fall * ((at.power + at.speed) / 2 - along) ** 2) };
    }
    case "apart": {
      const r = {
        a: between(1, 2),
        b: between(-0.2, 0.2),
        d1: between(-1, -0.3),
        k1: between(1, 2),
        d2: between(0.3, 1.2),
        k2: between(1, 2.5),
        loss: between(0.5, 1),
      };
      const [best, wide] = [between(-0.6, 0.6), between(0.6, 1.4)];
      return { law: r, quality: (at) => reacted(at, r) / (1 + ((at.speed - best) / wide) ** 2) };
    }
    case "edge": {
      const sign = random.oneOf([-1, 1]);
      const middle = sign * between(1.7, 2.6);
      const r = {
        a: 1,
        b: between(0.7, 1.3),
        d1: middle - between(0.4, 0.9),
        k1: between(0.8, 1.6),
        d2: middle + between(0.4, 0.9),
        k2: between(0.8, 1.6),
        loss: between(0.6, 1),
      };
      return { law: r, quality: (at) => reacted(at, r) };
    }
    case "two peaks":
      return null;
  }
}

/** Two ways to mark it, for example a slow one that darkens and a fast one that foams. */
function twoPeaks({ between, oneOf }: Random): StockResponse["quality"] {
  const [one, other] = [between(-0.8, -0.4), between(0.4, 0.8)];
  const second = between(0.6, 1);
  const speeds = oneOf([-1, 1]) * between(0.3, 0.7);
  const peak = ({ power, speed }: Settings, dose: number, pace: number) =>
    Math.exp(-(Math.abs((power - speed) / 2 - dose) ** 2.4) / 0.12) / (1 + ((power + speed) / 2 - pace) ** 2 / 0.5);
  return (at) => 0.95 * Math.max(peak(at, one, speeds), second * peak(at, other, -speeds));
}
