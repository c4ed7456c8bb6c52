/**
 * A taper of 5 degrees on a practice part: what is sent lands on the surface in space, and is laid flat there triangle by triangle from
 * distances alone, by no formula of a cone.
 */
import { describe, expect, it } from "vitest";
import { develop } from "../../artwork/develop";
import type { TaperSetup } from "../../core/round-part/taper";
import { type PointInSpace, struckAt } from "../tapered-part";

const HALF_ANGLE = (5 * Math.PI) / 180;
const LENGTH_MM = 90;
const TAPER: TaperSetup = {
  firstMm: 60,
  lastMm: 60 + 2 * LENGTH_MM * Math.tan(HALF_ANGLE),
  lengthMm: LENGTH_MM,
  lay: "label",
  level: "side",
  turnsByMm: 70,
};
const CHORD_MM = 0.005;

type Flat = { x: number; y: number };

const apart = (a: PointInSpace, b: PointInSpace) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);

/** The third corner of a triangle, left of the way from a to b, by its three sides. */
function corner(a: Flat, b: Flat, ab: number, ac: number, bc: number, side: 1 | -1): Flat {
  const along = (ab ** 2 + ac ** 2 - bc ** 2) / (2 * ab);
  const up = side * Math.sqrt(Math.max(0, ac ** 2 - along ** 2));
  const [ex, ey] = [(b.x - a.x) / ab, (b.y - a.y) / ab];
  return { x: a.x + along * ex - up * ey, y: a.y + along * ey + up * ex };
}

/** Two rows of points side by side on a surface, laid flat as a strip of triangles. */
function laidFlat(row: readonly PointInSpace[], beside: readonly PointInSpace[]): Flat[] {
  const at = (list: readonly PointInSpace[], i: number) => list[i] as PointInSpace;
  const flat: Flat[] = [{ x: 0, y: 0 }];
  let b: Flat = { x: 0, y: apart(at(row, 0), at(beside, 0)) };
  for (let i = 1; i < row.length; i++) {
    const [a, p, q, r] = [at(row, i - 1), at(beside, i - 1), at(row, i), at(beside, i)];
    const from = flat[i - 1] as Flat;
    const next = corner(from, b, apart(a, p), apart(a, q), apart(p, q), -1);
    flat.push(next);
    b = corner(next, b, apart(q, p), apart(q, r), apart(p, r), -1);
  }
  return flat;
}

/** How far the points stray from the straight line through their ends. */
function bow(points: readonly Flat[]): number {
  const [a, b] = [points[0] as Flat, points.at(-1) as Flat];
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  return Math.max(...points.map((p) => Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length));
}

/** A drawing of two rows that run around, 100 mm long and 1 mm apart, the first of them 40 mm from the first end. */
const ROWS = `<svg xmlns="http://www.w3.org/2000/svg" width="42mm" height="100mm" viewBox="0 0 42 100">
  <g id="row"><path d="M40 0V100"/></g><g id="beside"><path d="M41 0V100"/></g><g id="begin"><path d="M0 49V51"/></g></svg>`;

function onPart(setup: TaperSetup) {
  const made = develop({
    text: ROWS,
    unit: null,
    chordErrorMm: CHORD_MM,
    around: "y",
    shape: { kind: "taper", beginsMm: 0, ...setup },
  });
  if (!made.ok) throw new Error(made.message);
  const part = { ...TAPER, sideLevel: setup.level === "side" };
  const strike = ({ x, y }: Flat) => struckAt(part, x, (2 * y) / setup.turnsByMm);
  const row = (layer: string) => made.after.find((p) => p.layer === layer)?.points ?? [];
  // Between its corners the machine goes straight: places are taken closely along what is sent.
  const closely = (points: readonly Flat[]) => {
    const dense = Array.from({ length: 401 }, (_, i) => i / 400);
    return dense.map((share) => {
      const at = share * (points.length - 1);
      const i = Math.min(points.length - 2, Math.floor(at));
      const [a, b] = [points[i] as Flat, points[i + 1] as Flat];
      return strike({ x: a.x + (at - i) * (b.x - a.x), y: a.y + (at - i) * (b.y - a.y) });
    });
  };
  return laidFlat(closely(row("row")), closely(row("beside")));
}

describe("a taper of 5 degrees", () => {
  it.each(["side", "axis"] as const)(
    "keeps a straight row straight and as long as it is drawn, with its %s level",
    (level) => {
      const flat = onPart({ ...TAPER, level });
      expect(bow(flat)).toBeLessThan(0.05);
      const [a, b] = [flat[0] as Flat, flat.at(-1) as Flat];
      expect(Math.abs(Math.hypot(b.x - a.x, b.y - a.y) - 100)).toBeLessThan(0.05);
    },
  );

  it("bows it by millimetres where it is sent as it is drawn, or along the rim", () => {
    expect(bow(onPart({ ...TAPER, lay: "rim" }))).toBeGreaterThan(2);
  });
});
