/** Bent drawings: marks of the head then lie where they were drawn; groups, layers and texts stay. */
import { describe, expect, it } from "vitest";
import { elementAt } from "../core/fitting/element-at";
import { mapPoint, type PlaneMap } from "../core/fitting/plane-map";
import type { FieldTable } from "../core/settings/field-table";
import { parseDxf } from "../formats/dxf-parser";
import { parseSvgDrawing } from "../formats/svg-drawing";
import { type BendResult, bend } from "./bend";

/** Two millimetres of pincushion along X and of barrel along Y at the corner, and a keystone. */
const HEAD: PlaneMap = {
  degree: 3,
  half: 55,
  x: [0, 55.2, 0, 0, 0.3, 0, 0, 0, 2, 0],
  y: [0, 0, 54.9, 0, 0, 0, 0, -2, 0, 0],
};
const TABLE: FieldTable = { shape: "map", undone: [{ map: HEAD, reachMm: 52 }], form: null };
const AT = { x: 0, y: 0 };

const SVG = `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 800 600">
  <title>Label</title>
  <style>.thin { stroke: black }</style>
  <g id="frame" class="thin" transform="translate(50 50) scale(2)">
    <rect id="edge" x="0" y="0" width="300" height="200" fill="none" stroke="red"/>
    <g id="inner"><circle cx="150" cy="100" r="40"/></g>
  </g>
  <defs><path id="leaf" d="M0 0 C 40 -60 120 -60 160 0"/></defs>
  <use href="#leaf" x="300" y="300"/>
  <text id="name" x="400" y="500" font-size="40">Acer &amp; <tspan>Quercus</tspan></text>
</svg>`;

function done(result: BendResult): Extract<BendResult, { ok: true }> {
  if (!result.ok) throw new Error(result.message);
  return result;
}

type Path = { points: readonly { x: number; y: number }[]; closed: boolean };

/** Where the head marks what is sent, from the middle of the field. */
function marked(path: Path, toField: { x: number; y: number }): { x: number; y: number }[] {
  const points = path.closed ? [...path.points, elementAt(path.points, 0)] : path.points;
  // Also between the points of a chord: the head goes straight in its own coordinates.
  return points.flatMap((p, i) => {
    const next = points[i + 1];
    const at = (q: { x: number; y: number }) => mapPoint(HEAD, { x: q.x + toField.x, y: q.y + toField.y });
    return next ? [at(p), at({ x: (p.x + next.x) / 2, y: (p.y + next.y) / 2 })] : [at(p)];
  });
}

function farthest(from: readonly { x: number; y: number }[], line: Path): number {
  const ends = line.closed ? [...line.points, elementAt(line.points, 0)] : line.points;
  return Math.max(
    ...from.map((p) =>
      Math.min(
        ...ends.slice(1).map((b, i) => {
          const a = elementAt(ends, i);
          const [dx, dy] = [b.x - a.x, b.y - a.y];
          const length = dx * dx + dy * dy;
          const share = length > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / length)) : 0;
          return Math.hypot(p.x - a.x - share * dx, p.y - a.y - share * dy);
        }),
      ),
    ),
  );
}

