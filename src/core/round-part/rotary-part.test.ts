/** Sums by hand; the taper against a sector of paper as anybody can cut it. (common practice, no source) */
import { describe, expect, it } from "vitest";
import { bentPath } from "../geometry/bent-path";
import { artworkFactor, circumferenceMm, partSteps, wrapsOf } from "./round-part";
import { diameterAt, flatFrom, type Lay, type Level, sentFrom, sideAngleRad, slantMm, travelAtEnds } from "./taper";

describe("a round part", () => {
  it("is pi d around; a neck multiplies artwork by what it rests on over what is marked", () => {
    expect(circumferenceMm(60)).toBeCloseTo(188.496, 3);
    expect(artworkFactor({ markedMm: 40, turnsByMm: 80 })).toBe(2);
  });

  it("goes a step of the roller, more of it on a thicker place, at most as fast as the driver steps", () => {
    const drive = { stepsPerRevolution: 6400, rollerDiameterMm: 20, mostStepsPerS: 20_000 };
    const same = partSteps({ drive: "roller", markedMm: 60, turnsByMm: 60 }, drive);
    expect(same?.stepMm).toBeCloseTo(0.0098175, 7);
    expect(same?.perTurn).toBeCloseTo(6400 * 3, 6);
    expect(same?.topSpeedMmPerS).toBeCloseTo(196.35, 2);
    const neck = partSteps({ drive: "roller", markedMm: 30, turnsByMm: 60 }, drive);
    expect(neck?.stepMm).toBeCloseTo(0.0098175 / 2, 7);
    expect(
      partSteps({ drive: "roller", markedMm: 30, turnsByMm: 60 }, { ...drive, rollerDiameterMm: null }),
    ).toBeNull();
    const chuck = { stepsPerRevolution: 6400, rollerDiameterMm: null, mostStepsPerS: null };
    const turned = partSteps({ drive: "chuck", markedMm: 64, turnsByMm: 64 }, chuck);
    expect(turned?.perTurn).toBeCloseTo(6400, 9);
    expect(turned?.topSpeedMmPerS).toBeNull();
  });

  it("says whether a drawing meets itself", () => {
    expect(wrapsOf(188.5, 60)).toEqual({ kind: "once" });
    expect(wrapsOf(180, 60)).toMatchObject({ kind: "gap" });
    const over = wrapsOf(400, 60);
    expect(over.kind === "overlap" && [over.mm, over.turns]).toEqual([
      expect.closeTo(400 - 188.4956, 3),
      expect.closeTo(400 / 188.4956, 4),
    ]);
  });
});

describe("a tapered part", () => {
  const taper = { firstMm: 60, lastMm: 80, lengthMm: 75 };

  it("has a side, an angle, and travels by its diameter", () => {
    expect(slantMm(taper)).toBeCloseTo(Math.hypot(75, 10), 12);
    expect(sideAngleRad(taper)).toBeCloseTo(Math.atan(10 / 75), 12);
    expect(diameterAt(taper, slantMm(taper))).toBeCloseTo(80, 12);
    expect(travelAtEnds({ ...taper, turnsByMm: 80 })).toEqual([0.75, 1]);
  });

  it.each(
    (["label", "rim"] as const).flatMap((lay) =>
      (["side", "axis"] as const).flatMap((level) =>
        [taper, { firstMm: 80, lastMm: 60, lengthMm: 75 }, { firstMm: 70, lastMm: 70, lengthMm: 75 }].map(
          (t) => [lay, level, t] as [Lay, Level, typeof taper],
        ),
      ),
    ),
  )("is sent and found again: %s, %s level, %o", (lay, level, t) => {
    const setup = { ...t, lay, level, turnsByMm: 66 };
    for (const flat of [
      { u: 0, v: 0 },
      { u: 30, v: 50 },
      { u: 60, v: -70 },
    ]) {
      const back = flatFrom(setup, sentFrom(setup, flat));
      expect(back.u).toBeCloseTo(flat.u, 9);
      expect(back.v).toBeCloseTo(flat.v, 9);
    }
  });

  it("unrolls like paper: the first rim is an arc of its own radius around the tip", () => {
    const setup = { ...taper, lay: "label" as const, level: "side" as const, turnsByMm: 60 };
    const tip = (slantMm(taper) * 60) / 20;
    const half = (Math.PI * 60) / 2 / tip;
    // Half a turn of the first rim, where it lies on the flat sector.
    const sent = sentFrom(setup, { u: tip * Math.cos(half) - tip, v: tip * Math.sin(half) });
    expect(sent.along).toBeCloseTo(0, 9);
    expect(sent.around).toBeCloseTo((Math.PI * 60) / 2, 9);
  });

  it("is a tube where both ends are alike", () => {
    const tube = {
      firstMm: 50,
      lastMm: 50,
      lengthMm: 80,
      lay: "label" as const,
      level: "axis" as const,
      turnsByMm: 50,
    };
    expect(sentFrom(tube, { u: 12, v: 34 })).toEqual({ along: 12, around: 34 });
  });
});

describe("a bent path", () => {
  it("keeps its ends, and no chord strays from the curve", () => {
    const bend = ({ x }: { x: number; y: number }) => ({ x, y: 10 * Math.sin(x / 10) });
    const out = bentPath(
      [
        { x: 0, y: 0 },
        { x: 100, y: 0 },
      ],
      bend,
      0.01,
    );
    expect(out[0]).toEqual({ x: 0, y: 0 });
    expect(out.at(-1)?.x).toBe(100);
    for (let i = 1; i < out.length; i++) {
      const [a, b] = [out[i - 1] as { x: number; y: number }, out[i] as { x: number; y: number }];
      const middle = (a.x + b.x) / 2;
      expect(Math.abs(bend({ x: middle, y: 0 }).y - (a.y + b.y) / 2)).toBeLessThan(0.015);
    }
  });

  it("leaves alone what does not bend", () => {
    const points = [
      { x: 0, y: 0 },
      { x: 5, y: 5 },
    ];
    expect(bentPath(points, (p) => p, 0.01)).toEqual(points);
  });
});
