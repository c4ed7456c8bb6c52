import { describe, expect, it } from "vitest";
import { fromInternal, toInternal, UNITS, type UnitId, unitBySpelling } from "./units";

describe("units", () => {
  // NIST SP 811, 2008 edition, appendix B.8: 1 in = 25.4 mm, 1 mil = 0.0254 mm, 1 ft = 304.8 mm, all exact
  it.each([
    [1, "in", 25.4],
    [1, "thou", 0.0254],
    [1, "ft", 304.8],
    [1, "cm", 10],
    [1000, "um", 1],
    [60, "mmPerMin", 1],
    [60, "inPerMin", 25.4],
    [1e6, "us", 1],
    [1000, "ms", 1],
    [180, "deg", Math.PI],
    [100, "percent", 1],
  ] as const)("%d %s is exactly what the standard says", (value, unit, internal) =>
    expect(toInternal(value, unit)).toBeCloseTo(internal, 14),
  );

  it("come back as they went, every one", () => {
    for (const id of Object.keys(UNITS) as UnitId[])
      expect(fromInternal(toInternal(0.37, id), id)).toBeCloseTo(0.37, 12);
  });

  it("are known by every spelling of the trade, each spelling to one unit", () => {
    const all = (Object.keys(UNITS) as UnitId[]).flatMap((id) => UNITS[id].spellings.map((s) => [s, id] as const));
    for (const [spelling, id] of all) expect(unitBySpelling(spelling), spelling).toBe(id);
    expect(unitBySpelling("MM")).toBe("mm");
    expect(unitBySpelling("furlong")).toBeUndefined();
  });
});