describe("a bent SVG", () => {
  const made = done(bend({ text: SVG, table: TABLE, place: AT }));
  const read = parseSvgDrawing(made.file, 0.001, true);
  if (!read.ok) throw new Error(read.message);

  it("is marked as it was drawn, within 2 micrometres", () => {
    const toField = { x: -40, y: -30 };
    expect(read.value.paths).toHaveLength(made.before.length);
    read.value.paths.forEach((path, i) => {
      const before = elementAt(made.before, i);
      expect(farthest(marked(path, toField), before)).toBeLessThan(0.002);
    });
    // Unbent it would be off by more than a tenth of a millimetre.
    const unbent = parseSvgDrawing(SVG, 0.001, true);
    const edge = unbent.ok ? elementAt(unbent.value.paths, 0) : { points: [], closed: false };
    expect(farthest(marked(edge, toField), elementAt(made.before, 0))).toBeGreaterThan(0.1);
  });

  it("keeps sheet, groups, ids, styles, copies and title", () => {
    expect(read.value).toMatchObject({ widthMm: 80, heightMm: 60, title: "Label" });
    expect(read.value.root.attributes.viewBox).toBe("0 0 800 600");
    const ids = read.value.paths.map((p) => p.within.map((n) => n.attributes.id ?? n.name).join("/"));
    expect(ids).toEqual(["frame/edge", "frame/inner/path", "g/leaf"]);
    expect(made.file).toContain("<style>.thin { stroke: black }</style>");
    expect(made.file).toContain('class="thin"');
    expect(made.file).toContain('stroke="red"');
    expect(made.file).not.toContain("translate(50 50)");
  });

  it("moves a text with its place, and leaves its letters", () => {
    expect(made.file).toContain("Acer &amp; <tspan>Quercus</tspan>");
    const [text] = read.value.texts;
    if (!text) throw new Error("no text");
    const place = {
      x: text.map.a * 400 + text.map.c * 500 + text.map.e,
      y: text.map.b * 400 + text.map.d * 500 + text.map.f,
    };
    const lies = mapPoint(HEAD, { x: place.x - 40, y: place.y - 30 });
    // Drawn at 40, 10 mm of the sheet.
    expect(lies.x).toBeCloseTo(0, 3);
    expect(lies.y).toBeCloseTo(-20, 3);
    expect(made.notes.map((n) => n.headline)).toEqual(["1 text is moved and turned, not bent."]);
  });

  it("names what lies outside the dots, by its group", () => {
    const out = done(bend({ text: SVG, table: TABLE, place: { x: 30, y: 0 } }));
    expect(out.outside.map((o) => o.name)).toContain("frame");
    expect(made.outside).toEqual([]);
    const frame = out.outside.find((o) => o.name === "frame");
    const beyond = out.beyond.reduce(
      (sum, { points: [p, q] }) => sum + Math.hypot((q?.x ?? 0) - (p?.x ?? 0), (q?.y ?? 0) - (p?.y ?? 0)),
      0,
    );
    expect(beyond).toBeCloseTo(
      out.outside.reduce((sum, o) => sum + o.mm, 0),
      6,
    );
    expect(frame?.mm).toBeGreaterThan(20);
  });
});

describe("a bent DXF", () => {
  const tags = (...all: (string | number)[]) => all.join("\n");
  const text = `${tags(0, "SECTION", 2, "HEADER", 9, "$INSUNITS", 70, 4, 0, "ENDSEC")}
${tags(0, "SECTION", 2, "ENTITIES")}
${tags(0, "LINE", 8, "cut", 10, -40, 20, -30, 11, 40, 21, -30)}
${tags(0, "CIRCLE", 8, "mark", 10, 10, 20, 10, 40, 12)}
${tags(0, "TEXT", 8, "words", 10, 30, 20, 25, 40, 3, 1, "Betula", 50, 0)}
${tags(0, "ENDSEC", 0, "EOF")}
`;

  it("keeps layers and texts, and is marked as it was drawn", () => {
    const made = done(bend({ text, table: TABLE, place: AT }));
    const read = parseDxf(made.file, 0.001, true);
    if (!read.ok) throw new Error(read.message);
    expect(read.value.paths.map((p) => p.layer)).toEqual(["cut", "mark"]);
    read.value.paths.forEach((path, i) => {
      expect(farthest(marked(path, AT), elementAt(made.before, i))).toBeLessThan(0.002);
    });
    const [word] = read.value.texts;
    expect(word).toMatchObject({ layer: "words", text: "Betula", heightMm: 3 });
    const lies = mapPoint(HEAD, word?.at ?? AT);
    expect(lies.x).toBeCloseTo(30, 4);
    expect(lies.y).toBeCloseTo(25, 4);
    expect(Math.abs(word?.turnDeg ?? 0)).toBeGreaterThan(0.1);
  });
});

describe("what cannot be bent", () => {
  it.each([
    ["nonsense", "what is this", /line 1/i],
    [
      "an SVG without a unit",
      '<svg xmlns="x" width="80" height="60"><path d="M0 0L5 5"/></svg>',
      /width and a height in mm/,
    ],
    [
      "a picture",
      '<svg xmlns="x" width="80mm" height="60mm" viewBox="0 0 80 60"><image href="a.png"/></svg>',
      /trace it first/,
    ],
    ["nothing", '<svg xmlns="x" width="80mm" height="60mm" viewBox="0 0 80 60"/>', /has no line/],
  ])("is %s", (_name, text, why) => {
    const made = bend({ text, table: TABLE, place: AT });
    expect(made.ok ? "" : made.message).toMatch(why);
  });
});
