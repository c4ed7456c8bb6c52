import { EndType, inflatePathsD, JoinType } from "clipper2-ts";
import { describe, expect, it } from "vitest";
import { parseDxf } from "../formats/dxf-parser";
import { dxfOf } from "../formats/dxf-writer";
import { parseSvgDrawing } from "../formats/svg-drawing";
import { svgOf } from "../formats/svg-writer";
import { type Adapted, type AdaptOrder, adapt } from "./adapt";
import { signedArea } from "./contour";
import { develop, type PartShape } from "./develop";
import { plainOffset } from "./plain-offset";

const ORDER: Omit<AdaptOrder, "text"> = { offsetMm: 0.1, chordErrorMm: 0.005, unit: null, slots: null, uncut: [] };
const svg = (body: string, head = 'width="100mm" height="80mm" viewBox="0 0 100 80"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${head}>${body}</svg>`;
const RING = svg('<g id="cut"><rect x="10" y="10" width="40" height="30"/><circle cx="30" cy="25" r="8"/></g>');

function adapted(text: string, changes: Partial<AdaptOrder> = {}): Adapted {
  const result = adapt({ ...ORDER, text, ...changes });
  if (!result.ok) throw new Error(result.message);
  return result;
}

const areas = (result: Adapted) => result.after.map((c) => Math.abs(signedArea(c.points)));
const kinds = (result: Adapted) => result.problems.map((p) => p.kind);

describe("a drawing adapted to a kerf", () => {
  it("grows the outside and shrinks the hole, whichever way they were drawn", () => {
    const result = adapted(RING);
    expect(result.before.map((c) => c.isHole)).toEqual([false, true]);
    const [outside, hole] = areas(result);
    expect(outside).toBeCloseTo(40.2 * 30.2, 4);
    expect(hole).toBeCloseTo(Math.PI * 7.9 ** 2, 0);
    expect(result.after[0]?.points).toHaveLength(4);
    expect(result.problems).toEqual([]);
  });

  it("goes by containment alone: a part in a hole of a part grows again", () => {
    const nest = svg(
      '<rect x="0" y="0" width="60" height="60"/><rect x="10" y="10" width="40" height="40"/><rect x="20" y="20" width="10" height="10"/>',
    );
    expect(adapted(nest).before.map((c) => c.depth)).toEqual([0, 1, 2]);
    const [a, b, c] = areas(adapted(nest));
    expect([a, b, c].map((v) => Math.round(100 * Math.sqrt(v ?? 0)) / 100)).toEqual([60.2, 39.8, 10.2]);
  });

  it("gives a circle that stays within the chord error of the true one", () => {
    const result = adapted(RING, { chordErrorMm: 0.002 });
    for (const { x, y } of result.after[1]?.points ?? []) {
      const r = Math.hypot(x - 30, y - (80 - 25));
      expect(Math.abs(r - 7.9)).toBeLessThan(0.0021);
    }
  });

  it("writes what it says as SVG and DXF, layer by layer", () => {
    const { piece } = adapted(RING);
    if (!piece) throw new Error("there is no piece");
    const read = parseSvgDrawing(svgOf(piece, false));
    if (!read.ok) throw new Error(read.message);
    expect(read.value.paths.map((p) => Math.abs(signedArea(p.points))).sort((a, b) => b - a)[0]).toBeCloseTo(
      40.2 * 30.2,
      4,
    );
    const dxf = parseDxf(dxfOf(piece));
    if (!dxf.ok) throw new Error(dxf.message);
    expect(dxf.value.paths.map((p) => p.layer)).toEqual(["cut", "cut"]);
    // Holes are cut before the part that they are in falls.
    expect(Math.abs(signedArea(dxf.value.paths[0]?.points ?? []))).toBeCloseTo(Math.PI * 7.9 ** 2, 0);
  });

  it("leaves layers that are not cut as they are drawn, open lines too", () => {
    const engraved = svg(
      `<g id="all"><g id="cut"><rect x="10" y="10" width="40" height="30"/></g><g id="words"><g id="a"><path d="M15 20h10"/></g><circle cx="40" cy="20" r="3"/></g></g>`,
    );
    expect(adapted(engraved).problems.map((p) => p.kind)).toEqual(["open"]);
    const { layers, left, piece, after } = adapted(engraved, { uncut: ["words"] });
    expect(layers).toEqual(["cut", "words"]);
    expect(left.map((p) => p.closed)).toEqual([false, true]);
    expect(after.map((c) => Math.abs(signedArea(c.points)))).toEqual([expect.closeTo(40.2 * 30.2, 4)]);
    const line = piece?.paths.find((p) => p.settings === "words" && !p.closed);
    const [from, to] = [line?.points[0], line?.points[1]];
    expect((to?.x ?? 0) - (from?.x ?? 0)).toBeCloseTo(10, 9);
    expect(adapted(engraved, { uncut: ["cut", "words"] })).toMatchObject({
      piece: null,
      notes: [/* nothing to cut */ expect.stringMatching(/Nothing of it/)],
    });
  });

  it("comes back by the same amount to a smooth outline within 0.002 mm", () => {
    const blob = svg('<path d="M20 20C40 5 60 5 70 30S60 70 40 60S5 40 20 20z"/>');
    const out = adapted(blob, { offsetMm: 0.15 });
    const back = adapted(svgOf(out.piece ?? never(), false), { offsetMm: -0.15 });
    const shift = least(out);
    const original = out.before[0]?.points ?? [];
    const returned = (back.after[0]?.points ?? []).map((p) => ({ x: p.x + shift.x, y: p.y + shift.y }));
    for (const p of returned) expect(distanceTo(p, original)).toBeLessThan(0.002);
    for (const p of original) expect(distanceTo(p, returned)).toBeLessThan(0.002);
  });

  it("joins lines that follow on each other, as other programs write outlines", () => {
    const lines = svg(
      '<line x1="10" y1="10" x2="50" y2="10"/><line x1="50" y1="40" x2="50" y2="10"/><line x1="50" y1="40" x2="10" y2="40"/><line x1="10" y1="10" x2="10" y2="40.004"/>',
    );
    expect(areas(adapted(lines))[0]).toBeCloseTo(40.2 * 30.2, 1);
  });
});

describe("slots for a measured thickness", () => {
  const comb = svg(
    '<path d="M0 0h60v20h-60z M10 5h3v10h-3z"/><path d="M0 30h20v10h3v-10h20v30h-43z"/><path d="M70 30h10v-8h3v8h10v20h-23z"/>',
  );

  it("are widened where they are as wide as said, notches and holes; tongues of that width stay", () => {
    const result = adapted(comb, { offsetMm: 0, slots: { fromMm: 3, toMm: 3.24 } });
    expect(result.slots).toHaveLength(3);
    const widths = result.after.map((c) => Math.abs(signedArea(c.points)));
    expect(widths[1]).toBeCloseTo(3.24 * 10, 6);
    expect(widths[2]).toBeCloseTo(43 * 30 - 3.24 * 10, 6);
    expect(widths[3]).toBeCloseTo(23 * 20 + 3 * 8, 6);
  });

  it("say so where there are none", () => {
    expect(adapted(comb, { slots: { fromMm: 4, toMm: 4.1 } }).notes).toContain("No slot is 4 mm wide.");
  });
});

describe("what cannot be adapted is named, and where", () => {
  it.each([
    ["open", '<path d="M10 10h40v30"/>', /begins at X 10\.0 Y 70\.0 mm and ends at X 50\.0 Y 40\.0/],
    ["self-crossing", '<path d="M10 10h40l-40 30h40z"/>', /crosses itself at X 30\.0 Y 55\.0/],
    [
      "overlapping",
      '<rect x="10" y="10" width="20" height="20"/><rect x="20" y="20" width="20" height="20"/>',
      /Two outlines cross/,
    ],
    [
      "drawn twice",
      '<rect x="10" y="10" width="20" height="20"/><rect x="10" y="10" width="20" height="20"/>',
      /drawn twice/,
    ],
  ])("%s", (kind, body, words) => {
    const result = adapted(svg(body));
    expect(kinds(result)).toContain(kind);
    expect(result.problems[0]?.text).toMatch(words);
    expect(result.piece).toBeNull();
  });

  it("a hole that is narrower than the cut vanishes", () => {
    const result = adapted(
      svg('<rect x="5" y="5" width="40" height="40"/><rect x="10" y="10" width="0.15" height="9"/>'),
    );
    expect(kinds(result)).toEqual(["vanishes"]);
    expect(result.piece).toBeNull();
  });

  it("a hole with a neck that is narrower than the cut falls apart", () => {
    const waist =
      '<rect x="0" y="0" width="60" height="40"/><path d="M10 10h10v4.95h5v-4.95h10v10h-10v-4.9h-5v4.9h-10z"/>';
    const result = adapted(svg(waist));
    expect(kinds(result)).toEqual(["falls apart"]);
    expect(result.problems[0]?.text).toMatch(/2 pieces.*Widen the neck/);
  });

  it("a slit that is narrower than the cut closes", () => {
    const slit = svg('<path d="M5 5h30v30h-14.9v-20h-0.1v20h-15z"/>');
    const result = adapted(slit);
    expect(kinds(result)).toEqual(["closes"]);
    expect(result.problems[0]?.text).toMatch(/X 20\.[01] Y 65\.0 mm/);
    expect(kinds(adapted(slit, { offsetMm: 0.03 }))).toEqual([]);
    // A sharp corner is cut off square, which is no slit.
    expect(kinds(adapted(svg('<path d="M5 5h40L5 9z"/>'), { offsetMm: 0.5 }))).toEqual([]);
  });

  it("parts that lie nearer than the cut is wide grow together", () => {
    const result = adapted(
      svg('<rect x="5" y="5" width="10" height="10"/><rect x="15.15" y="5" width="10" height="10"/>'),
    );
    expect(kinds(result)).toEqual(["grown together"]);
  });

  it("a drawing without a unit asks for it, and takes what is said", () => {
    const bare = svg('<rect x="10" y="10" width="40" height="30"/>', 'width="100" height="80"');
    expect(adapt({ ...ORDER, text: bare })).toMatchObject({ ok: false, asksUnit: true });
    expect(areas(adapted(bare, { unit: "mm", offsetMm: 0 }))[0]).toBeCloseTo(1200, 6);
    expect(areas(adapted(bare, { unit: "96 an inch", offsetMm: 0 }))[0]).toBeCloseTo(1200 * (25.4 / 96) ** 2, 6);
  });

  it("a viewBox that scales is followed, and said", () => {
    const half = svg('<rect x="10" y="10" width="40" height="30"/>', 'width="50mm" height="40mm" viewBox="0 0 100 80"');
    const result = adapted(half, { offsetMm: 0 });
    expect(areas(result)[0]).toBeCloseTo(300, 6);
    expect(result.notes[0]).toMatch(/one unit is 0\.5000 mm/);
  });

  it("letters that are no outlines, and files that are no drawing, are refused with their place", () => {
    expect(adapt({ ...ORDER, text: svg('<text x="1" y="9">Fern</text>') })).toMatchObject({
      ok: false,
      message: expect.stringMatching(/turn it into paths first/),
    });
    expect(adapt({ ...ORDER, text: "hello" })).toMatchObject({ ok: false, asksUnit: false });
  });

  it("inches in a DXF are told, and a size that smells of 25.4 is asked about", () => {
    const { piece } = adapted(RING);
    const inches = dxfOf(piece ?? never()).replace(/(\$INSUNITS\r?\n\s*70\r?\n\s*)4/, "$11");
    const result = adapted(inches);
    expect(result.notes[0]).toMatch(/in inches/);
    const tiny = svg('<rect x="1" y="1" width="1.5" height="1"/>', 'width="9mm" height="9mm" viewBox="0 0 9 9"');
    expect(adapted(tiny).notes[0]).toMatch(/25\.4/);
  });
});

describe("the plain offset", () => {
  const turned = (n: number, r: (i: number) => number) =>
    Array.from({ length: n }, (_, i) => {
      const angle = (2 * Math.PI * i) / n;
      return { x: r(i) * Math.cos(angle), y: r(i) * Math.sin(angle) };
    });

  it.each([
    ["a star", turned(24, (i) => (i % 2 === 0 ? 20 : 14)), 0.4],
    ["the same, shrunk", turned(24, (i) => (i % 2 === 0 ? 20 : 14)), -0.4],
    ["a wave", turned(720, (i) => 20 + Math.sin((12 * Math.PI * i) / 720)), 0.3],
  ])("is what the library for polygons says: %s", (_, points, by) => {
    const plain = plainOffset(points, by, 4);
    const [path = []] = inflatePathsD([points.map((p) => ({ ...p }))], by, JoinType.Miter, EndType.Polygon, 4, 6);
    expect(plain).not.toBeNull();
    expect(Math.abs(signedArea(plain ?? []) - signedArea(path))).toBeLessThan(1e-3);
    for (const p of path) expect(distanceTo(p, plain ?? [])).toBeLessThan(1e-4);
  });

  it("is given up where a side turns over, a corner reaches too far, or the outline would cross itself", () => {
    const shortSide = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 10 },
      { x: 5.05, y: 10 },
      { x: 5.05, y: 5 },
      { x: 4.95, y: 5 },
      { x: 4.95, y: 10 },
      { x: 0, y: 10 },
    ];
    expect(plainOffset(shortSide, 0.1, 4)).toBeNull();
    expect(
      plainOffset(
        [
          { x: 0, y: 0 },
          { x: 40, y: 0 },
          { x: 0, y: 2 },
        ],
        0.1,
        4,
      ),
    ).toBeNull();
    const jug = [
      ...[
        { x: 0, y: 0 },
        { x: 10, y: 0 },
        { x: 10, y: 10 },
        { x: 5.05, y: 10 },
      ],
      ...[
        { x: 9, y: 2 },
        { x: 1, y: 2 },
        { x: 4.95, y: 10 },
        { x: 0, y: 10 },
      ],
    ];
    expect(plainOffset(jug, 0.1, 4)).toBeNull();
    expect(plainOffset(jug, 0.01, 4)).not.toBeNull();
  });
});

