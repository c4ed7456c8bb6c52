/**
 * Where the middle of a class lies on a line, from things judged by classes in order (cumulative probit).
 *
 *   P(class <= j | x) = Phi((theta_j - x) / sigma),   theta_1 < theta_2 < ...     [McCullagh, J. R. Stat. Soc. B 42 (1980) 109, from memory]
 *
 * The thresholds have a flat prior over a range, sigma one around what is usual. A class lies between its two thresholds, so the
 * likelihood is a chain of factors over neighbouring thresholds: sums over a grid go along the chain once from each end, and no
 * maximum is looked for. Judgements that part cleanly, which have no finite maximum, do no harm.
 */
import { quickNormalCdf } from "./normal";
import { COVERAGE } from "./student-t";

/** The class grows with x. */
export type Judged = { x: number; rank: number };

export type OrderedModel = {
  /** How many classes there are, at least 3. */
  classes: number;
  /** SD of a single judgement, in x, as it is expected to be. */
  usualSigma: number;
  /** Thresholds lie in here. */
  low: number;
  high: number;
};

export type ClassMiddle = {
  middle: number;
  standardUncertainty: number;
  /** It lies within this of the middle with a chance of 95 %: less than 1.96 u where it is as likely anywhere between two things judged. */
  within95: number;
};

/** Points of the grid of thresholds. */
const GRID = 161;
/** Sigma as multiples of what is usual, with weights: it is known to a factor of about 1.6. */
const SIGMAS = [0.4, 0.63, 1, 1.6, 2.5].map((factor) => ({
  factor,
  weight: Math.exp(-0.5 * (Math.log(factor) / Math.log(1.6)) ** 2),
}));

/**
 * The middle between the two thresholds around a class.
 *
 * @param rank of the class, neither the first nor the last
 * @throws RangeError where it has no thresholds on both sides
 */
export function middleOfClass(judged: readonly Judged[], rank: number, model: OrderedModel): ClassMiddle {
  if (rank < 1 || rank > model.classes - 2) throw new RangeError(`rank: ${rank} has no thresholds on both sides`);
  const theta = gridOf(model);
  const sums = { weight: 0, middle: 0, square: 0 };
  // By the sum of the two places on the grid: twice the middle.
  const shares = new Float64Array(2 * GRID);
  for (const { factor, weight } of SIGMAS) {
    const chain = new Chain(judged, factor * model.usualSigma, theta, model.classes);
    chain.eachPair(rank, (below, above, density) => {
      const [a, b] = [theta[below] ?? Number.NaN, theta[above] ?? Number.NaN];
      const p = weight * density;
      sums.weight += p;
      sums.middle += (p * (a + b)) / 2;
      sums.square += (p * (a + b) ** 2) / 4;
      shares[below + above] = (shares[below + above] ?? Number.NaN) + p;
    });
  }
  const middle = sums.middle / sums.weight;
  // A threshold stands for its cell of the grid: the mean of two of them is even within a cell.
  const cell = (model.high - model.low) / (GRID - 1);
  const variance = sums.square / sums.weight - middle ** 2 + cell ** 2 / 24;
  const within = shares.map((p) => p / sums.weight);
  return {
    middle,
    standardUncertainty: Math.sqrt(Math.max(variance, 0)),
    within95: cell / 4 + reachOf(within, (k) => Math.abs(model.low + (k * cell) / 2 - middle)),
  };
}

/** How far from the middle one must go to have 95 % of the shares. */
function reachOf(shares: Float64Array, distance: (k: number) => number): number {
  const near = [...shares.keys()].sort((a, b) => distance(a) - distance(b));
  let sum = 0;
  for (const k of near) {
    sum += shares[k] ?? Number.NaN;
    if (sum >= COVERAGE) return distance(k);
  }
  return distance(near.at(-1) ?? 0);
}

