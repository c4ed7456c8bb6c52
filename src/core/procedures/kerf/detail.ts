/** The close-up: part and hole with their cuts, the comb pushed together, or one mate with how it went in. */
import { type At, at, box, DATA, FAINT, INK, line, outline, type Pen, ring, words } from "../../drawing/close-up";
import type { Detail, Primitive } from "../../drawing/scene";
import { knownLengthDetail } from "../../measuring/known-length";
import type { Focus, History } from "../../trial/history";
import { lookedAt } from "../../trial/looked-at";
import { mateText } from "./mate-text";
import { isMateWay, type KerfPlan, offsetsOf } from "./plan";
import { mateSite, squareSites } from "./sites";

const RADIUS = 3.6;
/** Points of a circle. */
const ROUND = 48;

export function detailOf(history: History<KerfPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  const ofKnown = looked && knownLengthDetail(looked);
  if (!looked || ofKnown) return ofKnown;
  const { round, site, text } = looked;
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
      primitives: combPicture(plan, text, site.id.endsWith("y")),
    };
  const square = squareSites(plan).find((s) => s.id === site.id);
  if (!square) return null;
  return {
    ...common,
    note: "front below; the cut drawn far too wide",
    primitives: squarePicture(square.of, square.axis, square.near, text),
  };
}

const NOTES = {
  "tongue and slot": "the gap drawn far too wide",
  "plug and ring": "the gap drawn far too wide",
  "sheet slot": "the sheet on edge in its slot",
};

function squarePicture(of: "part" | "hole", axis: "x" | "y", near: "low" | "high", text: string): Primitive[] {
  const [half, cut] = [1.5, 0.32];
  const inner = half - cut;
  const size = of === "part" ? inner : half;
  const beside = (near === "low" ? -0.6 : 0.6) * inner;
  const [a, b] = axis === "x" ? [at(-size, beside), at(size, beside)] : [at(beside, -size), at(beside, size)];
  const wordsAt = axis === "x" ? at(0, beside + 0.2) : at(beside + (near === "low" ? 0.8 : -0.8), 0);
  return [
    box(-2.3, -2.3, 2.3, 2.3, FAINT),
    box(-half, -half, half, half, INK),
    box(-inner, -inner, inner, inner, INK),
    line(a, b, DATA),
    ring(a, 0.18),
    ring(b, 0.18),
    said(wordsAt, text),
  ];
}

function said(where: At, text: string): Primitive {
  return words(where, text, { tone: "data", size: 0.8 });
}

function combPicture(plan: KerfPlan, text: string, turned: boolean): Primitive[] {
  const strips = Math.min(plan.cuts - 1, 8);
  const [left, right, gap] = [-2.2, 2.2, 0.9];
  const width = (right - left - gap) / strips;
  const on = (along: number, across: number): At => (turned ? at(across, along) : at(along, across));
  const strip = (x0: number, x1: number, pen: Pen) =>
    outline([on(x0, -1.4), on(x1, -1.4), on(x1, 1.4), on(x0, 1.4)], pen);
  return [
    strip(left, right, INK),
    ...Array.from({ length: strips }, (_, i) => strip(left + i * width, left + (i + 1) * width, FAINT)),
    line(on(right - gap, 0), on(right, 0), DATA),
    ring(on(right - gap, 0), 0.16),
    ring(on(right, 0), 0.16),
    said(turned ? at(0, right + 0.3) : at(right - gap / 2, 1.7), text),
  ];
}

function matePicture(plan: KerfPlan, offset: number): Primitive[] {
  const value = mateText(plan, offset);
  const engraved = (y: number, size: number) => words(at(0, y), value, { tone: "ink", size });
  if (plan.way === "plug and ring")
    return [
      box(-2.2, -2.2, 2.2, 2.2, INK),
      outline(circle(1.5), INK),
      outline(circle(1.3), DATA),
      said(at(0, -0.25), value),
      engraved(-2.05, 0.5),
    ];
  const isSheet = plan.way === "sheet slot";
  return [
    outline(SLOT, INK),
    outline([...TONGUE, ...(isSheet ? SHEET : HANDLE)], DATA),
    engraved(-2, 0.6),
    ...(isSheet ? [] : [said(at(0, 1.2), value)]),
  ];
}

function circle(r: number): At[] {
  return Array.from({ length: ROUND }, (_, i) => {
    const angle = (2 * Math.PI * i) / ROUND;
    return at(r * Math.cos(angle), r * Math.sin(angle));
  });
}

const SLOT = [
  ...[at(-2.3, -2.2), at(-2.3, 0.2), at(-0.8, 0.2), at(-0.8, -1.3)],
  ...[at(0.8, -1.3), at(0.8, 0.2), at(2.3, 0.2), at(2.3, -2.2)],
];
const TONGUE = [at(-0.62, 0.7), at(-0.62, -0.9), at(0.62, -0.9), at(0.62, 0.7)];
const SHEET = [at(0.62, 2.2), at(-0.62, 2.2)];
const HANDLE = [at(2.3, 0.7), at(2.3, 2.2), at(-2.3, 2.2), at(-2.3, 0.7)];
