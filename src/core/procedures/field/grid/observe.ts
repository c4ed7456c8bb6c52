/**
 * The caliper lengths of a grid as a model: they fix the scale of the scans, and with the diagonals what the scanner does to the shape.
 *
 *   L = l (1 + (S + E cos 2 phi + G sin 2 phi) / H),   (E, G) = mean over scans of (e cos 2t + g sin 2t, g cos 2t - e sin 2t)
 *
 * l is the length between two marks by the map through the dots, phi its direction on the stock, t the turn of a scan. S, e and g are what
 * the scanner has to be corrected by, mm at the corner; H is half the field. Two scans tell e and g by their difference.
 */
import { type Adjustment, adjust, combine, combinedValue, type GroupScatter } from "../../../estimate/adjustment";
import { known, type Model, type Observation, ofReadings, type Row, usual } from "../../../estimate/model";
import {
  fitPlaneMap,
  fitWithBestDegree,
  isInvertible,
  mapPoint,
  mapUncertainty,
  type PlaneFit,
  type PlaneMap,
  unmapPoint,
} from "../../../fitting/plane-map";
import { type Projective, projected } from "../../../fitting/projective";
import { modelWithKnown } from "../../../measuring/known-length";
import { type LengthReading, lengthReadings } from "../../../measuring/length-readings";
import { type HistoryKnown, remembering } from "../../../measuring/remembering";
import { type Budgeted, type BudgetPart, joined } from "../../../metrology/budget";
import { withinSentence } from "../../../metrology/sentence-case";
import { oneOf } from "../../../trial/decision";
import type { RoundRecord } from "../../../trial/history";
import type { FieldFound } from "../found";
import { gridOf, type MapTerm, type Vector } from "../map";
import type { FieldPlan } from "../plan";
import { GRID_LENGTHS, gridEndsOf, gridLengthOf, gridLengthsOf, reachMm } from "./lengths";
import { type GridSeen, gridSeen, leftOfScanner, type Scan } from "./seen";

export type Known = HistoryKnown<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

/** Limits of error of a scanner without calibration, as shares: number of dots, X against Y, skew of its axes. (common practice, no source) */
const LIMITS = { dpi: 0.002, ratio: 0.002, skew: 0.001 } as const;
/** Standard uncertainties: a limit a is a rectangle, a/sqrt(3); half of the ratio is in X and half in Y, as of the skew. [JCGM 100:2008 4.3.7] */
const SCANNER = {
  scale: LIMITS.dpi / Math.sqrt(3),
  ratio: LIMITS.ratio / 2 / Math.sqrt(3),
  skew: LIMITS.skew / 2 / Math.sqrt(3),
} as const;
/** Terms of a photo besides its scale, and their usual size, a share of half the field. (common practice, no source) */
const PHOTO_TERMS = ["ratio", "skew", "slant x", "slant y"] as const;
const PHOTO_USUAL = 0.05;
/** Smaller parts of an uncertainty are not listed: their square is nothing. */
const NOTHING = 0.01;
/** Before the dots are read a length is known to this share of it. (common practice, no source) */
const UNSEEN = 0.01;

/** The degree of the map that the user chose. Without a choice the degree is automatic. */
export const DEGREES = ["1", "2", "3", "4", "5"] as const;
export const DEGREE = oneOf("degree of the map", DEGREES);

/** Terms whose uncertainty the lengths make. */
const BY_LENGTHS = ["scale x", "scale y", "shear"] as const satisfies MapTerm[];
/** Over the field, in shares of half of it. */
const PLACES = gridOf(9);
const TERMS: readonly MapTerm[] = [
  ...BY_LENGTHS,
  "bow x",
  "bow y",
  "keystone x",
  "keystone y",
  "own cubic x",
  "own cubic y",
  "quadratic x",
  "quadratic y",
];

/** The map through the dots as the scans show them. */
type Mapped = { seen: GridSeen; fit: PlaneFit; all: PlaneFit[] };

const mappedAt: (history: Known, round: Round) => Mapped | null = remembering((history, round) => {
  const { plan } = round;
  const seen = gridSeen(plan, round.answers);
  if (!seen) return null;
  if (plan.pictures !== "photo") return mapThrough(history, plan, seen);
  // The distances correct the photo step by step. Imagined readings are left out.
  const taken = { ...round, answers: round.answers.filter((a) => !a.imagined) };
  let mapped = mapThrough(history, plan, seen);
  if (missingLengths(history, taken).length > 0) return mapped;
  for (let step = 0; mapped && step < PHOTO_STEPS; step++) {
    const model = modelOfLengths(history, taken, mapped);
    const fit = model && adjust(ofReadings(model), AS_EXPECTED);
    if (!fit) return null;
    const view = viewBy(fit, plan.fieldMm / 2);
    const dots = mapped.seen.dots.map(({ from, to }) => ({ from, to: projected(view, to) }));
    mapped = mapThrough(history, plan, { ...mapped.seen, dots });
  }
  return mapped;
});

