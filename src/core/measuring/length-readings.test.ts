import { describe, expect, it } from "vitest";
import { type Gauge, gaugeAsUsual } from "../metrology/gauge";
import { type Answer, PLAIN_SHARES } from "../trial/answer";
import { leaveOut } from "../trial/decisions";
import { gaugeTerms, lengthReadings, modelOf, withoutLeftOut } from "./length-readings";

const CALIPERS: Gauge = gaugeAsUsual("calipers");
const at = (site: string, value: number, session = "1"): Answer => ({
  site,
  content: { status: "read", value: { kind: "quantity", value } },
  u: null,
  gauge: "calipers",
  session,
  shares: PLAIN_SHARES,
  from: "typed",
});
const read = (answers: readonly Answer[], decisions = {}) => lengthReadings(answers, ["a", "b"], [CALIPERS], decisions);

describe("what a gauge always reads too much", () => {
  const variances = (lengthMm: number) => {
    const readings = read([at("a", lengthMm)]);
    const terms = gaugeTerms(readings, { jawsOf: () => "outside", lengthOf: (r) => r.value });
    const [first] = readings;
    const part = (id: string) => {
      const term = terms.find((t) => t.id === id);
      return term && first ? (term.u * term.of(first)) ** 2 : Number.NaN;
    };
    return { constant: part("limit calipers"), growing: part("limit share calipers") };
  };
  /** a^2/3 for a limit of 0.02 mm. */
  const WHOLE = 0.02 ** 2 / 3;

  it("is half a constant and half a share of the length from 100 mm on", () => {
    for (const length of [100, 300]) {
      expect(variances(length).constant).toBeCloseTo(WHOLE / 2, 12);
      expect(variances(length).growing).toBeCloseTo(WHOLE / 2, 12);
    }
  });

  it("grows as the square of shorter lengths, and is never more than the limit", () => {
    expect(variances(10).growing).toBeCloseTo((WHOLE / 2) * 0.1 ** 2, 14);
    expect(variances(10).constant + variances(10).growing).toBeCloseTo(WHOLE, 12);
  });

  it("has a zero for each pair of jaws in each session", () => {
    const readings = read([at("a", 10), at("a", 10, "2"), at("b", 5)]);
    const terms = gaugeTerms(readings, {
      jawsOf: (r) => (r.site === "b" ? "inside" : "outside"),
      lengthOf: (r) => r.value,
    });
    const zeros = terms.filter((t) => t.id.startsWith("zero"));
    expect(zeros).toHaveLength(3);
    expect(zeros.map((z) => readings.map((r) => z.of(r)))).toEqual([
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ]);
    expect(zeros[0]?.u).toBeCloseTo(0.01 / Math.sqrt(12), 12);
  });
});

describe("readings as observations", () => {
  const model = modelOf(read([at("a", 10), at("a", 10.02), at("b", 5)]), {
    row: (r) => ({ [r.site]: 1 }),
    y: (r) => r.value,
    terms: [],
    facts: (r) => ({ pointLabel: `point ${r.site}`, signedByWords: false }),
    wanted: [],
  });

  it("are numbered where there are several at a point", () => {
    expect(model.observations.map((o) => o.label)).toEqual(["reading 1 of point a", "reading 2 of point a", "point b"]);
  });

  it("scatter by placing and rounding together", () => {
    expect(model.observations[0]?.u).toBeCloseTo(Math.hypot(0.02, 0.01 / Math.sqrt(12)), 12);
    expect(model.groups).toEqual([
      {
        id: "calipers",
        priorFreedom: 2,
        leastFactor: expect.closeTo(0.01 / Math.sqrt(12) / Math.hypot(0.02, 0.01 / Math.sqrt(12)), 12),
      },
    ]);
  });
});

describe("what several readings have in common", () => {
  it("adds to what a reading is made of where both are the same parameter", () => {
    const readings = read([at("a", 10), at("b", 5)]);
    const term = (share: number) => ({
      id: "scale",
      label: "scale",
      u: 0.1,
      canBeWrong: false,
      of: (r: { site: string }) => (r.site === "a" ? share : 0),
    });
    const { observations } = modelOf(readings, {
      row: (r) => ({ [r.site]: 1, scale: 0.25 }),
      y: (r) => r.value,
      terms: [term(2), { ...term(0), id: "nothing" }],
      facts: (r) => ({ pointLabel: r.site, signedByWords: false }),
      wanted: [],
    });
    expect(observations[0]?.row).toEqual({ a: 1, scale: 2.25 });
    expect(observations[1]?.row).toEqual({ b: 1, scale: 0.25 });
    expect(observations.filter((o) => o.group === null).map((o) => o.row)).toEqual([{ scale: 1 }]);
  });
});

describe("a reading that is left out", () => {
  const answers = [at("a", 10), at("a", 10), at("b", 5)];

  it("is the one that was named, also of two that are equal", () => {
    const second = read(answers)[1]?.id ?? "";
    expect(second).toBe("a (2) 1 10");
    const left = read(answers, { [leaveOut(second).key]: "yes" });
    expect(left.map((r) => r.id)).toEqual(["a 1 10", "b 1 5"]);
    expect(withoutLeftOut(answers, { [leaveOut(second).key]: "yes" })).toEqual([answers[0], answers[2]]);
    // Its twin keeps its own name.
    const first = read(answers, { [leaveOut("a 1 10").key]: "yes" });
    expect(first.map((r) => r.id)).toEqual([second, "b 1 5"]);
  });
});
