/** The close-up: the part seen along its axis with the lines on it, the lines side by side, or the part between the jaws. */
import { letterStrokes } from "../../coupon/lettering";
import {
  type At,
  at,
  DATA,
  dimensionAcross,
  dimensionUp,
  FAINT,
  INK,
  line,
  mark,
  outline,
  type Pen,
  path,
  ring,
  words,
} from "../../drawing/close-up";
import type { Detail, Primitive } from "../../drawing/scene";
import type { Focus, History } from "../../trial/history";
import { lookedAt } from "../../trial/looked-at";
import { LANES } from "./layout";
import { isBurned, type RotaryPlan, sentMm } from "./plan";
import { STANDS } from "./sites";
import { SITES } from "./travel";

const RADIUS = 3.6;
const PART = 1.7;
const ROUND_POINTS = 48;

const HEAVY: Pen = { tone: "ink", weight: "heavy" };

export function detailOf(history: History<RotaryPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  if (!looked) return null;
  const { round, site, value, text } = looked;
  const common = { title: `Detail, ${site.label}`, radius: RADIUS, strip: { low: -2.8, high: 2.8 } };
  switch (site.id) {
    case SITES.marked:
    case SITES.resting:
      return { ...common, note: "seen along its axis", primitives: partDrawn(round.plan.sizedBy, text) };
    case SITES.gap:
      return {
        ...common,
        note: "between facing edges; drawn far too large",
        primitives: lanesDrawn("last", value ?? 1, text, true),
      };
    case SITES.back:
      return {
        ...common,
        note: "from the same edge of both; drawn far too large",
        primitives: lanesDrawn("back", value ?? 1, text, false),
      };
    case SITES.words:
      if (!isBurned(round.plan)) break;
      return { ...common, note: "how the words may stand", primitives: wordsDrawn(round.plan) };
    case SITES.width:
      return { ...common, note: "across the line", primitives: widthDrawn(text) };
  }
  const primitives = turnedDrawn(round.plan, site.id, text);
  return { ...common, note: "seen along its axis; not to scale", primitives };
}

function said(where: At, text: string, tone: "ink" | "data" = "data"): Primitive {
  return words(where, text, { tone, size: 0.9 });
}

/** From the top on, the way in which the surface goes by: what is marked later lies farther back. */
function onRim(radius: number, turned: number): At {
  const angle = Math.PI / 2 + turned;
  return at(radius * Math.cos(angle), radius * Math.sin(angle));
}

function rim(radius: number, from: number, to: number): At[] {
  return Array.from({ length: ROUND_POINTS + 1 }, (_, i) => onRim(radius, from + ((to - from) * i) / ROUND_POINTS));
}

function partDrawn(by: RotaryPlan["sizedBy"], text: string): Primitive[] {
  const circle = outline(rim(PART, 0, 2 * Math.PI), INK);
  if (by === "around") return [circle, outline(rim(PART + 0.18, 0, 2 * Math.PI), DATA), said(at(0, 0), text)];
  return [
    circle,
    line(at(PART, -1), at(PART, 2.4), FAINT),
    line(at(-PART, -1), at(-PART, 2.4), FAINT),
    dimensionAcross(at(-PART, 0), at(PART, 0), 0, text),
  ];
}

/** Lines side by side in their lanes. */
function lanesDrawn(lane: "last" | "back", value: number, text: string, facing: boolean): Primitive[] {
  const off = value === 0 ? 0 : Math.sign(value) * (lane === "last" ? -APART : APART);
  const index = LANES.indexOf(lane);
  const [first, second] = [-off / 2, off / 2];
  const inset = facing ? Math.sign(off) * HALF_LINE : 0;
  const bar = (i: number, y: number) => mark(at(laneX(i), y), at(laneX(i) + LANE, y), 2 * HALF_LINE);
  const edge = (i: number, y: number) => line(at(laneX(i) + LANE, y), at(DIMENSION_X, y), FAINT);
  const [from, to] = [first + inset, second - inset];
  return [
    ...[edge(0, from), edge(index, to), bar(0, first), bar(index, second)],
    said(at(laneX(0) + LANE / 2, first + 0.35), "1", "ink"),
    said(at(laneX(index) + LANE / 2, second + 0.35), lane === "last" ? "2" : "3", "ink"),
    dimensionUp(at(DIMENSION_X, from), at(DIMENSION_X, to), DIMENSION_X, text),
  ];
}

const [APART, HALF_LINE, LANE, DIMENSION_X] = [1.3, 0.09, 1.4, 2.5];

function laneX(index: number): number {
  return -2.7 + index * (LANE + 0.2);
}

/** What is burned, as it is drawn, and as it comes out where the part turns the other way. */
function wordsDrawn({ replaces }: RotaryPlan): Primitive[] {
  const letters = (y: number, flip: 1 | -1): Primitive[] =>
    letterStrokes("R27", { x: 0, y: 0 }, LETTERS, "middle").map((points) =>
      path(
        points.map((p) =>
          replaces === "y" ? at(p.x, y + flip * (p.y - LETTERS / 2)) : at(flip * p.x, y + p.y - LETTERS / 2),
        ),
        HEAVY,
      ),
    );
  return [
    ...letters(1.7, 1),
    said(at(0, 0.3), STANDS.drawn, "ink"),
    ...letters(-0.9, -1),
    said(at(0, -2.3), STANDS.mirrored, "ink"),
  ];
}

/** Height of the letters as they are drawn there. */
const LETTERS = 1;

function widthDrawn(text: string): Primitive[] {
  return [mark(at(-2.4, 0), at(1, 0), 1.2), dimensionUp(at(1, -0.6), at(1, 0.6), 1.8, text)];
}

/** The part with its first and last line, and what lies between them. */
function turnedDrawn(plan: RotaryPlan, site: string, text: string): Primitive[] {
  const turned = Math.min(1.94 * Math.PI, (2 * sentMm(plan)) / plan.diameterMm);
  const across = (angle: number) => line(onRim(PART - 0.2, angle), onRim(PART + 0.35, angle), HEAVY);
  const isLength = site === SITES.span || site === SITES.line;
  const isSaid = site !== SITES.words && site !== SITES.turns;
  return [
    outline(rim(PART, 0, 2 * Math.PI), INK),
    across(0),
    across(turned),
    said(onRim(PART + 0.75, 0), "1", "ink"),
    said(onRim(PART + 0.75, turned), "2", "ink"),
    path(rim(PART + 0.12, 0, turned), isLength ? DATA : FAINT),
    ...(site === SITES.first || site === SITES.again ? [ring(onRim(PART, 0), 0.3)] : []),
    ...(site === SITES.second ? [ring(onRim(PART, turned), 0.3)] : []),
    ...(isSaid ? [said(at(0, -0.2), text)] : []),
  ];
}