/** Steps in which the distances correct a photo. Each step squares the remaining error. */
const PHOTO_STEPS = 4;
const AS_EXPECTED: ReadonlyMap<string, GroupScatter> = new Map();

/** Correction of a photo by the distances, as a view of the plane: scale, X against Y, skew, and two slants. */
function viewBy(fit: Adjustment, half: number): Projective {
  const value = (id: string) => combinedValue(fit, { [id]: 1 }) / half;
  const [s, e, g] = [value("scale"), value("ratio"), value("skew")];
  const [px, py] = [value("slant x") / half, value("slant y") / half];
  return [1 + s + e, 2 * g, 0, 0, 1 + s - e, 0, -px, -py];
}

function mapThrough(history: Known, plan: FieldPlan, seen: GridSeen): Mapped | null {
  const half = plan.fieldMm / 2;
  const fits = fitWithBestDegree(seen.dots, half);
  if (!fits) return null;
  const chosen = DEGREE.of(history.decisions);
  const fit = chosen
    ? (fits.all.find((f) => f.map.degree === Number(chosen)) ?? fitPlaneMap(seen.dots, 1, half))
    : fits.best;
  return fit && { seen, fit, all: fits.all };
}

/** @returns `null` before a length is read: nothing else has a scale */
export function observeGrid(history: Known, round: Round): Model | null {
  return modelOfLengths(history, round, mappedAt(history, round));
}

/** Effect of each term of the scanner on the mean of the scans, by result. */
function rowsOf(scans: readonly Pick<Scan, "turnRad">[]): Readonly<Record<(typeof BY_LENGTHS)[number], Row>> {
  const { cos, sin } = leftOfScanner(scans);
  return {
    "scale x": { scale: 1, ratio: cos, skew: sin },
    "scale y": { scale: 1, ratio: -cos, skew: -sin },
    shear: { ratio: -2 * sin, skew: 2 * cos },
  };
}

/** Shift of a point along a direction by S, e and g, mm per mm at the corner. */
function rowAt(
  scans: readonly Pick<Scan, "turnRad">[],
  at: Vector,
  along: Vector,
  half: number,
  isPhoto: boolean,
): Row {
  const { cos, sin } = leftOfScanner(scans);
  const scale = (at.x * along.x + at.y * along.y) / half;
  // X keeps its direction: a skew moves X along Y, twice as far.
  const [e, g] = [(at.x * along.x - at.y * along.y) / half, (2 * at.y * along.x) / half];
  const ofScan = { scale, ratio: cos * e - sin * g, skew: sin * e + cos * g };
  if (!isPhoto) return ofScan;
  // A photo from aside: x / (1 - P x - Q y) is x + P x^2 + Q x y to first order.
  const outward = (at.x * along.x + at.y * along.y) / half;
  return { ...ofScan, "slant x": (outward * at.x) / half, "slant y": (outward * at.y) / half };
}

/** Scans as they are laid out, before they are there. */
function plannedScans({ pictures }: Pick<FieldPlan, "pictures">): Pick<Scan, "turnRad">[] {
  return pictures === "two" ? [{ turnRad: 0 }, { turnRad: Math.PI / 2 }] : [{ turnRad: 0 }];
}

/** Expected uncertainty of the strain between two scans, before they are read, as a share. (common practice, no source) */
const DIFFERENCE_U = 5e-5;
/** Expected bend of lines by the scanner, before the scans are read, mm. (common practice, no source) */
const EXPECTED_WAVES_MM = 0.0035;

