/** Drawings as other programs write them. Curves are checked against points worked out in another way. */
import fc from "fast-check";
import svgpath from "svgpath";
import { describe, expect, it } from "vitest";
import { faultText } from "./parsed";
import { parseSvgDrawing, type SvgPath } from "./svg-drawing";

const sheet = (inside: string, attributes = 'width="100mm" height="80mm" viewBox="0 0 100 80"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`;

function paths(text: string, chordErrorMm?: number): SvgPath[] {
  const read = parseSvgDrawing(text, chordErrorMm);
  if (!read.ok) throw new Error(faultText(read));
  return read.value.paths;
}

/** Points with Y down again, to compare with what is written. */
function down(path: SvgPath | undefined, heightMm = 80): [number, number][] {
  return (path?.points ?? []).map((p) => [p.x, heightMm - p.y]);
}

function close(seen: [number, number][], wanted: [number, number][], digits = 9): void {
  expect(seen).toHaveLength(wanted.length);
  seen.forEach(([x, y], i) => {
    expect(x).toBeCloseTo(wanted[i]?.[0] ?? Number.NaN, digits);
    expect(y).toBeCloseTo(wanted[i]?.[1] ?? Number.NaN, digits);
  });
}

/** Largest distance of some points from a polyline. */
function offPolyline(points: readonly { x: number; y: number }[], line: readonly { x: number; y: number }[]): number {
  return Math.max(
    ...points.map((p) =>
      Math.min(
        ...line.slice(1).map((b, i) => {
          const a = line[i] ?? b;
          const [dx, dy] = [b.x - a.x, b.y - a.y];
          const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
          return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
        }),
      ),
    ),
  );
}

describe("units and the sheet", () => {
  it.each([
    ['width="4in" height="3in" viewBox="0 0 384 288"', 25.4 / 96],
    ['width="384" height="288"', 25.4 / 96],
    ['width="384px" height="288px" viewBox="0 0 384 288"', 25.4 / 96],
    ['width="10.16cm" height="7.62cm" viewBox="0 0 384 288"', 25.4 / 96],
    ['viewBox="0 0 384 288"', 25.4 / 96],
    ['width="768mm" height="576mm" viewBox="0 0 384 288"', 2],
    ['width="768mm" viewBox="0 0 384 288"', 2],
    ['width="288pt" height="216pt" viewBox="0 0 384 288"', 25.4 / 96],
    ['width="24pc" height="18pc" viewBox="0 0 384 288"', 25.4 / 96],
  ])("are honoured: %s", (attributes, mmPerUnit) => {
    const [path] = paths(sheet('<path d="M10 20L30 40"/>', attributes));
    const height = 288 * mmPerUnit;
    close(down(path, height), [
      [10 * mmPerUnit, 20 * mmPerUnit],
      [30 * mmPerUnit, 40 * mmPerUnit],
    ]);
  });

  it("puts a viewBox of another shape into the middle, and moves one that begins elsewhere", () => {
    const [a] = paths(sheet('<path d="M0 0L10 10"/>', 'width="40mm" height="20mm" viewBox="0 0 10 10"'));
    close(down(a, 20), [
      [10, 0],
      [30, 20],
    ]);
    const [b] = paths(sheet('<path d="M5 5L10 10"/>', 'width="20mm" height="20mm" viewBox="5 5 10 10"'));
    close(down(b, 20), [
      [0, 0],
      [10, 10],
    ]);
    const [c] = paths(
      sheet('<path d="M0 0L10 10"/>', 'width="40mm" height="20mm" viewBox="0 0 10 10" preserveAspectRatio="none"'),
    );
    close(down(c, 20), [
      [0, 0],
      [40, 20],
    ]);
  });
});

describe("shapes", () => {
  it("are what the standard makes of them", () => {
    const [line, polyline, polygon, rect] = paths(
      sheet(
        '<line x1="1" y1="2" x2="3" y2="4"/><polyline points="1,2 3,4 5 6"/><polygon points="0 0 4 0 4 4"/><rect x="1" y="2" width="10" height="5"/>',
      ),
    );
    close(down(line), [
      [1, 2],
      [3, 4],
    ]);
    close(down(polyline), [
      [1, 2],
      [3, 4],
      [5, 6],
    ]);
    expect(polygon?.closed).toBe(true);
    close(down(rect), [
      [1, 2],
      [11, 2],
      [11, 7],
      [1, 7],
    ]);
    expect(paths(sheet('<rect width="0" height="5"/><circle r="0"/><polyline points="1 1"/>'))).toEqual([]);
  });

  it("with round forms stay within the chord error, from exact centres", () => {
    for (const error of [0.1, 0.01, 0.001]) {
      const [circle, ellipse, rounded] = paths(
        sheet(
          '<circle cx="50" cy="40" r="30"/><ellipse cx="50" cy="40" rx="40" ry="10"/><rect x="10" y="10" width="60" height="40" rx="8"/>',
        ),
        error,
      );
      for (const p of circle?.points ?? []) expect(Math.hypot(p.x - 50, p.y - 40)).toBeCloseTo(30, 9);
      // The middle of a chord is the farthest from the circle.
      const [a, b] = [circle?.points[0], circle?.points[1]];
      const middle = Math.hypot(((a?.x ?? 0) + (b?.x ?? 0)) / 2 - 50, ((a?.y ?? 0) + (b?.y ?? 0)) / 2 - 40);
      expect(30 - middle).toBeLessThanOrEqual(error);
      expect(30 - middle).toBeGreaterThan(error / 4);
      for (const p of ellipse?.points ?? []) expect(((p.x - 50) / 40) ** 2 + ((p.y - 40) / 10) ** 2).toBeCloseTo(1, 9);
      expect(rounded?.closed).toBe(true);
      const area = shoelace(rounded?.points ?? []);
      expect(Math.abs(area - (60 * 40 - (4 - Math.PI) * 64))).toBeLessThan(error * 2 * Math.PI * 8);
    }
  });

  it("with curves stay within the chord error after every transform", () => {
    const number = fc.double({ min: -40, max: 40, noNaN: true });
    fc.assert(
      fc.property(fc.array(number, { minLength: 8, maxLength: 8 }), fc.integer({ min: 1, max: 30 }), (n, scale) => {
        const [x0 = 0, y0 = 0, x1 = 0, y1 = 0, x2 = 0, y2 = 0, x3 = 0, y3 = 0] = n;
        const [path] = paths(
          sheet(`<g transform="scale(${scale})"><path d="M${x0} ${y0}C${x1} ${y1} ${x2} ${y2} ${x3} ${y3}"/></g>`),
          0.02,
        );
        if (!path) return;
        // By repeated halving, as de Casteljau does it.
        const exact = Array.from({ length: 41 }, (_, i) => {
          const t = i / 40;
          const mix = (a: number[], b: number[]) => a.map((v, k) => v + ((b[k] ?? 0) - v) * t);
          const [a, b, c] = [mix([x0, y0], [x1, y1]), mix([x1, y1], [x2, y2]), mix([x2, y2], [x3, y3])];
          const [x = 0, y = 0] = mix(mix(a, b), mix(b, c));
          return { x: x * scale, y: 80 - y * scale };
        });
        expect(offPolyline(exact, path.points)).toBeLessThan(0.02 + 1e-9);
      }),
      { seed: 12, numRuns: 150 },
    );
  });

  it("reads arcs by their ends: radii, flags and turn, and enlarges radii that do not reach", () => {
    const arc = (d: string) => paths(sheet(`<path d="${d}"/>`), 0.001)[0]?.points ?? [];
    const long = (points: readonly { x: number; y: number }[]) =>
      points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - (points[i]?.x ?? 0), p.y - (points[i]?.y ?? 0)), 0);
    expect(long(arc("M60 40A20 20 0 0 1 40 60"))).toBeCloseTo((Math.PI / 2) * 20, 2);
    expect(long(arc("M60 40A20 20 0 1 0 40 60"))).toBeCloseTo(1.5 * Math.PI * 20, 2);
    for (const p of arc("M60 40A20 20 0 0 1 40 60")) expect(Math.hypot(p.x - 40, p.y - 40)).toBeCloseTo(20, 6);
    for (const p of arc("M40 40A1 1 0 0 1 60 40")) expect(Math.hypot(p.x - 50, p.y - 40)).toBeCloseTo(10, 6);
    // A turned ellipse: its ends lie on it, and every point satisfies its equation in the turned frame.
    const turned = arc("M50 40a20 10 30 0 1 10 10");
    expect(turned.at(-1)).toEqual({ x: 60, y: 30 });
    expect(arc("M10 10A0 5 0 0 1 20 20")).toHaveLength(2);
    expect(paths(sheet('<path d="M10 10A5 5 0 0 1 10 10"/>'))).toEqual([]);
  });

  it("goes on from where a closed outline began", () => {
    const [a, b] = paths(sheet('<path d="M10 10h10v10zl5 -5"/>'));
    expect(a?.closed).toBe(true);
    close(down(b), [
      [10, 10],
      [15, 5],
    ]);
  });
});

