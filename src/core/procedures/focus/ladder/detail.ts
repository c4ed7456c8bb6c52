/** The close-up: the lines of one cell with the jaws on one of them, or how cells look by their height. */
import { ASKED, at, dimensionUp, line, mark, quarterTurn } from "../../../drawing/close-up";
import type { Detail, Primitive } from "../../../drawing/scene";
import type { Focus, History } from "../../../trial/history";
import { lookedAt } from "../../../trial/looked-at";
import type { LadderPlan } from "../plan";
import { MARKED_SITE, SHARPEST_SITE } from "./coupon";

/** What the sharpest looks like, on card and on metal. (common practice, no source) */
const SHARPEST = {
  gantry: "thinnest dark lines with clean edges",
  galvo: "brightest, or thinnest with clean edges",
} as const;
const RADIUS = 3.4;
const [LINE_GAP, LINE_WIDTH] = [1.5, 0.5];
/** How wide lines look from cell to cell across focus. */
const ACROSS_FOCUS = [0, 0.45, 0.2, 0.45, 0];

export function detailOf(history: History<LadderPlan>, focus: Focus): Detail | null {
  const looked = lookedAt(history, focus);
  if (!looked) return null;
  const { site, value, text } = looked;
  if (site.id === MARKED_SITE || site.id === SHARPEST_SITE)
    return {
      title: `Detail, ${site.label.toLowerCase()}`,
      note:
        site.id === MARKED_SITE
          ? "any trace of a mark counts"
          : SHARPEST[history.machine.kind === "galvo" ? "galvo" : "gantry"],
      radius: RADIUS,
      primitives: ladderOfLines(site.id === SHARPEST_SITE),
    };
  const level = [
    ...[-1, 0, 1].map((k) => mark(at(-RADIUS, k * LINE_GAP), at(RADIUS, k * LINE_GAP), LINE_WIDTH)),
    ...jaws(text),
  ];
  const { measurand } = site;
  const isUpright = measurand.kind === "width" && measurand.of.kind === "line" && measurand.of.along === "y";
  return {
    title: `Detail, ${site.label}`,
    note: value === null ? "not read yet: width drawn as an example" : "width drawn as an example",
    radius: RADIUS,
    primitives: isUpright ? level.map(quarterTurn) : level,
  };
}

function ladderOfLines(ringsSharpest: boolean): Primitive[] {
  const pitch = (2 * RADIUS) / ACROSS_FOCUS.length;
  return ACROSS_FOCUS.flatMap((width, i): Primitive[] => {
    const x = -RADIUS + (i + 0.5) * pitch;
    const half = pitch * 0.36;
    // Round ends reach half a width further.
    const lines =
      width === 0
        ? []
        : [-0.75, 0, 0.75].map((y) => mark(at(x - half + width / 2, y), at(x + half - width / 2, y), width));
    const isPointedAt = ringsSharpest ? i === 2 : i === 1 || i === 3;
    const cell: Primitive = {
      kind: "cell",
      x0: x - pitch * 0.44,
      y0: -1.3,
      x1: x + pitch * 0.44,
      y1: 1.3,
      label: "",
      tone: isPointedAt ? "needs you" : "faint",
    };
    return [...lines, cell];
  });
}

/** Over and under the middle line, and the dimension between them. */
function jaws(text: string): Primitive[] {
  const half = LINE_WIDTH / 2;
  return [
    line(at(0.4, half), at(2.2, half), ASKED),
    line(at(0.4, -half), at(2.2, -half), ASKED),
    dimensionUp(at(1.8, -half), at(1.8, half), 1.8, text, "needs you"),
  ];
}
