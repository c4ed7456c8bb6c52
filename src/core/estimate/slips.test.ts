import { describe, expect, test } from "vitest";
import { reading } from "../../testing/short-model";
import { allowed, likelihoodOf, undone } from "./likelihood";
import { departure, known, type Model, type Observation, usual } from "./model";
import { slipsIn } from "./slips";

/** Five points on a line through 0, two readings each, with a scatter of a few hundredths. */
const SCATTER = [0.012, -0.008, 0.005, 0.011, -0.014, 0.003, -0.006, 0.009, -0.011, 0.004];

function ladder(change: (index: number, y: number) => number = (_, y) => y): Model {
  const observations = SCATTER.map((off, i): Observation => {
    const x = 20 * (Math.floor(i / 2) + 1);
    const typed = change(i, 0.004 * x + off);
    const plain = reading(`tick ${x / 20}, reading ${(i % 2) + 1}`, {
      row: { slope: x, [`stray ${x}`]: 1 },
      y: typed,
      u: 0.01,
      point: `tick ${x / 20}`,
      typed,
    });
    return plain;
  });
  return {
    observations: [
      ...observations,
      usual("slope", "usual slope", 0.005),
      ...[20, 40, 60, 80, 100].map((x) => departure(`stray ${x}`, "straightness", 0.005)),
    ],
    groups: [{ id: "gauge", priorFreedom: 8, leastFactor: 0.3 }],
    wanted: [{ id: "slope", label: "the slope", row: { slope: 1 } }],
  };
}

const firstOf = (model: Model) => slipsIn(model).slips[0];
const at = (index: number, to: (y: number) => number) => (i: number, y: number) => (i === index ? to(y) : y);

describe("a slip is named", () => {
  test("none in clean readings", () => {
    expect(slipsIn(ladder())).toMatchObject({ slips: [], isLoose: false });
  });

  test.each([
    ["the sign of one reading", at(7, (y) => -y), /^The tick 4, reading 2 has the opposite sign/],
    ["ten times too large", at(7, (y) => 10 * y), /reading 2 looks 10 times too large/],
    ["ten times too small", at(9, (y) => y / 10), /tick 5, reading 2 looks 10 times too small/],
    ["inches for mm", at(8, (y) => y / 25.4), /tick 5, reading 1 looks like inches/],
    ["an error of unknown size", at(4, (y) => y + 0.15), /tick 3, reading 1 contradicts/],
  ] as const)("%s", (_, change, headline) => {
    expect(firstOf(ladder(change))?.headline).toMatch(headline);
  });

  test("what it added is told: the sign turned adds twice the reading", () => {
    const slip = firstOf(ladder(at(7, (y) => -y)));
    expect(slip?.added.get("tick 4, reading 2")).toBeCloseTo(-2 * (0.32 + 0.009), 9);
    const off = firstOf(ladder(at(4, (y) => y + 0.15)));
    expect(off?.added.get("tick 3, reading 1")).toBeCloseTo(0.15, 1);
  });

  test("its gain is its fit, less what it costs beforehand: share by kind and instance, and the factor", () => {
    const slip = firstOf(ladder(at(7, (y) => 10 * y)));
    // Kinds that these readings can have: 4 + 2 + 2 + 1 + 0.5 + 0.3 + 2; two tenfold slips a reading.
    const share = (0.05 * 1) / 11.8 / 20 / 0.95;
    expect(slip?.gain).toBeCloseTo((slip?.fit ?? Number.NaN) + 2 * Math.log(0.1) + 2 * Math.log(share), 9);
  });

  test("two points that were swapped", () => {
    const swapped = (i: number, y: number) => (i === 2 || i === 3 ? y + 0.16 : i === 6 || i === 7 ? y - 0.16 : y);
    const slip = firstOf(ladder(swapped));
    expect(slip?.kind).toBe("swapped points");
    expect(slip?.headline).toBe("The tick 2 and the tick 4 look swapped.");
  });

  test("what is known beforehand", () => {
    const model = ladder();
    const stepped: Model = {
      ...model,
      observations: [
        ...model.observations,
        ...[0.36, 0.37, 0.35].map((y, i) =>
          reading(`step ${i}`, { row: { step: 1 }, y, u: 0.01, point: "step", typed: y }),
        ),
        known("step", "size of the reference step", { value: 0.3, u: 0.002, wrongBy: 0.1 }),
      ],
    };
    const { slips } = slipsIn(stepped);
    expect(slips.map((s) => s.headline)).toContain("The readings contradict the size of the reference step.");
    // The step misread as a whole is as likely: both are named, and no single reading is.
    expect(slips.map((s) => s.kind).sort()).toEqual(["known", "point"]);
  });

  test("a machine that does not keep its law is none", () => {
    const bent = (i: number, y: number) => y + 0.25 * ((Math.floor(i / 2) + 1) / 5) ** 2 - 0.1 * (i % 4 > 1 ? 1 : 0);
    expect(slipsIn(ladder(bent))).toMatchObject({ slips: [], isLoose: true });
  });
});

