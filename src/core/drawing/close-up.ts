/** The pens of a close-up, the things that it draws with them, and the same picture turned. */
import type { Primitive, Tone } from "./scene";

export type At = { x: number; y: number };

/** A thin full line unless it says otherwise. */
export type Pen = { tone: Tone; weight?: "hair" | "thin" | "heavy"; dashed?: true };

export const INK: Pen = { tone: "ink" };
export const FAINT: Pen = { tone: "faint", dashed: true };
/** What is measured. */
export const DATA: Pen = { tone: "data", weight: "heavy" };
/** Where the jaws go. */
export const ASKED: Pen = { tone: "needs you" };

export const at = (x: number, y: number): At => ({ x, y });

export function path(points: At[], { tone, weight = "thin", dashed }: Pen, closed = false): Primitive {
  return { kind: "stroke", points, closed, weight, widthMm: 0, dashed: dashed ?? false, tone };
}

export function line(from: At, to: At, pen: Pen): Primitive {
  return path([from, to], pen);
}

export function outline(points: At[], pen: Pen): Primitive {
  return path(points, pen, true);
}

export function box(x0: number, y0: number, x1: number, y1: number, pen: Pen): Primitive {
  return outline([at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)], pen);
}

/** A mark as wide as it is burned. */
export function mark(from: At, to: At, widthMm: number, tone: Tone = "ink"): Primitive {
  return { kind: "stroke", points: [from, to], closed: false, weight: "mark", widthMm, dashed: false, tone };
}

export function words(where: At, text: string, { tone, size = 1 }: { tone: Tone; size?: number }): Primitive {
  return { kind: "text", at: where, text, size, anchor: "middle", tone };
}

export function ring(where: At, radiusMm: number): Primitive {
  return { kind: "highlight", at: where, radiusMm, sign: "ring", tone: "needs you" };
}

/** Along X, its line at this height. */
export function dimensionAcross(from: At, to: At, y: number, text: string, tone: Tone = "data"): Primitive {
  return { kind: "dimension", from, to, along: "x", at: y, text, tone };
}

/** Along Y, its line at this X. */
export function dimensionUp(from: At, to: At, x: number, text: string, tone: Tone = "data"): Primitive {
  return { kind: "dimension", from, to, along: "y", at: x, text, tone };
}

/** A quarter turn counter-clockwise. */
export function quarterTurn(primitive: Primitive): Primitive {
  const turn = ({ x, y }: At) => at(-y, x);
  switch (primitive.kind) {
    case "stroke":
      return { ...primitive, points: primitive.points.map(turn) };
    case "text":
    case "highlight":
      return { ...primitive, at: turn(primitive.at) };
    case "dimension":
      return {
        ...primitive,
        from: turn(primitive.from),
        to: turn(primitive.to),
        along: primitive.along === "x" ? "y" : "x",
        at: primitive.along === "x" ? -primitive.at : primitive.at,
      };
    default:
      return primitive;
  }
}
