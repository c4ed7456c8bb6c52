import { describe, expect, it } from "vitest";
import { type RampTrial, rampTrial } from "./ramp-accuracy";

const trials = (texts: Record<string, string>) =>
  Array.from({ length: 16 }, (_, i) => rampTrial(i + 1, texts)).filter((t): t is RampTrial => t !== null);

describe("ramps on practice machines, from the first burn to the verdict", () => {
  it.each([["power", {}] as const, ["speed", { varied: "speedMmPerS" }] as const])(
    "%s: the value lacks at most 5 %% of the best of the strip in nine of ten, in two burns as a rule",
    (_, texts) => {
      const all = trials(texts);
      expect(all.length).toBeGreaterThan(12);
      const lacks = all.flatMap((t) => t.lacks ?? []);
      expect(lacks.filter((lack) => lack <= 0.05).length / lacks.length).toBeGreaterThanOrEqual(0.9);
      expect(all.filter((t) => t.burns === 2).length / all.length).toBeGreaterThan(0.7);
      expect(all.filter((t) => t.result === "not proved").length).toBeLessThan(3);
      expect(all.filter((t) => t.result === "proved").length / all.length).toBeGreaterThan(0.6);
    },
  );
});