function modelOfLengths(history: Known, round: Round, mapped: Mapped | null): Model | null {
  const { plan } = round;
  const half = plan.fieldMm / 2;
  const ids = gridLengthsOf(plan);
  const readings = lengthReadings(round.answers, ids, history.gauges, history.decisions);
  if (readings.length === 0) return null;
  // A forecast has every length before it is read; a prediction has one of them.
  const isForecast = ids.every((id) => readings.some((r) => r.site === id && r.imagined));
  const scans = mapped?.seen.scans ?? plannedScans(plan);
  const isLoose = !mapped && !isForecast;
  const isPhoto = plan.pictures === "photo";
  const spans = new Map(
    ids.map((id) => {
      const { from, to } = gridEndsOf(id, plan);
      const [a, b] = mapped ? [mapPoint(mapped.fit.map, from), mapPoint(mapped.fit.map, to)] : [from, to];
      const mm = Math.hypot(b.x - a.x, b.y - a.y);
      const along = { x: (b.x - a.x) / mm, y: (b.y - a.y) / mm };
      const [atA, atB] = [rowAt(scans, a, along, half, isPhoto), rowAt(scans, b, along, half, isPhoto)];
      const row = Object.fromEntries(Object.keys(atB).map((key) => [key, (atB[key] ?? 0) - (atA[key] ?? 0)]));
      return [id as string, { mm, row }] as const;
    }),
  );
  const of = (r: LengthReading) => spans.get(r.site) ?? { mm: Number.NaN, row: {} };
  const wavesMm = mapped?.seen.waves.u ?? EXPECTED_WAVES_MM;
  const wanted = rowsOf(scans);
  return modelWithKnown(
    readings,
    plan,
    { answers: round.answers, gauges: history.gauges, decisions: history.decisions },
    {
      jawsOf: () => "outside",
      lengthOf: (r) => of(r).mm,
      row: (r) => ({ ...of(r).row, [`seen ${r.site}`]: 1 }),
      y: (r) => r.value - of(r).mm,
      terms: [],
      facts: (r) => ({
        pointLabel: withinSentence(GRID_LENGTHS[gridLengthOf(r.site)].label),
        signedByWords: false,
        ...(r.site.startsWith("length") ? { axis: r.site.slice(-1) } : {}),
      }),
      known: [
        // A scan may say any number of dots: the lengths alone give the scale.
        usual("scale", "dots per inch of the scan", SCANNER.scale * half),
        ...(isPhoto
          ? PHOTO_TERMS.map((id) => usual(id, "how the photo was taken", PHOTO_USUAL * half))
          : [
              known("ratio", "X against Y of the scanner", { u: SCANNER.ratio * half, canBeWrong: false }),
              known("skew", "skew of the scanner", { u: SCANNER.skew * half, canBeWrong: false }),
            ]),
        ...differencesOf(mapped, plan, half),
        ...ids
          .filter((id) => readings.some((r) => r.site === id))
          .map((id) => ({
            ...known(`seen ${id}`, "lines bent by the scanner", {
              u: isLoose ? UNSEEN * (spans.get(id)?.mm ?? 0) : Math.SQRT2 * wavesMm,
              canBeWrong: false,
            }),
            source: { id: "waves", label: "Lines bent by the scanner", kind: "B" as const },
          })),
      ],
      wanted: BY_LENGTHS.map((id) => ({ id, label: `the ${WANTED[id]}`, row: wanted[id], proves: 1 })),
    },
  );
}

const WANTED = { "scale x": "scale along X", "scale y": "scale along Y", shear: "shear" } as const;

/** Two scans at different turns separate e and g from the field. */
function differencesOf(mapped: Mapped | null, plan: FieldPlan, half: number): Observation[] {
  const planned = plannedScans(plan);
  const differences = mapped
    ? mapped.seen.differences
    : planned.slice(1).map((second) => ({
        first: planned[0] as (typeof planned)[number],
        second,
        ratio: 0,
        skew: 0,
        u: DIFFERENCE_U,
      }));
  return differences.flatMap(({ first, second, ratio, skew, u }, i): Observation[] => {
    const cos = Math.cos(2 * second.turnRad) - Math.cos(2 * first.turnRad);
    const sin = Math.sin(2 * second.turnRad) - Math.sin(2 * first.turnRad);
    const told = (id: string, row: Row, y: number): Observation => ({
      ...known(`${id} ${i}`, "difference of the scans", { u: u * half, canBeWrong: false }),
      source: { id: "scans", label: "Difference of the scans", kind: "A" },
      // A scan that is too long has to be corrected to be shorter.
      row,
      y: -y * half,
    });
    return [told("ratio", { ratio: cos, skew: sin }, ratio), told("skew", { ratio: -sin, skew: cos }, skew)];
  });
}

export type GridRead = {
  found: FieldFound;
  seen: GridSeen;
  fit: Adjustment;
  /** True to the stock: scanner corrected, its middle kept. */
  map: PlaneMap;
  /** Through the dots as scanned, of the degree that is used; and of all degrees. */
  shape: PlaneFit;
  all: PlaneFit[];
};

