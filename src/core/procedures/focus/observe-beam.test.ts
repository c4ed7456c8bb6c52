import { describe, expect, it } from "vitest";
import { type Beam, beamAround, beamSlopes, beamWidth } from "../../beam/beam-widths";
import { examine } from "../../estimate/examination";
import { usualGauge } from "../../metrology/gauge";
import { PLAIN_SHARES } from "../../trial/answer";
import { beamModel } from "./observe-beam";

const BEAM: Beam = { z0: 41.3, zR: 1.975844, d0: 0.2 };
const HEIGHTS = Array.from({ length: 13 }, (_, i) => 38 + 0.5 * i);
const GAUGE = {
  id: "microscope",
  name: "Microscope",
  kind: "microscope" as const,
  unit: "mm" as const,
  ...usualGauge("microscope", "mm"),
};

/** Widths of the beam, a little off, and one of them as it was typed. */
function widths(typed: Record<number, number> = {}) {
  return HEIGHTS.map((zMm, i) => {
    const widthMm = typed[i] ?? beamWidth(zMm, BEAM) * (1 + 0.01 * Math.sin(7 * i));
    return { zMm, widthMm, u: Math.hypot(0.002, 0.03 * widthMm) };
  });
}

function model(read: ReturnType<typeof widths>) {
  const readings = read.map(({ zMm, widthMm }, i) => ({
    id: `r${i}`,
    site: `w${i}`,
    repeat: 0,
    value: widthMm,
    gauge: GAUGE,
    session: "1",
    shares: PLAIN_SHARES,
    scatter: { id: GAUGE.id, label: GAUGE.name },
    u: 0.002,
    fromPicture: false,
    imagined: false,
    zMm,
    run: "x" as const,
  }));
  const made = beamModel({ readings, widths: read, heights: HEIGHTS, settingMm: 0.03, focusId: "focus" });
  if (!made) throw new Error("no model");
  return made;
}

describe("widths of the beam one by one", () => {
  it("change with the beam as its law does: derivatives by differences", () => {
    const step = 1e-6;
    for (const z of [38, 40.9, 41.3, 44]) {
      const slopes = beamSlopes(z, BEAM);
      const by = (more: Partial<Beam>) => (beamWidth(z, { ...BEAM, ...more }) - beamWidth(z, BEAM)) / step;
      expect(slopes.z0).toBeCloseTo(by({ z0: BEAM.z0 + step }), 5);
      expect(slopes["ln zR"]).toBeCloseTo(by({ zR: BEAM.zR * Math.exp(step) }), 5);
      expect(slopes["ln d0"]).toBeCloseTo(by({ d0: BEAM.d0 * Math.exp(step) }), 5);
    }
  });

  it("are looked at around the beam that most of them agree on, whatever one or two say", () => {
    const slips: Record<number, number>[] = [{}, { 4: 2.03 }, { 2: 0.05, 9: 6 }];
    for (const typed of slips) {
      const around = beamAround(widths(typed));
      expect(Math.abs((around?.z0 ?? 0) - BEAM.z0)).toBeLessThan(0.2);
      expect((around?.d0 ?? 0) / BEAM.d0).toBeCloseTo(1, 1);
    }
    expect(beamAround(widths().slice(0, 4))).toBeNull();
  });

  it("name the one that was typed ten times too wide, first", () => {
    const right = beamWidth(HEIGHTS[4] ?? 0, BEAM);
    const examined = examine(model(widths({ 4: 10 * right })), new Set());
    expect(examined?.suspects).toHaveLength(1);
    expect(examined?.suspects[0]?.observations.map((o) => o.label)).toEqual([
      expect.stringContaining("the width at 40 mm"),
    ]);
    expect(examine(model(widths()), new Set())?.suspects).toEqual([]);
  });
});