function shoelace(points: readonly { x: number; y: number }[]): number {
  return Math.abs(
    points.reduce((sum, p, i) => {
      const q = points[(i + 1) % points.length] ?? p;
      return sum + (p.x * q.y - q.x * p.y) / 2;
    }, 0),
  );
}

describe("transforms and copies", () => {
  const angle = fc.integer({ min: -80, max: 80 });
  const small = fc.integer({ min: -20, max: 20 });
  const one = fc.oneof(
    fc.tuple(small, small).map(([x, y]) => `translate(${x} ${y})`),
    small.map((x) => `translate(${x})`),
    fc.tuple(angle, small, small).map(([a, x, y]) => `rotate(${a},${x},${y})`),
    angle.map((a) => `rotate(${a})`),
    fc.integer({ min: 1, max: 4 }).map((k) => `scale(${k})`),
    fc.tuple(fc.integer({ min: 1, max: 3 }), fc.constantFrom(-1, 1, 2)).map(([x, y]) => `scale(${x}, ${y})`),
    angle.map((a) => `skewX(${a})`),
    angle.map((a) => `skewY(${a})`),
    fc.tuple(small, small).map(([e, f]) => `matrix(1 0.5 -0.25 1 ${e} ${f})`),
  );

  it("agree with a general-purpose library over random lists", () => {
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 3 }), fc.array(one, { maxLength: 2 }), (inner, outer) => {
        const d = "M1 2L30 4L5 60Z";
        const [path] = paths(
          sheet(`<g transform="${outer.join(" ")}"><path transform="${inner.join(" ")}" d="${d}"/></g>`),
        );
        const wanted: [number, number][] = [];
        svgpath(d)
          .transform([...outer, ...inner].join(" "))
          .abs()
          .iterate((s) => {
            if (s[0] === "M" || s[0] === "L") wanted.push([s[1], s[2]]);
          });
        close(down(path), wanted, 6);
      }),
      { seed: 9, numRuns: 200 },
    );
  });

  it("copies what has a name, where it is used", () => {
    const [own, copy, symbol] = paths(
      sheet(
        '<path id="p" d="M0 0L10 0"/><g transform="scale(2)"><use href="#p" x="5" y="6"/></g><symbol id="s"><path d="M1 1L2 2"/></symbol><use xlink:href="#s" transform="translate(1 0)"/>',
        'xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="80mm" viewBox="0 0 100 80"',
      ),
    );
    close(down(own), [
      [0, 0],
      [10, 0],
    ]);
    close(down(copy), [
      [10, 12],
      [30, 12],
    ]);
    close(down(symbol), [
      [2, 1],
      [3, 2],
    ]);
  });

  it("does not let copies of copies grow without end", () => {
    const levels = Array.from({ length: 14 }, (_, i) => `<g id="l${i + 1}">${`<use href="#l${i}"/>`.repeat(10)}</g>`);
    const began = performance.now();
    const read = parseSvgDrawing(
      sheet(`<defs><path id="l0" d="M0 0L1 1"/>${levels.join("")}</defs><use href="#l14"/>`),
    );
    expect(read).toMatchObject({ ok: false, message: expect.stringMatching(/more elements than can be meant/) });
    // The bench holds it to one second; here the machine may be busy.
    expect(performance.now() - began).toBeLessThan(5000);
  });

  it("leaves out what an editor notes about a drawing, and what is only defined", () => {
    expect(
      paths(
        sheet(
          '<editor:view zoom="2"/><metadata><x>y</x></metadata><defs><path d="M0 0L1 1"/></defs><style>path { fill: none; stroke: #000 }</style><path style="display:inline;stroke:red" d="M0 0L1 1"/>',
          'xmlns:editor="urn:editor" width="100mm" height="80mm" viewBox="0 0 100 80"',
        ),
      ),
    ).toHaveLength(1);
  });

  it("says where a fault is", () => {
    const read = parseSvgDrawing(sheet("\n<g>\n  <text>A</text></g>"));
    expect(read).toMatchObject({ ok: false, line: 3, column: 3 });
  });
});
