/** The close-up: the part seen along its axis with the lines on it, the lines side by side, or the part between the jaws. */
import { letterStrokes } from "../../coupon/lettering";
import type { Detail, Primitive } from "../../drawing/scene";
import { shownNumber } from "../../metrology/quantity-text";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import type { Focus, History } from "../../trial/history";
import { LANES } from "./layout";
import { isBurned, type RotaryPlan, sentMm } from "./plan";
import { STANDS } from "./sites";
import { SITES } from "./travel";

const RADIUS = 3.6;
const PART = 1.7;
const ROUND_POINTS = 48;

type Point = { x: number; y: number };
type Tone = "ink" | "faint" | "data" | "needs you";

export function detailOf(history: History<RotaryPlan>, focus: Focus): Detail | null {
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const value = focus.typed ?? quantitiesAt(round.answers, site.id).at(-1) ?? null;
  const words = value === null ? "?" : shownNumber(Math.abs(value), lengthUnitOf(history), 2);
  const common = { title: `Detail, ${site.label}`, radius: RADIUS, strip: { low: -2.8, high: 2.8 } };
  switch (site.id) {
    case SITES.marked:
    case SITES.resting:
      return { ...common, note: "seen along its axis", primitives: partDrawn(round.plan.sizedBy, words) };
    case SITES.gap:
      return {
        ...common,
        note: "between facing edges; drawn far too large",
        primitives: lanesDrawn("last", value ?? 1, words, true),
      };
    case SITES.back:
      return {
        ...common,
        note: "from the same edge of both; drawn far too large",
        primitives: lanesDrawn("back", value ?? 1, words, false),
      };
    case SITES.words:
      if (!isBurned(round.plan)) break;
      return { ...common, note: "how the words may stand", primitives: wordsDrawn(round.plan) };
    case SITES.width:
      return { ...common, note: "across the line", primitives: widthDrawn(words) };
  }
  const primitives = turnedDrawn(round.plan, site.id, words);
  return { ...common, note: "seen along its axis; not to scale", primitives };
}

function line(points: Point[], tone: Tone, weight: "thin" | "heavy" = "thin", closed = false): Primitive {
  return { kind: "stroke", points, closed, weight, widthMm: 0, dashed: tone === "faint", tone };
}

function text(at: Point, said: string, tone: Tone = "data"): Primitive {
  return { kind: "text", at, text: said, size: 0.9, anchor: "middle", tone };
}

/** From the top on, the way in which the surface goes by: what is marked later lies farther back. */
function onRim(radius: number, turned: number): Point {
  const angle = Math.PI / 2 + turned;
  return { x: radius * Math.cos(angle), y: radius * Math.sin(angle) };
}

function rim(radius: number, from: number, to: number): Point[] {
  return Array.from({ length: ROUND_POINTS + 1 }, (_, i) => onRim(radius, from + ((to - from) * i) / ROUND_POINTS));
}

function partDrawn(by: RotaryPlan["sizedBy"], words: string): Primitive[] {
  const circle = line(rim(PART, 0, 2 * Math.PI), "ink", "thin", true);
  if (by === "around")
    return [circle, line(rim(PART + 0.18, 0, 2 * Math.PI), "data", "heavy", true), text({ x: 0, y: 0 }, words)];
  const jaw = (side: 1 | -1) =>
    line(
      [
        { x: side * PART, y: -1 },
        { x: side * PART, y: 2.4 },
      ],
      "faint",
    );
  return [
    circle,
    ...[jaw(1), jaw(-1)],
    {
      kind: "dimension",
      from: { x: -PART, y: 0 },
      to: { x: PART, y: 0 },
      along: "x",
      at: 0,
      text: words,
      tone: "data",
    },
  ];
}

