/** The close-up: part and hole with their cuts, the comb pushed together, or one mate with how it went in. */
import type { Detail, Primitive } from "../../drawing/scene";
import { knownLengthDetail } from "../../measuring/known-length";
import { shownNumber } from "../../metrology/quantity-text";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import type { Focus, History } from "../../trial/history";
import { mateText } from "./mate-text";
import { isMateWay, type KerfPlan, offsetsOf } from "./plan";
import { mateSite, squareSites } from "./sites";

const RADIUS = 3.6;

type Point = { x: number; y: number };

function line(points: Point[], tone: "ink" | "faint" | "data", closed = true): Primitive {
  return {
    kind: "stroke",
    closed,
    widthMm: 0,
    points,
    tone,
    weight: tone === "data" ? "heavy" : "thin",
    dashed: tone === "faint",
  };
}

function box(x0: number, y0: number, x1: number, y1: number, tone: "ink" | "faint" | "data"): Primitive {
  return line(
    [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ],
    tone,
  );
}

function text(at: Point, words: string, tone: "ink" | "data" = "data", size = 0.8): Primitive {
  return { kind: "text", at, text: words, size, anchor: "middle", tone };
}

export function detailOf(history: History<KerfPlan>, focus: Focus): Detail | null {
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const value = focus.typed ?? quantitiesAt(round.answers, site.id).at(-1) ?? null;
  const words = value === null ? "?" : shownNumber(value, lengthUnitOf(history), 2);
  const ofKnown = knownLengthDetail(site, value === null ? null : words);
  if (ofKnown) return ofKnown;
  const { plan } = round;
  const common = { title: `Detail, ${site.label}`, radius: RADIUS, strip: { low: -2.6, high: 2.6 } };
  if (isMateWay(plan.way)) {
    const index = offsetsOf(plan).findIndex((_, i) => mateSite(i) === site.id);
    return { ...common, note: NOTES[plan.way], primitives: matePicture(plan, offsetsOf(plan)[index] ?? 0) };
  }
  if (plan.way === "comb")
    return {
      ...common,
      note: "strips pushed together; cuts drawn far too wide",
      primitives: combPicture(plan, words, site.id.endsWith("y")),
    };
  const square = squareSites(plan).find((s) => s.id === site.id);
  if (!square) return null;
  return {
    ...common,
    note: "front below; the cut drawn far too wide",
    primitives: squarePicture(square.of, square.axis, square.near, words),
  };
}

const NOTES = {
  "tongue and slot": "the gap drawn far too wide",
  "plug and ring": "the gap drawn far too wide",
  "sheet slot": "the sheet on edge in its slot",
};

function squarePicture(of: "part" | "hole", axis: "x" | "y", near: "low" | "high", words: string): Primitive[] {
  const [half, cut] = [1.5, 0.32];
  const inner = half - cut;
  const size = of === "part" ? inner : half;
  const beside = (near === "low" ? -0.6 : 0.6) * inner;
  const [a, b]: [Point, Point] =
    axis === "x"
      ? [
          { x: -size, y: beside },
          { x: size, y: beside },
        ]
      : [
          { x: beside, y: -size },
          { x: beside, y: size },
        ];
  return [
    box(-2.3, -2.3, 2.3, 2.3, "faint"),
    box(-half, -half, half, half, "ink"),
    box(-inner, -inner, inner, inner, "ink"),
    line([a, b], "data", false),
    { kind: "highlight", at: a, radiusMm: 0.18, sign: "ring", tone: "needs you" },
    { kind: "highlight", at: b, radiusMm: 0.18, sign: "ring", tone: "needs you" },
    text({ x: axis === "x" ? 0 : beside + (near === "low" ? 0.8 : -0.8), y: axis === "x" ? beside + 0.2 : 0 }, words),
  ];
}

function combPicture(plan: KerfPlan, words: string, turned: boolean): Primitive[] {
  const strips = Math.min(plan.cuts - 1, 8);
  const [left, right, gap] = [-2.2, 2.2, 0.9];
  const width = (right - left - gap) / strips;
  const at = (along: number, across: number): Point => (turned ? { x: across, y: along } : { x: along, y: across });
  const outline = (x0: number, x1: number, tone: "ink" | "faint") =>
    line([at(x0, -1.4), at(x1, -1.4), at(x1, 1.4), at(x0, 1.4)], tone);
  return [
    outline(left, right, "ink"),
    ...Array.from({ length: strips }, (_, i) => outline(left + i * width, left + (i + 1) * width, "faint")),
    line([at(right - gap, 0), at(right, 0)], "data", false),
    { kind: "highlight", at: at(right - gap, 0), radiusMm: 0.16, sign: "ring", tone: "needs you" },
    { kind: "highlight", at: at(right, 0), radiusMm: 0.16, sign: "ring", tone: "needs you" },
    text(turned ? { x: 0, y: right + 0.3 } : { x: right - gap / 2, y: 1.7 }, words),
  ];
}

function matePicture(plan: KerfPlan, offset: number): Primitive[] {
  const value = mateText(plan, offset);
  if (plan.way === "plug and ring") {
    const round = (r: number): Point[] =>
      Array.from({ length: 48 }, (_, i) => ({
        x: r * Math.cos((i * Math.PI) / 24),
        y: r * Math.sin((i * Math.PI) / 24),
      }));
    return [
      box(-2.2, -2.2, 2.2, 2.2, "ink"),
      line(round(1.5), "ink"),
      line(round(1.3), "data"),
      text({ x: 0, y: -0.25 }, value),
      text({ x: 0, y: -2.05 }, value, "ink", 0.5),
    ];
  }
  const slot: Point[] = [
    { x: -2.3, y: -2.2 },
    { x: -2.3, y: 0.2 },
    { x: -0.8, y: 0.2 },
    { x: -0.8, y: -1.3 },
    { x: 0.8, y: -1.3 },
    { x: 0.8, y: 0.2 },
    { x: 2.3, y: 0.2 },
    { x: 2.3, y: -2.2 },
  ];
  const tongue: Point[] = [
    { x: -0.62, y: -0.9 },
    { x: 0.62, y: -0.9 },
    { x: 0.62, y: 0.7 },
    ...(plan.way === "sheet slot"
      ? [
          { x: 0.62, y: 2.2 },
          { x: -0.62, y: 2.2 },
        ]
      : [
          { x: 2.3, y: 0.7 },
          { x: 2.3, y: 2.2 },
          { x: -2.3, y: 2.2 },
          { x: -2.3, y: 0.7 },
        ]),
    { x: -0.62, y: 0.7 },
  ];
  return [
    line(slot, "ink"),
    line(tongue, "data"),
    text({ x: 0, y: -2 }, value, "ink", 0.6),
    ...(plan.way === "sheet slot" ? [] : [text({ x: 0, y: 1.2 }, value)]),
  ];
}
