import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { counted, zeroText } from "./counted";

const bed = (x: "to the right" | "to the left" | "not known", y: "away" | "toward you" | "not known") => ({
  ...SAMPLE_MACHINE,
  axes: { home: "not known" as const, x, y },
});

describe("places as a machine counts them", () => {
  it("lie as far from the other side where an axis counts up the other way", () => {
    const p = { x: 100, y: 50 };
    expect(counted(p, bed("to the right", "away"))).toEqual(p);
    expect(counted(p, bed("not known", "not known"))).toEqual(p);
    expect(counted(p, bed("to the left", "away"))).toEqual({ x: 800, y: 50 });
    expect(counted(p, bed("to the right", "toward you"))).toEqual({ x: 100, y: 550 });
    expect(counted(counted(p, bed("to the left", "toward you")), bed("to the left", "toward you"))).toEqual(p);
  });

  it("are said where they are not as everybody expects", () => {
    expect(zeroText(bed("to the right", "away"))).toBe("");
    expect(zeroText(bed("to the left", "toward you"))).toBe("X0 at the right, Y0 at the back");
  });
});