describe("the law that is taken", () => {
  /** The same ladder, of which some machines keep the law only nearly. */
  const nearly = (change?: (i: number, y: number) => number): Model => {
    const model = ladder(change);
    return {
      ...model,
      observations: model.observations.map((o) => (o.isDeparture ? { ...o, u: 0.001, gently: 0.03 } : o)),
    };
  };
  const BENT = [0.03, -0.03, -0.045, -0.03, 0.03];
  const LOOSE = [0.3, -0.4, 0.5, -0.45, 0.2];
  const departures = ({ model }: ReturnType<typeof slipsIn>) =>
    model.observations.filter((o) => o.isDeparture).map((o) => o.u);

  test("is that of a sound machine where the readings keep to it", () => {
    const sound = slipsIn(nearly());
    expect(departures(sound)).toEqual([0.001, 0.001, 0.001, 0.001, 0.001]);
    expect(sound.isLoose).toBe(false);
  });

  test("is that of one that keeps it nearly where they stand off together, and nothing is accused", () => {
    const bent = slipsIn(nearly((i, y) => y + (BENT[Math.floor(i / 2)] ?? 0)));
    expect(departures(bent)).toEqual([0.03, 0.03, 0.03, 0.03, 0.03]);
    expect(bent).toMatchObject({ slips: [], isLoose: false });
  });

  test("is none where they stand off ten times as far", () => {
    const loose = slipsIn(nearly((i, y) => y + (LOOSE[Math.floor(i / 2)] ?? 0)));
    expect(departures(loose)[0]).toBeCloseTo(0.3, 12);
    expect(loose).toMatchObject({ slips: [], isLoose: true });
  });
});

describe("the likelihood", () => {
  const model = ladder(at(4, (y) => y + 0.15));
  const likelihood = likelihoodOf(model);
  if (!likelihood) throw new Error("not solved");

  test("of a shift of unknown size is that of the same model with the shift as a parameter", () => {
    const R = 0.7;
    const [first, second] = [4, 5].map((i) => (model.observations[i] as Observation).id);
    const open: Model = {
      ...model,
      observations: [
        ...model.observations.map((o) =>
          o.id === first || o.id === second ? { ...o, row: { ...o.row, shift: o.id === first ? 1 : -2 } } : o,
        ),
        known("shift", "shift", { u: R }),
      ],
    };
    const whole = likelihoodOf(open)?.asRead ?? Number.NaN;
    const direction = [
      { index: 4, by: 1 },
      { index: 5, by: -2 },
    ];
    expect(allowed(likelihood, direction, R).score).toBeCloseTo(whole, 8);
  });

  test("with a shift that is left open is that without what the shift takes up: one reading that nothing checks is free", () => {
    const direction = [{ index: 4, by: 2 }];
    const { open, size, score } = allowed(likelihood, direction, 0.7);
    const without = likelihoodOf({ ...model, observations: model.observations.filter((_, i) => i !== 4) });
    // Leaving a reading out and letting it be anything are one, but for the density of that reading: ln u, at each factor.
    const u = model.observations[4]?.u ?? Number.NaN;
    const { factors } = likelihood;
    expect(factors.length).toBeGreaterThan(1);
    expect(open - (without?.asRead ?? Number.NaN)).toBeGreaterThan(2 * Math.log(u) - 3);
    expect(open - (without?.asRead ?? Number.NaN)).toBeLessThan(2 * Math.log(u) + 3);
    expect(2 * size).toBeCloseTo(0.15, 1);
    expect(score).toBeGreaterThan(open);
  });

  test("of one reading of a known length is summed over the factors of its scatter, by hand", () => {
    const [y, u, knownU, freedom] = [0.03, 0.01, 0.02, 8];
    const one: Model = {
      observations: [reading("only", { row: { a: 1 }, y, u }), known("a", "length", { u: knownU })],
      groups: [{ id: "gauge", priorFreedom: freedom, leastFactor: 0 }],
      wanted: [],
    };
    const terms = Array.from({ length: 13 }, (_, k) => {
      const phi = 0.15 * 80 ** (k / 12);
      const variance = phi * u ** 2 + knownU ** 2;
      return Math.exp(-0.5 * (Math.log(variance) + y ** 2 / variance + freedom * Math.log(phi) + freedom / phi));
    });
    const mean = terms.reduce((sum, t) => sum + t, 0) / terms.length;
    expect(likelihoodOf(one)?.asRead).toBeCloseTo(-2 * Math.log(mean), 9);
  });

  test("of readings with a change undone is that of the readings without it", () => {
    const change = [
      { index: 4, by: 0.15 },
      { index: 9, by: -0.02 },
    ];
    const mended = ladder((i, y) => (i === 9 ? y + 0.02 : y));
    expect(undone(likelihood, change)).toBeCloseTo(likelihoodOf(mended)?.asRead ?? Number.NaN, 8);
  });
});