/** How likely each judgement was by all the others, in their order: small where one does not fit. */
export function likelihoods(judged: readonly Judged[], model: OrderedModel): number[] {
  const all = evidenceOf(judged, model);
  return judged.map(
    (_, i) =>
      all /
      evidenceOf(
        judged.filter((_, k) => k !== i),
        model,
      ),
  );
}

/** How likely all judgements are together, over thresholds and sigma: only ratios of it mean something. */
export function evidenceOf(judged: readonly Judged[], model: OrderedModel): number {
  const theta = gridOf(model);
  return SIGMAS.reduce(
    (sum, { factor, weight }) =>
      sum + weight * new Chain(judged, factor * model.usualSigma, theta, model.classes).total(),
    0,
  );
}

function gridOf({ low, high }: OrderedModel): number[] {
  return Array.from({ length: GRID }, (_, i) => low + ((high - low) * i) / (GRID - 1));
}

/** Thresholds 0 .. classes - 2 on the grid; class j lies between thresholds j - 1 and j. */
class Chain {
  /** Phi((theta - x) / sigma) at the grid, by judgement. */
  private readonly below: { rank: number; phi: number[] }[];
  private readonly last: number;

  constructor(
    judged: readonly Judged[],
    sigma: number,
    private readonly theta: readonly number[],
    classes: number,
  ) {
    this.last = classes - 2;
    this.below = judged.map(({ x, rank }) => ({ rank, phi: theta.map((t) => quickNormalCdf((t - x) / sigma)) }));
  }

  total(): number {
    return this.forward(this.last).reduce((sum, p, i) => sum + p * this.above(i), 0);
  }

  /** The density of the two thresholds around a class, unnormed. */
  eachPair(rank: number, visit: (below: number, above: number, density: number) => void): void {
    const from = this.forward(rank - 1);
    const to = this.backward(rank);
    const factor = this.factorOf(rank);
    for (let a = 0; a < this.theta.length; a++)
      for (let b = a + 1; b < this.theta.length; b++)
        visit(a, b, (from[a] ?? Number.NaN) * factor(a, b) * (to[b] ?? Number.NaN));
  }

  /** Everything below threshold j, at each place of it. */
  private forward(j: number): number[] {
    let sums = this.theta.map((_, i) => this.first(i));
    for (let k = 1; k <= j; k++) {
      const factor = this.factorOf(k);
      const before = sums;
      sums = this.theta.map((_, b) => {
        let sum = 0;
        for (let a = 0; a < b; a++) sum += (before[a] ?? Number.NaN) * factor(a, b);
        return sum;
      });
    }
    return sums;
  }

  /** Everything above threshold j, at each place of it. */
  private backward(j: number): number[] {
    let sums = this.theta.map((_, i) => this.above(i));
    for (let k = this.last; k > j; k--) {
      const factor = this.factorOf(k);
      const after = sums;
      sums = this.theta.map((_, a) => {
        let sum = 0;
        for (let b = a + 1; b < after.length; b++) sum += factor(a, b) * (after[b] ?? Number.NaN);
        return sum;
      });
    }
    return sums;
  }

  private first(i: number): number {
    return this.product(0, (phi) => phi[i] ?? Number.NaN);
  }

  private above(i: number): number {
    return this.product(this.last + 1, (phi) => 1 - (phi[i] ?? Number.NaN));
  }

  /** Of all judged to be of a class, by the places of the thresholds around it. */
  private factorOf(rank: number): (a: number, b: number) => number {
    const here = this.below.filter((m) => m.rank === rank).map((m) => m.phi);
    return (a, b) => {
      let p = 1;
      for (const phi of here) p *= (phi[b] ?? Number.NaN) - (phi[a] ?? Number.NaN);
      return p;
    };
  }

  private product(rank: number, of: (phi: number[]) => number): number {
    return this.below.reduce((p, m) => (m.rank === rank ? p * of(m.phi) : p), 1);
  }
}
