/** A drawing that a solution makes, signed with the machine, its optic and the day. */
import { letterStrokes, textWidthMm } from "../../core/coupon/lettering";
import type { Piece } from "../../core/coupon/piece";
import type { Artefact } from "../../core/trial/outcome";
import type { Db } from "../../data/database";
import { fittedNow } from "../../data/parts";
import { Refusal } from "../refusal";
import { type FullTrial, historyOf } from "./trial-record";

const LINE_HEIGHTS = 1.7;

/** @throws Refusal while nothing of that name is made */
export function madeDrawing(db: Db, full: FullTrial, n: number, name: string, day: Date): Piece {
  const outcome = full.procedure.solve(historyOf(full, n));
  const made = outcome.status === "solved" ? outcome.artefacts.find((a) => a.name === name) : undefined;
  if (made?.kind !== "drawing")
    throw new Refusal("file", "This is not worked out yet: type its numbers in Correct first.");
  const optic = fittedNow(db, full.trial.machineId).optic?.label ?? "";
  return signed(made, [full.machine.name, optic, day.toISOString().slice(0, 10)].filter(Boolean));
}

/** One line each, in the area in which letters are largest, made smaller where they would not fit. */
export function signed(
  { piece, signed: { settings, areas, heightMm } }: Extract<Artefact, { kind: "drawing" }>,
  lines: readonly string[],
): Piece {
  const texts = lines.map((l) => l.toUpperCase());
  const longest = Math.max(...texts.map((t) => textWidthMm(t, heightMm)), 1e-9);
  const deep = (1 + (texts.length - 1) * LINE_HEIGHTS) * heightMm;
  const fits = areas.map((area) => ({
    area,
    height: heightMm * Math.min(1, (area.x1 - area.x0) / longest, (area.y1 - area.y0) / deep),
  }));
  const { area, height } = fits.reduce((a, b) => (b.height > a.height ? b : a));
  const lowest = (area.y0 + area.y1 - (deep / heightMm) * height) / 2;
  const strokes = texts.flatMap((text, i) => {
    const y = lowest + (texts.length - 1 - i) * LINE_HEIGHTS * height;
    return letterStrokes(text, { x: area.x0, y }, height);
  });
  return { ...piece, paths: [...strokes.map((points) => ({ points, closed: false, settings })), ...piece.paths] };
}