/** @returns `null` until the dots and the lengths are read */
export const gridIn = remembering<FieldPlan, GridRead | null>((history, round) => {
  const mapped = mappedAt(history, round);
  if (!mapped || missingLengths(history, round).length > 0) return null;
  const model = modelOfLengths(history, round, mapped);
  const fit = model && adjust(ofReadings(model));
  if (!fit) return null;
  const { plan } = round;
  const half = plan.fieldMm / 2;
  const { seen, fit: shape, all } = mapped;
  const map = corrected(shape.map, fit, seen.scans, half);
  if (!isInvertible(map, reachMm(plan))) return null;
  const byTerm = rowsOf(seen.scans);
  const common = (row: Row, value: number, map: BudgetPart, weight: number): Budgeted => {
    const lengths = combine(fit, row);
    const waves = lengths.parts.filter((p) => p.id === "waves").map((p) => p.standardUncertainty);
    const least = NOTHING * lengths.quantity.standardUncertainty;
    const rest = lengths.parts.filter((p) => p.id !== "waves" && p.standardUncertainty > least);
    return joined(value, [...rest, map, wavesPart(seen, Math.hypot(weight * seen.waves.u, ...waves))]);
  };
  return {
    seen,
    fit,
    map,
    shape,
    all,
    found: {
      to: (at) => mapPoint(map, at),
      from: (at) => unmapPoint(map, at),
      terms: TERMS,
      combined: (row) => {
        const scanner: Record<string, number> = {};
        for (const term of BY_LENGTHS)
          for (const [id, share] of Object.entries(byTerm[term]))
            scanner[id] = (scanner[id] ?? 0) + (row[term] ?? 0) * share;
        const weight = Math.hypot(...TERMS.map((t) => row[t] ?? 0));
        const corner = mapUncertainty(shape, { x: plan.fieldMm / 2, y: plan.fieldMm / 2 });
        return common(scanner, 0, mapPart(shape, weight * Math.max(corner.x, corner.y)), weight);
      },
      errorOver: (parts) => {
        const row: Record<string, number> = {};
        let [value, ofDots, counts] = [0, 0, 0];
        for (const { at, along } of parts) {
          const to = mapPoint(map, at);
          value += (to.x - at.x) * along.x + (to.y - at.y) * along.y;
          for (const [id, share] of Object.entries(rowAt(seen.scans, at, along, half, plan.pictures === "photo")))
            row[id] = (row[id] ?? 0) + share;
          const u = mapUncertainty(shape, at);
          ofDots += (u.x * along.x) ** 2 + (u.y * along.y) ** 2;
          counts += along.x ** 2 + along.y ** 2;
        }
        return common(row, value, mapPart(shape, Math.sqrt(ofDots)), Math.sqrt(counts));
      },
      reachMm: reachMm(plan),
    },
  };
});

function mapPart({ freedom }: PlaneFit, u: number): BudgetPart {
  return { id: "dots", label: "Scatter of the dots", kind: "A", standardUncertainty: u, degreesOfFreedom: freedom };
}

function wavesPart({ waves }: GridSeen, u: number): BudgetPart {
  return {
    id: "waves",
    label: "Lines bent by the scanner",
    kind: waves.isSeen ? "A" : "B",
    standardUncertainty: u,
    degreesOfFreedom: Number.isFinite(waves.freedom) ? waves.freedom : "infinite",
  };
}

/**
 * The map with the scanner taken out, its middle where it is drawn, and its X straight to the right: only a fence shows more.
 *
 * The pose laid X and Y half a shear off each. A controller that shears moves X along Y alone, so X must keep its direction.
 */
function corrected({ degree, half, x, y }: PlaneMap, fit: Adjustment, scans: readonly Scan[], h: number): PlaneMap {
  const value = (id: string) => combinedValue(fit, { [id]: 1 }) / h;
  const { cos, sin } = leftOfScanner(scans);
  const [s, e, g] = [value("scale"), value("ratio"), value("skew")];
  const [ratio, skew] = [cos * e + sin * g, cos * g - sin * e];
  const to = { x: [...x], y: [...y] };
  x.forEach((cx, j) => {
    const cy = y[j] ?? 0;
    to.x[j] = j === 0 ? 0 : (1 + s + ratio) * cx + skew * cy;
    to.y[j] = j === 0 ? 0 : skew * cx + (1 + s - ratio) * cy;
  });
  const straight = { degree, half, ...to };
  let [sum, squares] = [0, 0];
  for (const p of PLACES) {
    const at = { x: p.x * half, y: p.y * half };
    sum += at.x * mapPoint(straight, at).y;
    squares += at.x ** 2;
  }
  const [c, t] = [Math.cos(sum / squares), -Math.sin(sum / squares)];
  return {
    degree,
    half,
    x: to.x.map((cx, j) => c * cx - t * (to.y[j] ?? 0)),
    y: to.y.map((cy, j) => t * (to.x[j] ?? 0) + c * cy),
  };
}

/** Lengths without any reading: each axis needs its own where one scan is all there is. */
export function missingLengths(history: Known, { plan, answers }: Pick<Round, "plan" | "answers">): string[] {
  const readings = lengthReadings(answers, gridLengthsOf(plan), history.gauges, history.decisions);
  const isRead = (id: string) => readings.some((r) => r.site === id);
  // Five of six distances would be enough for a photo. The sixth checks them.
  if (plan.pictures === "photo") return gridLengthsOf(plan).filter((id) => !isRead(id));
  const sides = ["length x", "length y"].filter((id) => !isRead(id));
  return sides.length === 2 || plan.pictures !== "two" ? sides : [];
}
