/** The close-up of where it is measured: the bar between the jaws, not to scale. */
import { at, DATA, line, type Pen } from "../../drawing/close-up";
import type { Detail } from "../../drawing/scene";

const [HALF_LENGTH, HALF_WIDTH, JAW] = [1.2, 0.3, 0.9];
const ROW: Pen = { tone: "ink", weight: "heavy" };

export function detailOf(): Detail {
  const rows = [-1, 0, 1].map((k) => line(at(-HALF_LENGTH, k * HALF_WIDTH), at(HALF_LENGTH, k * HALF_WIDTH), ROW));
  const jaws = [-HALF_LENGTH, HALF_LENGTH].map((x) => line(at(x, -JAW), at(x, JAW), DATA));
  return { title: "Detail, the bar", note: "not to scale", radius: 2, primitives: [...rows, ...jaws] };
}
