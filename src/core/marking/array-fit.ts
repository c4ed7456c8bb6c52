/** The response of an array at its cells and on its map: from scores, from colours or from comparisons. */
import { colourDifference } from "../colour/difference";
import type { Lab } from "../colour/lab";
import { elementAt } from "../fitting/element-at";
import type { SurfacePoint } from "../fitting/kernel";
import { type Comparison, fitPreferences } from "../fitting/preference-surface";
import { fitSurface, type SurfaceFit, USUAL_MODELS } from "../fitting/response-surface";
import type { ArrayGiven, ScoredCell } from "./array-given";
import { type EnergyVerdict, energyAlone } from "./energy-alone";
import { DRAWS, indexOfLargest } from "./over-draws";

type Colours = NonNullable<ArrayGiven["colours"]>;

type ArrayFit = Pick<SurfaceFit, "mean" | "draw" | "noise"> & {
  /** Indices of the cells with a score or a comparison, and of the cells that contradict all others. */
  judged: number[];
  odd: number[];
  /** Value of the blank stock. */
  blank: number;
  /** Where the best is looked for. Comparisons show nothing about cells that were not compared. */
  bestAmong: "map" | "judged";
  /** Whether two peaks are two groups of settings. */
  hasGroups: boolean;
  /** @param draws at the cells first */
  energy(draws: readonly Float64Array[]): EnergyVerdict | null;
};

export function fitOf(given: ArrayGiven, places: readonly SurfacePoint[], progress: (share: number) => void): ArrayFit {
  const { comparisons, colours } = given;
  if (comparisons) return fitCompared(given, comparisons, places, progress);
  return colours ? fitColoured(given, colours, places, progress) : fitScored(given, places, progress);
}

function fitScored(
  { cells, blank }: ArrayGiven,
  places: readonly SurfacePoint[],
  progress: (share: number) => void,
  models = USUAL_MODELS,
): ArrayFit {
  const scored = cells.flatMap((c, index) => (c.score === null ? [] : [{ ...c, score: c.score, index }]));
  const readings = scored.map(({ score, burn, place, index }) => ({
    at: elementAt(places, index),
    value: score,
    burn,
    place,
  }));
  const fit = fitSurface(readings, places, progress, models);
  return {
    ...fit,
    blank,
    bestAmong: "map",
    hasGroups: true,
    judged: scored.map((c) => c.index),
    odd: fit.odd.map((i) => elementAt(scored, i).index),
    energy: (draws) => {
      const energies = cells.flatMap((c) => c.energy ?? []);
      return energies.length < cells.length
        ? null
        : energyAlone({
            energies,
            at: places.slice(0, cells.length),
            readings: readings.filter((_, i) => !fit.odd.includes(i)),
            log: fit.log,
            draws,
          });
    },
  };
}

/** Differences of colour count from black to white. */
const BLACK_TO_WHITE = 100;

const PARTS = ["l", "a", "b"] as const;
/** Colours change quickly from cell to cell where light interferes, so none counts as a contradiction. */
const COLOUR_MODELS = { ...USUAL_MODELS, oddShare: 0 };

/** Whether one number of the colour is the same everywhere: nothing can be fitted to it. */
export function isOfOneColour(cells: readonly ScoredCell[], of: readonly (Lab | null)[]): boolean {
  const read = of.flatMap((lab, i) => (lab && cells[i]?.score !== null ? [lab] : []));
  return PARTS.some((part) => read.every((lab) => lab[part] === read[0]?.[part]));
}

/** Each number of the colour is a response of its own; the loss is the difference from the wanted colour in every draw. */
function fitColoured(
  given: ArrayGiven,
  colours: Colours,
  places: readonly SurfacePoint[],
  progress: (share: number) => void,
): ArrayFit {
  const { cells } = given;
  const parts = PARTS.map((part, k) => {
    const withPart = cells.map((c, i) => ({ ...c, score: c.score === null ? null : (colours.of[i]?.[part] ?? null) }));
    return fitScored({ ...given, cells: withPart }, places, (s) => progress((k + s) / PARTS.length), COLOUR_MODELS);
  });
  const loss = (values: readonly Float64Array[]) =>
    Float64Array.from(places, (_, i) => {
      const [l = 0, a = 0, b = 0] = values.map((v) => elementAt(v, i));
      return -colourDifference({ l, a, b }, colours.wanted);
    });
  const mean = loss(parts.map((p) => p.mean));
  return {
    mean,
    blank: elementAt(mean, indexOfLargest(mean)) - BLACK_TO_WHITE,
    bestAmong: "map",
    // Colours repeat as the energy grows, and the nearest is chosen whichever group it is in.
    hasGroups: false,
    draw: (count, chance) => {
      const drawn = parts.map((p) => p.draw(count, chance));
      return Array.from({ length: count }, (_, n) => loss(drawn.map((d) => elementAt(d, n))));
    },
    noise: Math.hypot(...parts.map((p) => p.noise)),
    judged: parts[0]?.judged ?? [],
    odd: [...new Set(parts.flatMap((p) => p.odd))],
    // A colour has no size that energy could explain.
    energy: () => null,
  };
}

/** Comparisons show only differences, in units of what an eye can distinguish. The best expected value is set to 1. */
function fitCompared(
  { blank }: ArrayGiven,
  comparisons: readonly Comparison[],
  places: readonly SurfacePoint[],
  progress: (share: number) => void,
): ArrayFit {
  const { mean, draws } = fitPreferences(comparisons, places, { count: DRAWS, progress });
  const top = elementAt(mean, indexOfLargest(mean));
  const asShare = (v: number) => 1 + EYE_UNIT * (v - top);
  return {
    mean: mean.map(asShare),
    draw: (count) => draws.slice(0, count).map((d) => d.map(asShare)),
    blank,
    bestAmong: "judged",
    hasGroups: true,
    noise: EYE_SD,
    judged: [...new Set(comparisons.flatMap((c) => [c.better, c.worse]))],
    odd: [],
    // Comparisons have no size that energy could explain.
    energy: () => null,
  };
}

/** SD with which an eye judges one cell, as a share of the best. (common practice, no source) */
export const EYE_SD = 0.04;
/** SD between cells with the same settings, from the surface of the stock, as a share of the best. (common practice, no source) */
const SURFACE_SD = 0.04;
/** Unit of the logistic distribution whose SD is that of the difference between two cells. */
const EYE_UNIT = (Math.SQRT2 * Math.hypot(EYE_SD, SURFACE_SD) * Math.sqrt(3)) / Math.PI;
