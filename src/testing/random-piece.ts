/** Random coupons, for tests of what a file gives back. */
import fc from "fast-check";
import type { Piece } from "../core/coupon/piece";

const coordinate = fc.double({ min: 0, max: 500, noNaN: true });
const point = fc.record({ x: coordinate, y: coordinate });
const settings = fc.record({
  label: fc.constantFrom("plain", 'with "quotes" & <angles>', "µ (round)"),
  use: fc.constantFrom("line" as const, "rows" as const, "scan" as const),
  speedMmPerS: fc.integer({ min: 1, max: 3000 }),
  powerPct: fc.integer({ min: 1, max: 200 }).map((n) => n / 2),
});

/** Steps of at least 0.01 mm, so that no digit of a file makes two points one. */
const far = (points: { x: number; y: number }[]) =>
  points.every((p, i) => {
    const q = points[(i + 1) % points.length];
    return q === undefined || Math.hypot(p.x - q.x, p.y - q.y) > 0.01;
  });

export const randomPiece = fc
  .record({
    widthMm: fc.integer({ min: 1, max: 900 }),
    heightMm: fc.integer({ min: 1, max: 900 }),
    label: fc.constantFrom("plain", 'with "quotes" & <angles>', "µ"),
    groups: fc.array(
      fc.record({
        settings,
        paths: fc.array(
          fc.record({ points: fc.array(point, { minLength: 2, maxLength: 6 }).filter(far), closed: fc.boolean() }),
          { minLength: 1, maxLength: 4 },
        ),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    xMm: coordinate,
    yMm: coordinate,
  })
  .map(({ widthMm, heightMm, label, groups, xMm, yMm }) => {
    const piece: Piece = {
      id: "p",
      label,
      stock: "card",
      widthMm,
      heightMm,
      settings: groups.map(({ settings: s }, i) => ({
        ...s,
        id: `g${i}`,
        runUpMm: s.use === "rows" ? 5 : 0,
        scan: s.use === "scan" ? { rowPitchMm: 0.5, direction: "both" as const } : null,
      })),
      paths: groups.flatMap((g, i) =>
        g.paths.map((p) => ({ ...p, closed: g.settings.use === "rows" ? false : p.closed, settings: `g${i}` })),
      ),
    };
    return { piece, placement: { xMm, yMm } };
  });
