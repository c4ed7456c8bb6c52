/** SciPy beside our own map of the plane, on the same dots. The lines are left out if Python on this machine has no SciPy. */
import { execFileSync } from "node:child_process";
import { z } from "zod";
import { fitPlaneMap, type MeasuredPoint, mapPoint, unmapPoint } from "../../src/core/fitting/plane-map";
import { seeded } from "../../src/practice/random";
import { below, type Line } from "./line";

const [ACROSS, HALF, DEGREE, INVERTED] = [25, 55, 5, 500];

const resultSchema = z.object({
  version: z.string(),
  fitMs: z.number(),
  x: z.array(z.number()),
  inverseMs: z.number(),
  at: z.array(z.tuple([z.number(), z.number()])),
});

/** Least squares by scipy.linalg.lstsq, median of 9; inverse of some points by scipy.optimize.root (hybr, with the slopes). */
const PROGRAM = `
import json, sys, time
import numpy as np, scipy
from scipy.linalg import lstsq
from scipy.optimize import root
given = json.load(sys.stdin)
half, degree = given["half"], given["degree"]
powers = [(d - q, q) for d in range(degree + 1) for q in range(d + 1)]
p = np.array(given["points"])
def terms(u, v): return np.stack([u**a * v**b for a, b in powers], axis=-1)
times = []
for _ in range(9):
    began = time.perf_counter()
    a = terms(p[:, 0] / half, p[:, 1] / half)
    c = lstsq(a, p[:, 2:])[0]
    times.append(time.perf_counter() - began)
def residual(w, to): return terms(w[0], w[1]) @ c - to
def slopes(w, to):
    u, v = w
    du = np.array([a * u**max(a - 1, 0) * v**b if a else 0.0 for a, b in powers])
    dv = np.array([b * u**a * v**max(b - 1, 0) if b else 0.0 for a, b in powers])
    return np.stack([du @ c, dv @ c], axis=-1)
began = time.perf_counter()
at = [(half * root(residual, np.array(t) / half, args=(np.array(t),), jac=slopes, tol=1e-12).x).tolist() for t in given["inverted"]]
inverse = time.perf_counter() - began
print(json.dumps({"version": scipy.__version__, "fitMs": 1000 * sorted(times)[4], "x": c[:, 0].tolist(), "inverseMs": 1000 * inverse, "at": at}))
`;

export function besideSciPy(): Line[] {
  const random = seeded(11);
  const points = Array.from({ length: ACROSS ** 2 }, (_, i): MeasuredPoint => {
    const [u, v] = [(i % ACROSS) / 12 - 1, Math.floor(i / ACROSS) / 12 - 1];
    const noise = () => 0.002 * random.normal();
    return {
      from: { x: HALF * u, y: HALF * v },
      to: {
        x: HALF * u + 0.4 * u + 1.1 * u * v * v + 0.05 * u ** 5 + noise(),
        y: HALF * v - 2.1 * v * u * u + 0.2 * u * v + noise(),
      },
    };
  });
  const inverted = Array.from({ length: INVERTED }, () => [random.between(-50, 50), random.between(-50, 50)] as const);
  const theirs = askSciPy({
    half: HALF,
    degree: DEGREE,
    points: points.map(({ from, to }) => [from.x, from.y, to.x, to.y]),
    inverted,
  });
  if (!theirs) return [];
  const spent: number[] = [];
  let fit = fitPlaneMap(points, DEGREE, HALF);
  for (let k = 0; k < 9; k++) {
    const began = performance.now();
    fit = fitPlaneMap(points, DEGREE, HALF);
    spent.push(performance.now() - began);
  }
  if (!fit) throw new Error("the map is not fitted");
  const { map } = fit;
  const began = performance.now();
  const found = inverted.map(([x, y]) => unmapPoint(map, { x, y }));
  const inverseMs = performance.now() - began;
  const apart = Math.max(...map.x.map((c, j) => Math.abs(c - (theirs.x[j] ?? Number.NaN))));
  const missed = Math.max(
    ...found.map((p, i) => {
      const [x, y] = theirs.at[i] ?? [Number.NaN, Number.NaN];
      const [ours, other] = [mapPoint(map, p ?? { x: Number.NaN, y: 0 }), mapPoint(map, { x, y })];
      return Math.hypot(ours.x - other.x, ours.y - other.y);
    }),
  );
  const name = `SciPy ${theirs.version}`;
  const median = spent.sort((a, b) => a - b)[4] ?? Number.NaN;
  return [
    {
      what: `map of degree 5 through 625 dots (noise 2 um): largest difference of a coefficient from linalg.lstsq of ${name}`,
      ...below(apart * 1e6, 0.001, "nm"),
    },
    { what: `the same: time as a share of that of ${name}, warm`, ...below(median / theirs.fitMs, 10, "times") },
    {
      what: `inverse of that map at 500 points: largest difference from optimize.root of ${name}`,
      ...below(missed * 1e6, 1, "nm"),
    },
    { what: `the same: time as a share of that of ${name}`, ...below(inverseMs / theirs.inverseMs, 1, "times") },
  ];
}

function askSciPy(given: object): z.infer<typeof resultSchema> | null {
  try {
    execFileSync("python3", ["-c", "import scipy"], { stdio: "ignore" });
  } catch {
    return null;
  }
  const said = execFileSync("python3", ["-c", PROGRAM], {
    input: JSON.stringify(given),
    encoding: "utf8",
    env: { ...process.env, OMP_NUM_THREADS: "1", OPENBLAS_NUM_THREADS: "1" },
  });
  return resultSchema.parse(JSON.parse(said));
}
