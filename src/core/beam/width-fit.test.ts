/** Focus from widths: exact ones, few ones, ladders that end too early, ladders that show no spot. */
import { describe, expect, it } from "vitest";
import { type DosePower, markWidth, type Spot } from "./mark-width-law";
import { fitWidths, type LadderCell, widthProblem } from "./width-fit";

const SPOT: Spot = { z0: 50.3, zR: 1.5, w0: 0.08, lnR: Math.log(6) };

function ladder(spot: Spot, p: DosePower, first: number, last: number, step = 0.5): LadderCell[] {
  return Array.from({ length: Math.round((last - first) / step) + 1 }, (_, i) => {
    const zMm = first + i * step;
    const widthMm = markWidth(zMm, spot, p);
    return widthMm > 0.02 ? { zMm, status: "marked", widthMm, u: 0.03 * widthMm + 0.002 } : { zMm, status: "unmarked" };
  });
}

describe("the derivatives of the fit", () => {
  /** Slightly off the law, so that no residual is 0; marked and unmarked cells, both directions where asked. */
  const cells = (bothWays: boolean): LadderCell[] =>
    (bothWays ? (["x", "y"] as const) : (["x"] as const)).flatMap((run) =>
      ladder(SPOT, 1, 45, 57, 1).map((c, i) => {
        const way = bothWays ? { ...c, run } : c;
        return way.status === "marked" ? { ...way, widthMm: way.widthMm * (1 + 0.04 * Math.sin(3 * i + 1)) } : way;
      }),
    );

  it.each([
    [false, false],
    [false, true],
    [true, false],
    [true, true],
  ])("are those of its residuals, both ways %s, soft %s", (bothWays, soft) => {
    const { residuals, jacobian } = widthProblem(cells(bothWays), 1, soft);
    const x = [50.1, Math.log(1.7), Math.log(0.075), Math.log(1.6), ...(bothWays ? [0.2] : [])];
    const columns = jacobian(x);
    expect(columns).toHaveLength(x.length);
    x.forEach((value, j) => {
      const h = 1e-6;
      const at = (v: number) => residuals(x.map((old, k) => (k === j ? v : old)));
      const [above, below] = [at(value + h), at(value - h)];
      above.forEach((a, i) => {
        const slope = (a - (below[i] ?? Number.NaN)) / (2 * h);
        expect(Math.abs((columns[j]?.[i] ?? Number.NaN) - slope), `parameter ${j}, residual ${i}`).toBeLessThan(
          1e-4 * Math.max(1, Math.abs(slope)),
        );
      });
    });
  });
});

describe("focus from widths", () => {
  it.each([1, 2] as const)("is found to a hundredth of a step from exact widths, p = %i", (p) => {
    const fit = fitWidths(ladder(SPOT, p, 44, 58), p);
    if (fit.status !== "solved") throw new Error(fit.reason);
    expect(Math.abs(fit.z0.value - SPOT.z0)).toBeLessThan(0.005);
    expect(fit.known?.w0.value).toBeCloseTo(SPOT.w0, 2);
    expect(fit.known?.zR.value).toBeCloseTo(SPOT.zR, 1);
    // Nothing scatters, so only the uncertainty of the gauge remains.
    expect(fit.scatter).toBeLessThan(0.2);
  });

  it("does not mind the order, nor cells that were lost", () => {
    const all = ladder(SPOT, 1, 44, 58);
    const some = all.filter((_, i) => i % 4 !== 1).reverse();
    const fit = fitWidths(some, 1);
    if (fit.status !== "solved") throw new Error(fit.reason);
    expect(fit.z0.value).toBeCloseTo(SPOT.z0, 1);
  });

  it("tells by the other assumption the same focus, with another spot", () => {
    const fit = fitWidths(ladder(SPOT, 2, 44, 58), 1);
    if (fit.status !== "solved") throw new Error(fit.reason);
    expect(Math.abs(fit.z0.value - SPOT.z0)).toBeLessThan(0.01);
    expect(fit.spot.w0 / SPOT.w0).toBeGreaterThan(1.2);
  });

  it("is known to a few tenths of a millimetre where widths scatter as the gauge says, and says when they scatter more", () => {
    const wave = (k: number) => Math.sin(k * 12.9898) * 1.4;
    const scattered = (times: number) =>
      ladder(SPOT, 1, 44, 58).map((c, i) =>
        c.status === "marked" ? { ...c, widthMm: c.widthMm + times * c.u * wave(i + 1) } : c,
      );
    const quiet = fitWidths(scattered(1), 1);
    const loud = fitWidths(scattered(4), 1);
    if (quiet.status !== "solved" || loud.status !== "solved") throw new Error("not solved");
    expect(quiet.z0.standardUncertainty).toBeLessThan(0.15);
    expect(loud.scatter).toBeGreaterThan(2.5 * quiet.scatter);
    expect(loud.z0.standardUncertainty).toBeGreaterThan(2 * quiet.z0.standardUncertainty);
  });

  it("gives the focus and no spot where the widths only fall on either side, and are not read that well", () => {
    const weak = { ...SPOT, lnR: Math.log(1.5), zR: 3 };
    const coarse = ladder(weak, 1, 46, 55).map((c) => (c.status === "marked" ? { ...c, u: 0.4 * c.widthMm } : c));
    const fit = fitWidths(coarse, 1);
    if (fit.status !== "solved") throw new Error(fit.reason);
    expect(Math.abs(fit.z0.value - SPOT.z0)).toBeLessThan(0.1);
    expect(fit.known).toBeNull();
  });

  it("asks to go on where focus lies beyond the ladder, on the side on which it does", () => {
    const deep = { ...SPOT, zR: 3, lnR: Math.log(20) };
    expect(fitWidths(ladder(deep, 1, 50.5, 58), 1)).toEqual({
      status: "cannot tell",
      reason: "focus beyond the first",
    });
    expect(fitWidths(ladder(deep, 1, 42, 50), 1)).toEqual({ status: "cannot tell", reason: "focus beyond the last" });
  });

  it.each([-1.5, -0.5, 0.2])(
    "gives no number where the focus lies %f mm inside the first cell and widths only grow, scatter or not",
    (inside) => {
      const wave = (k: number) => Math.sin(k * 12.9898) * 1.2;
      for (const lnR of [Math.log(2.5), Math.log(6), Math.log(18)])
        for (const zR of [0.8, 1.5, 3]) {
          const spot = { ...SPOT, lnR, zR };
          const cells = ladder(spot, 1, SPOT.z0 - inside, SPOT.z0 - inside + 8).map((c, i) =>
            c.status === "marked" ? { ...c, widthMm: c.widthMm + 0.6 * c.u * wave(i + lnR) } : c,
          );
          const fit = fitWidths(cells, 1);
          expect(fit, `R ${Math.exp(lnR)} zR ${zR}`).toMatchObject({ status: "cannot tell" });
          if (fit.status === "cannot tell") expect(["focus beyond the first", "few cells"]).toContain(fit.reason);
        }
    },
  );

  it("takes a width that was read ten times too large, and does not end", () => {
    const cells = ladder(SPOT, 1, 44, 58).map((c, i) =>
      c.status === "marked" && i === 12 ? { ...c, widthMm: 10 * c.widthMm } : c,
    );
    expect(["solved", "cannot tell"]).toContain(fitWidths(cells, 1).status);
  });

  it("leaves fewer than six marked cells to first, last and sharpest", () => {
    expect(fitWidths(ladder({ ...SPOT, zR: 0.4 }, 2, 46, 55), 2)).toEqual({
      status: "cannot tell",
      reason: "few cells",
    });
  });
});