describe("large drawings", () => {
  it("of 20,000 corners are adapted within a second", () => {
    const count = 20_000;
    const points = Array.from({ length: count }, (_, i) => {
      const [angle, r] = [(2 * Math.PI * i) / count, 300 + 4 * Math.sin((120 * Math.PI * i) / count)];
      return `${(400 + r * Math.cos(angle)).toFixed(4)},${(400 + r * Math.sin(angle)).toFixed(4)}`;
    });
    const text = svg(`<polygon points="${points.join(" ")}"/>`, 'width="800mm" height="800mm" viewBox="0 0 800 800"');
    // The first time its code is still being compiled; a worker is as slow once.
    const times = Array.from({ length: 3 }, () => {
      const began = performance.now();
      const result = adapted(text, { offsetMm: 0.1 });
      expect(result.problems).toEqual([]);
      expect(result.after[0]?.points.length).toBeGreaterThan(19_000);
      return performance.now() - began;
    });
    expect(Math.min(...times)).toBeLessThan(1000);
  });
});

function least({ after }: Adapted): { x: number; y: number } {
  const all = after.flatMap((c) => c.points);
  return { x: Math.min(...all.map((p) => p.x)) - 2, y: Math.min(...all.map((p) => p.y)) - 2 };
}

function distanceTo(p: { x: number; y: number }, outline: readonly { x: number; y: number }[]): number {
  let best = Infinity;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length] ?? a;
    const [ux, uy] = [b.x - a.x, b.y - a.y];
    const size = ux * ux + uy * uy;
    const share = size > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * ux + (p.y - a.y) * uy) / size)) : 0;
    best = Math.min(best, Math.hypot(p.x - a.x - share * ux, p.y - a.y - share * uy));
  });
  return best;
}

