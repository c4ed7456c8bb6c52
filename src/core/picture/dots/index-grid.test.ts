/** Grids bent as a lens bends them, turned, with dots missing and specks between; seeds 1 to 300. */
import { describe, expect, it } from "vitest";
import { seeded } from "../../../practice/random";
import type { Dot } from "./find-dots";
import type { Node } from "./grid-node";
import { indexGrid } from "./index-grid";
import { LARGE_NODES } from "./turn-by-the-l";

type Made = { dots: Dot[]; truth: Map<Dot, Node> };
type Wanted = {
  across?: number;
  missing?: number;
  specks?: number;
  turnDeg?: number;
  mirrored?: boolean;
  /** Only nodes for which this holds are there. */
  where?: (node: Node) => boolean;
};

const PITCH = 70;
const RADIUS = 7;

function made(
  seed: number,
  { across = 25, missing = 0, specks = 0, turnDeg, mirrored = false, where = () => true }: Wanted = {},
): Made {
  const random = seeded(seed);
  const half = (across - 1) / 2;
  const turn = ((turnDeg ?? random.between(-5, 5)) * Math.PI) / 180;
  const bow = { x: random.between(-0.02, 0.02), y: random.between(-0.02, 0.02) };
  const keystone = { x: random.between(-0.01, 0.01), y: random.between(-0.01, 0.01) };
  const at = ({ column, row }: Node) => {
    const [u, v] = [column / half, row / half];
    const x = PITCH * column * (1 + bow.x * v * v + keystone.x * v) * (mirrored ? -1 : 1);
    const y = PITCH * row * (1 + bow.y * u * u + keystone.y * u);
    // Rows go up in the picture.
    return { x: 2000 + x * Math.cos(turn) - y * Math.sin(turn), y: 1500 - x * Math.sin(turn) - y * Math.cos(turn) };
  };
  const isLarge = (n: Node) => LARGE_NODES.some((l) => l.column === n.column && l.row === n.row);
  const truth = new Map<Dot, Node>();
  for (let row = -half; row <= half; row++)
    for (let column = -half; column <= half; column++) {
      const node = { column, row };
      if (!where(node) || random.even() < missing) continue;
      const place = at(node);
      truth.set(
        {
          x: place.x + 0.3 * random.normal(),
          y: place.y + 0.3 * random.normal(),
          radiusPx: RADIUS * (isLarge(node) ? 1.8 : 1) * (1 + 0.03 * random.normal()),
          contrast: 150,
        },
        node,
      );
    }
  const reach = PITCH * (half + 1);
  const dirt = Array.from(
    { length: specks },
    (): Dot => ({
      x: 2000 + random.between(-reach, reach),
      y: 1500 + random.between(-reach, reach),
      radiusPx: RADIUS * random.between(0.4, 1.2),
      contrast: 120,
    }),
  );
  const dots = [...truth.keys(), ...dirt].sort((a, b) => a.y - b.y || a.x - b.x);
  return { dots, truth };
}

/** Wrong indices, or `null` where it refuses. */
function wrongIn({ dots, truth }: Made, across = 25): { wrong: number; named: number } | null {
  const found = indexGrid(dots, across);
  if (found.status === "refused") return null;
  const wrong = found.dots.filter(({ dot, column, row }) => {
    const node = truth.get(dot);
    // A speck in the place of a missing dot takes its index: its residual tells it.
    return node !== undefined && (node.column !== column || node.row !== row);
  });
  return { wrong: wrong.length, named: found.dots.length };
}

const SEEDS = Array.from({ length: 300 }, (_, i) => i + 1);

describe("the grid of dots", () => {
  it("is indexed whole where nothing is missing", () => {
    for (const seed of SEEDS.slice(0, 60)) expect(wrongIn(made(seed))).toEqual({ wrong: 0, named: 625 });
  });

  it("has no wrong index with up to 20 % of its dots missing and 80 specks, and is seldom refused", () => {
    let refused = 0;
    for (const seed of SEEDS) {
      const missing = 0.2 * (seed / SEEDS.length);
      const result = wrongIn(made(seed, { missing, specks: 80 }));
      if (!result) refused++;
      else expect(result.wrong, `seed ${seed}`).toBe(0);
    }
    expect(refused / SEEDS.length).toBeLessThan(0.05);
  });

  it.each([11, 33])("may have %i dots a side", (across) => {
    expect(wrongIn(made(7, { across, missing: 0.05, specks: 10 }), across)?.wrong).toBe(0);
  });

  it.each([0, 90, 180, 270])("may lie turned by %i degrees", (turnDeg) => {
    expect(wrongIn(made(3, { turnDeg: turnDeg + 1 }))).toEqual({ wrong: 0, named: 625 });
  });

  it("is refused by name where it cannot be told", () => {
    const reason = (dots: readonly Dot[], across = 25) => {
      const found = indexGrid(dots, across);
      return found.status === "refused" ? found.reason : "indexed";
    };
    const whole = made(5).dots;
    expect(reason(whole.slice(0, 5))).toBe("few dots");
    expect(reason(made(5, { mirrored: true }).dots)).toBe("mirrored");
    expect(reason(whole.map((d) => ({ ...d, radiusPx: RADIUS })))).toBe("no L");
    expect(reason(made(5, { where: ({ row }) => row > -4 }).dots)).toBe("part of the grid");
    expect(reason(made(5, { across: 33 }).dots, 25)).toBe("larger than told");
    const random = seeded(1);
    const scattered = Array.from({ length: 400 }, () => ({
      x: random.between(0, 2000),
      y: random.between(0, 2000),
      radiusPx: RADIUS,
      contrast: 100,
    }));
    expect(["no grid", "contradictions", "no L"]).toContain(reason(scattered));
  });

  it("names the nodes that are missing, and dots that belong to none", () => {
    const { dots, truth } = made(9, { where: ({ column, row }) => !(column === 5 && row === -3) });
    const stray: Dot = { x: 2000 + 0.5 * PITCH, y: 1500 + 0.5 * PITCH, radiusPx: RADIUS, contrast: 90 };
    const found = indexGrid([...dots, stray], 25);
    if (found.status === "refused") throw new Error(found.reason);
    expect(found.missing).toEqual([{ column: 5, row: -3 }]);
    expect(found.strays).toEqual([stray]);
    expect(truth.size).toBe(624);
    expect(Math.max(...found.dots.map((d) => d.residualPx))).toBeLessThan(3);
  });
});
