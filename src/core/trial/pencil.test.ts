import { describe, expect, it } from "vitest";
import { madeUp } from "../../testing/made-up/procedure";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { scanOffset } from "../procedures/scan-offset/procedure";
import { type PencilField, pencilFields } from "./pencil";

const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
const asks = new Map(madeUp.round({ sizeMm: 20 }, context, "measure").sites.map((s) => [s.ask.kind, s.ask]));
const fieldsOf = (kind: string, repeats = 1, unit: "mm" | "in" | "thou" = "mm"): PencilField[] => {
  const ask = asks.get(kind as never);
  if (!ask) throw new Error(`no ask ${kind}`);
  return pencilFields(ask, repeats, unit);
};
const boxes = (fields: readonly PencilField[]) =>
  fields.flatMap((f) => (f.kind === "box" ? [`${f.label}|${f.unit}`] : []));
const ticks = (fields: readonly PencilField[]) => fields.flatMap((f) => (f.kind === "ticks" ? f.options : []));

describe("room for pencil readings", () => {
  it("is a box a reading, with the unit once behind the last", () => {
    expect(boxes(fieldsOf("quantity"))).toEqual(["|mm"]);
    expect(boxes(fieldsOf("quantity", 3))).toEqual(["1|", "2|", "3|mm"]);
    expect(boxes(fieldsOf("quantity", 2, "in"))).toEqual(["1|", "2|in"]);
  });

  it("is words to tick where words choose the sign, in the order in which they are asked", () => {
    const sites = scanOffset.round(scanOffset.plan(context).defaults, context, "measure").sites;
    const right = sites.find((s) => s.id === "v300-right");
    if (!right) throw new Error("no site");
    const fields = pencilFields(right.ask, right.repeats, "mm");
    expect(ticks(fields)).toEqual(["right-going stand out", "left-going stand out"]);
    expect(boxes(fields)).toHaveLength(right.repeats);
  });

  it.each([
    ["count", ["0 to 4|"], []],
    ["ordinal", [], ["faint", "clear", "burnt"]],
    ["choice", [], ["lower left", "upper right"]],
    ["cells", [], ["A", "B", "C", "D"]],
    ["pair", ["tongue|", "slot|mm"], []],
    ["points", ["1: X|", "1: Y|", "2: X|", "2: Y|mm"], []],
    ["vector", ["X|", "Y|mm"], []],
  ])("suits a %s", (kind, wantedBoxes, wantedTicks) => {
    expect(boxes(fieldsOf(kind))).toEqual(wantedBoxes);
    expect(ticks(fieldsOf(kind))).toEqual(wantedTicks);
  });

  it("says how cells are chosen, for every way there is", () => {
    const cells = asks.get("cells");
    if (cells?.kind !== "cells") throw new Error("no cells");
    const words = (["one", "range", "tied", "rank"] as const).map((mode) => {
      const [field] = pencilFields({ ...cells, mode }, 1, "mm");
      return field?.kind === "ticks" ? field.question : "";
    });
    expect(new Set(words).size).toBe(4);
    expect(words.every((w) => w.length > 3)).toBe(true);
  });

  it("keeps the usual unit of what is no length", () => {
    expect(boxes(pencilFields({ kind: "vector", dimension: "angle" }, 1, "in"))).toEqual(["X|", "Y|°"]);
    expect(boxes(pencilFields({ kind: "vector", dimension: "length" }, 1, "thou"))).toEqual(["X|", "Y|thou"]);
  });
});
