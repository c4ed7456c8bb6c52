import { describe, expect, it } from "vitest";
import type { PlaneMap } from "../../fitting/plane-map";
import { type FieldTable, fieldTableSchema, NO_FIELD_TABLE } from "../../settings/field-table";
import { betweenNodes, commanded, isMeasured, tableAfter, tableNodes } from "./table";

/** x' = 1.01 x + 0.2 u v^2, y' = y - 0.3 v u^2, u = x/50, v = y/50. */
const BOWED: PlaneMap = {
  degree: 3,
  half: 50,
  x: [0, 50.5, 0, 0, 0, 0, 0, 0, 0.2, 0],
  y: [0, 0, 50, 0, 0, 0, 0, -0.3, 0, 0],
};
const SHIFTED: PlaneMap = { degree: 1, half: 50, x: [0.4, 50, 0], y: [0, 0, 50] };

const mapped = (map: PlaneMap, at: { x: number; y: number }) => {
  const [u, v] = [at.x / map.half, at.y / map.half];
  const terms = [1, u, v, u * u, u * v, v * v, u ** 3, u * u * v, u * v * v, v ** 3].slice(0, map.x.length);
  const sum = (c: readonly number[]) => terms.reduce((s, t, i) => s + t * (c[i] ?? 0), 0);
  return { x: sum(map.x), y: sum(map.y) };
};

describe("a table", () => {
  it("sends the mirrors to where the marks then lie as drawn", () => {
    const table = tableAfter(NO_FIELD_TABLE, BOWED, 47);
    for (const w of [
      { x: 40, y: 30 },
      { x: -46, y: 46 },
      { x: 0, y: 0 },
    ]) {
      const to = commanded(table, w);
      const lies = mapped(BOWED, to);
      expect(lies.x).toBeCloseTo(w.x, 9);
      expect(lies.y).toBeCloseTo(w.y, 9);
    }
  });

  it("composes with the one before: c'(w) = c(f^-1(w)), the newest burn undone first", () => {
    const before = tableAfter(NO_FIELD_TABLE, BOWED, 47);
    // Under that table a burn showed everything 0.4 mm to the right.
    const after = tableAfter(before, SHIFTED, 47);
    const w = { x: 20, y: 10 };
    expect(commanded(after, w)).toEqual(commanded(before, { x: 19.6, y: 10 }));
    // The other way round is another place.
    const other: FieldTable = { ...after, undone: after.undone.toReversed() };
    expect(Math.hypot(commanded(other, w).x - commanded(after, w).x, 0)).toBeGreaterThan(1e-4);
  });

  it("keeps the shift of the nearest measured point farther out, and says where that is", () => {
    const table = tableAfter(NO_FIELD_TABLE, BOWED, 47);
    const [edge, beyond] = [commanded(table, { x: 47, y: 10 }), commanded(table, { x: 60, y: 10 })];
    expect(beyond.x - 60).toBeCloseTo(edge.x - 47, 12);
    expect(beyond.y - 10).toBeCloseTo(edge.y - 10, 12);
    expect(isMeasured(table, { x: 40, y: 10 })).toBe(true);
    expect(isMeasured(table, { x: 48, y: 10 })).toBe(false);
    expect(isMeasured(NO_FIELD_TABLE, { x: 400, y: 0 })).toBe(true);
  });

  it("puts coefficients that it replaces on top", () => {
    const table: FieldTable = { ...tableAfter(NO_FIELD_TABLE, SHIFTED, 47), form: { halfMm: 50, mm: { "bow x": 2 } } };
    // x' = x + 2 u v^2, of the point 0.4 mm to the left
    expect(commanded(table, { x: 25.4, y: 25 }).x).toBeCloseTo(25 + 2 * 0.5 * 0.25, 9);
  });

  it("has nodes in rows from the front left, and is nearly the same between them", () => {
    const table = tableAfter(NO_FIELD_TABLE, BOWED, 47);
    const nodes = tableNodes(table, 65, 100);
    expect(nodes).toHaveLength(65 * 65);
    expect(nodes[1]).toMatchObject({ x: -50 + 100 / 64, y: -50, outside: true });
    const at = { x: 20.3, y: -31.7 };
    const [between, exact] = [betweenNodes(table, 65, 100, at), commanded(table, at)];
    expect(between.x).toBeCloseTo(exact.x, 4);
    expect(between.y).toBeCloseTo(exact.y, 4);
    expect(Math.abs(between.x - exact.x)).toBeGreaterThan(0);
  });

  it("is right between the last node among the dots and the first one beyond them", () => {
    const table = tableAfter(NO_FIELD_TABLE, { ...BOWED, x: BOWED.x.map((c, j) => (j === 8 ? 3 : c)) }, 47);
    // Nodes lie at 46.875 and 48.4375.
    for (const at of [
      { x: 46.99, y: 46.99 },
      { x: -46.99, y: 46 },
    ]) {
      const [between, exact] = [betweenNodes(table, 65, 100, at), commanded(table, at)];
      expect(Math.hypot(between.x - exact.x, between.y - exact.y)).toBeLessThan(5e-4);
    }
    // Farther out than one step the shift stays.
    const wide = tableNodes(table, 65, 200);
    const [last, outermost] = [wide[32 * 65 + 63], wide[32 * 65 + 64]];
    expect(outermost?.outside).toBe(true);
    expect(outermost?.dx).toBeCloseTo(last?.dx ?? 0, 12);
  });

  it("is not accepted where its map cannot be inverted", () => {
    const folded = { ...BOWED, x: BOWED.x.map((c, j) => (j === 3 ? 40 : c)) };
    const reason = (map: PlaneMap) =>
      fieldTableSchema.safeParse(tableAfter(NO_FIELD_TABLE, map, 47)).error?.issues.map((i) => i.message);
    expect(reason(BOWED)).toBeUndefined();
    expect(reason(folded)).toEqual(["This map cannot be inverted."]);
    // Two coefficients too few
    expect(reason({ ...BOWED, y: BOWED.y.slice(0, -2) })).toEqual(["This map cannot be inverted."]);
    expect(() => commanded(tableAfter(NO_FIELD_TABLE, folded, 47), { x: -46, y: 0 })).toThrow(/cannot be inverted/);
  });
});
