import { describe, expect, it } from "vitest";
import { heldThrough, isSamePart, partAt } from "./fitted-part";

const FITTINGS = [
  { kind: "optic", partId: 1, from: 100, to: 200 },
  { kind: "rotary", partId: 9, from: 120, to: null },
  { kind: "optic", partId: 2, from: 200, to: 300 },
  { kind: "optic", partId: 1, from: 300, to: null },
];

describe("the part that was fitted", () => {
  it("is known at every moment, also where there was none", () => {
    expect([50, 100, 199, 200, 299, 300, Infinity].map((at) => partAt(FITTINGS, "optic", at))).toEqual([
      ...[null, 1, 1, 2, 2, 1, 1],
    ]);
  });

  it("tells what still holds: an older time with the same lens does, a newer one with another does not", () => {
    expect(isSamePart(FITTINGS, "optic", 150, Infinity)).toBe(true);
    expect(isSamePart(FITTINGS, "optic", 250, Infinity)).toBe(false);
    expect(isSamePart(FITTINGS, "optic", 50, Infinity)).toBe(false);
  });

  it("asks for the kind of part that a setting belongs to, and for none where it is the machine's own", () => {
    const held = (owner: "machine" | "optic" | "rotary") => heldThrough({ owner }, FITTINGS, 110, Infinity);
    expect({ machine: held("machine"), optic: held("optic"), rotary: held("rotary") }).toEqual({
      machine: true,
      optic: true,
      rotary: false,
    });
  });
});
