/** A small drawing of the array, with the cell in question. */
import type { Detail, Primitive } from "../../drawing/scene";
import type { Focus, History } from "../../trial/history";
import { arrayCells } from "./cells";
import { depthSite } from "./coupon";
import { areaOf, needOf } from "./layout";
import type { TestArrayPlan } from "./plan";

const RADIUS = 4;

export function detailOf(history: History<TestArrayPlan>, { site }: Focus): Detail | null {
  const round = history.rounds.at(-1);
  if (!round) return null;
  const { plan } = round;
  const { widthMm, heightMm } = needOf(plan);
  const scale = (1.35 * RADIUS) / Math.max(widthMm, heightMm);
  const primitives = arrayCells(plan, history.machine).map((cell): Primitive => {
    const { x0, y0, x1, y1 } = areaOf(plan, cell.place);
    const place = (x: number, y: number) => ({ x: (x - widthMm / 2) * scale, y: (y - heightMm / 2) * scale });
    const [low, high] = [place(x0, y0), place(x1, y1)];
    return {
      kind: "cell",
      x0: low.x,
      y0: low.y,
      x1: high.x,
      y1: high.y,
      label: "",
      tone: depthSite(cell) === site ? "needs you" : cell.leftOut ? "faint" : "ink",
    };
  });
  return { title: "The array", note: "cells that are left out are pale", radius: RADIUS, primitives };
}