/** Lines side by side in their lanes. */
function lanesDrawn(lane: "last" | "back", value: number, words: string, facing: boolean): Primitive[] {
  const off = value === 0 ? 0 : Math.sign(value) * (lane === "last" ? -APART : APART);
  const index = LANES.indexOf(lane);
  const low = -off / 2;
  const [first, second] = [low, low + off];
  const inset = facing ? Math.sign(off) * HALF_LINE : 0;
  const bar = (at: number, y: number): Primitive => ({
    kind: "stroke",
    closed: false,
    weight: "mark",
    widthMm: 2 * HALF_LINE,
    dashed: false,
    tone: "ink",
    points: [
      { x: laneX(at), y },
      { x: laneX(at) + LANE, y },
    ],
  });
  const edge = (at: number, y: number) =>
    line(
      [
        { x: laneX(at) + LANE, y },
        { x: DIMENSION_X, y },
      ],
      "faint",
    );
  const [from, to] = [first + inset, second - inset];
  return [
    ...[edge(0, from), edge(index, to), bar(0, first), bar(index, second)],
    text({ x: laneX(0) + LANE / 2, y: first + 0.35 }, "1", "ink"),
    text({ x: laneX(index) + LANE / 2, y: second + 0.35 }, lane === "last" ? "2" : "3", "ink"),
    {
      kind: "dimension",
      from: { x: DIMENSION_X, y: from },
      to: { x: DIMENSION_X, y: to },
      along: "y",
      at: DIMENSION_X,
      text: words,
      tone: "data",
    },
  ];
}

const [APART, HALF_LINE, LANE, DIMENSION_X] = [1.3, 0.09, 1.4, 2.5];

function laneX(index: number): number {
  return -2.7 + index * (LANE + 0.2);
}

/** What is burned, as it is drawn, and as it comes out where the part turns the other way. */
function wordsDrawn({ replaces }: RotaryPlan): Primitive[] {
  const at = (y: number, flip: 1 | -1): Primitive[] =>
    letterStrokes("R27", { x: 0, y: 0 }, LETTERS, "middle").map((points) =>
      line(
        points.map((p) =>
          replaces === "y"
            ? { x: p.x, y: y + flip * (p.y - LETTERS / 2) }
            : { x: flip * p.x, y: y + p.y - LETTERS / 2 },
        ),
        "ink",
        "heavy",
      ),
    );
  return [
    ...at(1.7, 1),
    text({ x: 0, y: 0.3 }, STANDS.drawn, "ink"),
    ...at(-0.9, -1),
    text({ x: 0, y: -2.3 }, STANDS.mirrored, "ink"),
  ];
}

/** Height of the letters as they are drawn there. */
const LETTERS = 1;

function widthDrawn(words: string): Primitive[] {
  return [
    {
      kind: "stroke",
      closed: false,
      weight: "mark",
      widthMm: 1.2,
      dashed: false,
      tone: "ink",
      points: [
        { x: -2.4, y: 0 },
        { x: 1, y: 0 },
      ],
    },
    {
      kind: "dimension",
      from: { x: 1, y: -0.6 },
      to: { x: 1, y: 0.6 },
      along: "y",
      at: 1.8,
      text: words,
      tone: "data",
    },
  ];
}

/** The part with its first and last line, and what lies between them. */
function turnedDrawn(plan: RotaryPlan, site: string, words: string): Primitive[] {
  const turned = Math.min(1.94 * Math.PI, (2 * sentMm(plan)) / plan.diameterMm);
  const mark = (at: number) => line([onRim(PART - 0.2, at), onRim(PART + 0.35, at)], "ink", "heavy");
  const isLength = site === SITES.span || site === SITES.line;
  return [
    line(rim(PART, 0, 2 * Math.PI), "ink", "thin", true),
    mark(0),
    mark(turned),
    text(onRim(PART + 0.75, 0), "1", "ink"),
    text(onRim(PART + 0.75, turned), "2", "ink"),
    line(rim(PART + 0.12, 0, turned), isLength ? "data" : "faint", isLength ? "heavy" : "thin"),
    ...(site === SITES.first || site === SITES.again ? [ring(onRim(PART, 0))] : []),
    ...(site === SITES.second ? [ring(onRim(PART, turned))] : []),
    text({ x: 0, y: -0.2 }, site === SITES.words || site === SITES.turns ? "" : words),
  ].filter((p) => p.kind !== "text" || p.text !== "");
}

function ring(at: Point): Primitive {
  return { kind: "highlight", at, radiusMm: 0.3, sign: "ring", tone: "needs you" };
}
