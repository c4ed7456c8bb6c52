import { describe, expect, it } from "vitest";
import { cellLayout } from "./cell-layout";

const area = (x0: number, y0: number) => ({ x0, y0, x1: x0 + 9, y1: y0 + 9 });
const cells = [1, 2, 3, 4, 5].map((n) => ({ id: `c${n}`, label: String(n) }));
const ask = { kind: "cells", mode: "range", cells } as const;

describe("keys of cells", () => {
  it("lie as the cells do on the stock, the top row first", () => {
    const areas = [area(5, 50), area(17, 50), area(29, 50), area(5, 34), area(17, 34)];
    const layout = cellLayout({ ask, measurand: { kind: "marked", cells: areas } });
    expect(layout?.columns).toBe(3);
    expect(layout?.places.map((p) => [p.column, p.row])).toEqual([
      [1, 1],
      [2, 1],
      [3, 1],
      [1, 2],
      [2, 2],
    ]);
  });

  it("have no layout where cells have no place, or one was lost", () => {
    expect(cellLayout({ ask, measurand: { kind: "height of peak", going: "up" } })).toBeNull();
    expect(cellLayout({ ask, measurand: { kind: "marked", cells: [area(5, 50)] } })).toBeNull();
    const many = Array.from({ length: 10 }, (_, i) => area(5 + 12 * i, 50));
    const wide = { ...ask, cells: many.map((_, i) => ({ id: `c${i}`, label: String(i) })) };
    expect(cellLayout({ ask: wide, measurand: { kind: "marked", cells: many } })).toBeNull();
  });
});