function never(): never {
  throw new Error("there should be one");
}

describe("a drawing for a round part", () => {
  const label = (widthMm: number, aroundMm: number) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${aroundMm}mm" viewBox="0 0 ${widthMm} ${aroundMm}"><g id="frame"><path d="M0 0H${widthMm}V${aroundMm}H0Z"/></g></svg>`;
  const made = (text: string, shape: PartShape, around: "x" | "y" = "y") => {
    const result = develop({ text, unit: null, chordErrorMm: 0.01, around, shape });
    if (!result.ok) throw new Error(result.message);
    return result;
  };
  const NECK: PartShape = { kind: "straight", markedMm: 40, turnsByMm: 80 };
  const CUP: PartShape = {
    kind: "taper",
    firstMm: 60,
    lastMm: 75.7,
    lengthMm: 90,
    turnsByMm: 60,
    beginsMm: 10,
    lay: "label",
    level: "side",
  };

  it("is multiplied along the way around alone, whichever axis that is", () => {
    const size = (r: ReturnType<typeof made>) => [r.piece.widthMm, r.piece.heightMm];
    expect(size(made(label(20, 30), NECK))).toEqual([24, 64]);
    expect(size(made(label(20, 30), NECK, "x"))).toEqual([44, 34]);
    expect(made(label(20, Math.PI * 40), NECK).wraps).toEqual({ kind: "once" });
    expect(made(label(20, 130), NECK).faults.join()).toMatch(/4\.3 mm too much/);
  });

  it("on a taper is held against the angle that it is turned, and told where it is laid", () => {
    // As long as the part is around where the label begins: laid flat it does not come round to itself.
    const around = Math.PI * (60 + (15.7 * 10) / Math.hypot(90, 7.85));
    const flat = made(label(20, around), CUP);
    expect(flat.wraps.kind).toBe("gap");
    expect(made(label(20, around), { ...CUP, lay: "rim" }).wraps.kind).toBe("once");
    expect(flat.beginsMm).toBeCloseTo(10, 6);
    expect(flat.faults).toEqual([]);
  });

  it("says what does not go onto a taper: its corners reach farther than it is drawn", () => {
    const reaches = made(label(78, 120), CUP);
    expect(reaches.faults.join()).toMatch(/beyond the other end: the side is 90\.3 mm long/);
    const narrowing: PartShape = { ...CUP, firstMm: 75.7, lastMm: 60, beginsMm: 0 };
    expect(made(label(20, 120), narrowing).faults.join()).toMatch(/before the first end/);
  });
});
