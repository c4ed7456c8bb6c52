/** The close-up of where it is measured: the bar between the jaws, not to scale. */
import type { Detail, Primitive } from "../../drawing/scene";

const [HALF_LENGTH, HALF_WIDTH, JAW] = [1.2, 0.3, 0.9];

export function detailOf(): Detail {
  const stroke = (x0: number, y0: number, x1: number, y1: number, tone: "ink" | "data"): Primitive => ({
    kind: "stroke",
    closed: false,
    weight: "heavy",
    widthMm: 0,
    dashed: false,
    tone,
    points: [
      { x: x0, y: y0 },
      { x: x1, y: y1 },
    ],
  });
  const rows = [-1, 0, 1].map((k) => stroke(-HALF_LENGTH, k * HALF_WIDTH, HALF_LENGTH, k * HALF_WIDTH, "ink"));
  const jaws = [-HALF_LENGTH, HALF_LENGTH].map((x) => stroke(x, -JAW, x, JAW, "data"));
  return { title: "Detail, the bar", note: "not to scale", radius: 2, primitives: [...rows, ...jaws] };
}
