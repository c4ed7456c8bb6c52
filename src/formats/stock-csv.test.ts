import { describe, expect, it } from "vitest";
import { parseStockCsv, stockCsv } from "./stock-csv";
import { STOCK_FORMAT, STOCK_VERSION, type StockDocument } from "./stock-document";

const value = (id: string, label: string, v: number, unit: "mmPerS" | "percent" | "mm") => ({
  id,
  label,
  unit,
  quantity: { value: v, standardUncertainty: v / 20, degreesOfFreedom: "infinite" as const },
});

const CARDS: StockDocument = {
  format: STOCK_FORMAT,
  version: STOCK_VERSION,
  cards: [
    {
      name: "Slate 8 mm",
      nominalMm: 8,
      mostJPerMm2: 4.5,
      note: "",
      batches: [
        {
          label: "A",
          begun: "2026-10-01T08:00:00.000Z",
          thickness: [],
          results: [
            {
              kept: "2026-10-02T08:00:00.000Z",
              machine: "Alder",
              note: "",
              result: {
                kind: "marking",
                stock: "imported",
                purpose: "Engrave dark",
                values: [
                  value("speedMmPerS", "Speed", 120, "mmPerS"),
                  value("powerPct", "Power", 0.35, "percent"),
                  value("rowPitchMm", "Row pitch", 0.1, "mm"),
                ],
                conditions: [
                  { label: "Purpose", text: "Engrave dark" },
                  { label: "Energy per area", text: "1.2 J/mm²" },
                ],
                arithmetic: [],
              },
            },
          ],
        },
      ],
    },
  ],
};

describe("cards of stock as a table", () => {
  it("have marking settings with their units, and come back the same", () => {
    const text = stockCsv(CARDS);
    expect(text).toMatch(/marking: speedMmPerS,Speed,120,6,infinite,mmPerS/);
    expect(parseStockCsv(text)).toEqual({ ok: true, value: CARDS });
  });

  it("are refused with a unit that there is not, at its line", () => {
    const read = parseStockCsv(stockCsv(CARDS).replace("mmPerS,", "knots,"));
    expect(read).toMatchObject({ ok: false, line: 4, message: expect.stringMatching(/“knots” is not a unit/) });
  });
});
