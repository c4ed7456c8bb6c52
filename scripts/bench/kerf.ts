/** What is promised of kerf and of drawings adapted to it. Simulated errors stand in the module that is asked. */
import { adapt } from "../../src/artwork/adapt";
import {
  heldShare,
  KERF_SEEDS,
  kerfCases,
  meanKerf,
  rmsOf,
  snugCases,
} from "../../src/testing/rehearsal/kerf-accuracy";
import { above, below, type Line } from "./line";
import { median } from "./timing";

const FIRST_SEED = 24_000;
const STEP_MM = 0.02;
const CORNERS = 20_000;
const RUNS = 5;

export function kerf(): Line[] {
  const errors = "cut, beam not round, scale 0.1 %, play, runout, placing, step, zero, common error";
  const cases = (changes: Parameters<typeof kerfCases>[1], common: boolean) =>
    kerfCases(FIRST_SEED, changes, common, meanKerf);
  const mates = snugCases(FIRST_SEED, STEP_MM);
  const share = (what: string, changes: Parameters<typeof kerfCases>[1]): Line => ({
    what: `kerf, intervals that hold the truth, random parts: ${what}`,
    ...above(100 * heldShare(cases(changes, false)), 93, "%"),
  });
  return [
    {
      what: `kerf from part and hole, ${KERF_SEEDS} gantries and sheets (${errors})`,
      ...below(rmsOf(cases({}, true)), 0.01, "mm rms"),
    },
    { what: "kerf from a comb of 10", ...below(rmsOf(cases({ way: "comb", cuts: 10 }, true)), 0.003, "mm rms") },
    {
      what: `snug offset from mates ${STEP_MM} mm apart, as a share of the step (people differ, and scatter)`,
      ...below(rmsOf(mates.snug) / STEP_MM, 0.3333, "steps rms"),
    },
    {
      what: "kerf from the same mates, as a share of what a step changes it",
      ...below(rmsOf(mates.kerf) / (2 * STEP_MM), 0.3333, "steps rms"),
    },
    share("part and hole", {}),
    share("a comb of 10", { way: "comb" }),
    { what: "snug offset, intervals that hold the truth", ...above(100 * heldShare(mates.snug), 93, "%") },
    ...drawings(),
  ];
}

/** A wavy outline of so many corners, and one as long of straight sides for a ratio. */
function drawings(): Line[] {
  const order = { offsetMm: 0.1, chordErrorMm: 0.01, unit: null, slots: null, uncut: [], text: wavy() };
  const took = median(RUNS, () => {
    const result = adapt(order);
    if (!result.ok || !result.piece) throw new Error("the drawing of the bench cannot be adapted");
  });
  const split = median(RUNS, () => {
    const numbers = order.text.split(/[ ,"]/).map(Number);
    if (numbers.length < CORNERS) throw new Error("the drawing of the bench is too small");
  });
  return [
    { what: `a drawing of ${CORNERS} corners is read, checked and adapted`, ...below(took, 1000, "ms") },
    {
      what: "the same, as a ratio to splitting it into numbers",
      ...below(took / split, 200, "times"),
    },
  ];
}

function wavy(): string {
  const points = Array.from({ length: CORNERS }, (_, i) => {
    const [angle, r] = [(2 * Math.PI * i) / CORNERS, 300 + 4 * Math.sin((120 * Math.PI * i) / CORNERS)];
    return `${(400 + r * Math.cos(angle)).toFixed(4)},${(400 + r * Math.sin(angle)).toFixed(4)}`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="800mm" height="800mm" viewBox="0 0 800 800"><polygon points="${points.join(" ")}"/></svg>`;
}
