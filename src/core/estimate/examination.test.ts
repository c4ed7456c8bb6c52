import { describe, expect, test } from "vitest";
import { reading } from "../../testing/short-model";
import { combine } from "./adjustment";
import { acceptedBy, examine, seenIn } from "./examination";
import { known, type Model, usual } from "./model";

const SCATTER = [0.012, -0.008, 0.005, 0.011, -0.014, 0.003, -0.006, 0.009];

/** Two lengths, four readings each, with one zero of the jaws in both. */
function lengths(change: (index: number, y: number) => number = (_, y) => y): Model {
  return {
    observations: [
      ...SCATTER.map((off, i) => {
        const id = i < 4 ? "a" : "b";
        const y = change(i, (i < 4 ? 10 : 6) + off);
        return reading(`${id} ${i + 1}`, { row: { [id]: 1, zero: 1 }, y, u: 0.01, point: id, typed: y });
      }),
      usual("a", "usual a", 1, 10),
      usual("b", "usual b", 1, 6),
      known("zero", "zero of the jaws", { u: 0.003 }),
    ],
    groups: [{ id: "gauge", priorFreedom: 8, leastFactor: 0 }],
    wanted: [
      { id: "a", label: "a", row: { a: 1 } },
      { id: "b", label: "b", row: { b: 1 } },
    ],
  };
}

const off = (index: number, by: number) => (i: number, y: number) => (i === index ? y + by : y);

function examined(model: Model, accepted: ReadonlySet<string> = new Set()) {
  const found = examine(model, accepted);
  if (!found) throw new Error("not solved");
  return found;
}

describe("an examination", () => {
  test("of clean readings suspects none", () => {
    expect(examined(lengths()).suspects).toEqual([]);
  });

  test("names the reading that is off, and what it moves: a quarter of it where it is one of four", () => {
    const { suspects } = examined(lengths(off(2, 0.2)));
    expect(suspects).toHaveLength(1);
    expect(suspects[0]?.headline).toBe("The a 3 contradicts the others.");
    expect([...(suspects[0]?.moves.keys() ?? [])]).toEqual(["a"]);
    expect(suspects[0]?.moves.get("a")).toBeCloseTo(0.05, 2);
  });

  test("shows results as read, with the scatter that the others have", () => {
    const { adjustment } = examined(lengths(off(2, 0.2)));
    const clean = examined(lengths()).adjustment;
    const [asRead, without] = [combine(adjustment, { a: 1 }).quantity, combine(clean, { a: 1 }).quantity];
    expect(asRead.value - without.value).toBeCloseTo(0.05, 3);
    expect(asRead.standardUncertainty / without.standardUncertainty).toBeLessThan(1.15);
  });

  test("finds two slips, each by its name", () => {
    const two = (i: number, y: number) => (i === 1 ? y / 10 : i === 6 ? y + 0.3 : y);
    const headlines = examined(lengths(two)).suspects.map((s) => s.headline);
    expect(headlines).toContain("The a 2 looks 10 times too small.");
    expect(headlines).toContain("The b 7 contradicts the others.");
  });

  test("no longer suspects what was accepted, and still finds the other slip", () => {
    const two = (i: number, y: number) => (i === 1 ? y + 0.5 : i === 6 ? y + 0.3 : y);
    const first = examined(lengths(two)).suspects[0];
    if (!first) throw new Error("nothing found");
    const { suspects } = examined(lengths(two), new Set(acceptedBy(first)));
    expect(suspects.map((s) => s.headline)).toEqual(["The b 7 contradicts the others."]);
  });

  test("of few readings names no culprit, and holds back all that any of them may have moved", () => {
    const pair: Model = {
      ...lengths(),
      observations: [
        reading("first", { row: { a: 1 }, y: 10, u: 0.01, point: "a" }),
        reading("second", { row: { a: 1 }, y: 10.5, u: 0.01, point: "a" }),
      ],
      wanted: [{ id: "a", label: "a", row: { a: 1 } }],
    };
    const { suspects } = examined(pair);
    expect(suspects.map((s) => s.headline)).toEqual(["The readings contradict each other."]);
    expect(Math.abs(suspects[0]?.moves.get("a") ?? 0)).toBeCloseTo(0.25, 2);
  });
});

describe("what would have been seen", () => {
  test("of one reading in four is a quarter in the result", () => {
    const [a] = seenIn(examined(lengths()).adjustment);
    expect(a?.unchecked).toEqual([]);
    expect((a?.worst?.effect ?? 0) / (a?.worst?.smallest ?? 1)).toBeCloseTo(0.25, 2);
  });

  test("names readings that nothing checks", () => {
    const model = lengths();
    const lone = { ...model, observations: model.observations.filter((o) => !/^b [678]/.test(o.id)) };
    const seen = seenIn(examined(lone).adjustment);
    expect(seen.find((s) => s.wanted.id === "b")?.unchecked.map((u) => u.observation.id)).toEqual(["b 5"]);
    expect(seen.find((s) => s.wanted.id === "a")?.unchecked).toEqual([]);
  });

  test("names points that only their own readings check, and none that a second gauge or a law checks", () => {
    const aloneIn = (model: Model) =>
      seenIn(examined(model).adjustment).map((s) => s.alone.map((facts) => facts.point));
    expect(aloneIn(lengths())).toEqual([["a"], ["b"]]);
    const second = reading("a by rule", { row: { a: 1 }, y: 10.01, u: 0.02, point: "a" });
    const byTwo = { ...second, reading: second.reading && { ...second.reading, gauge: "rule" } };
    const model = lengths();
    expect(aloneIn({ ...model, observations: [...model.observations, byTwo] })).toEqual([[], ["b"]]);
    const scale = { ...model, observations: model.observations.map(onOneScale), wanted: [SCALE] };
    expect(aloneIn(scale)).toEqual([[]]);
  });
});

const SCALE = { id: "scale", label: "scale", row: { scale: 1 } };

/** The two lengths as ticks of one axis. */
function onOneScale(o: Model["observations"][number]): Model["observations"][number] {
  return o.reading ? { ...o, row: { scale: o.reading.point === "a" ? 10 : 6, zero: 1 } } : o;
}
