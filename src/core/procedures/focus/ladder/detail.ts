/** The close-up: the lines of one cell with the jaws on one of them, or how cells look by their height. */
import type { Detail, Primitive, Tone } from "../../../drawing/scene";
import { shownNumber } from "../../../metrology/quantity-text";
import { quantitiesAt } from "../../../trial/answer";
import { lengthUnitOf } from "../../../trial/decisions";
import type { Focus, History } from "../../../trial/history";
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
  const round = history.rounds.at(-1);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
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
  const read = quantitiesAt(round.answers, site.id);
  const value = focus.typed ?? read.at(-1) ?? null;
  const level = [
    ...[-1, 0, 1].map((k) => line(-RADIUS, RADIUS, k * LINE_GAP, LINE_WIDTH, "ink")),
    ...jaws(value === null ? "?" : shownNumber(value, lengthUnitOf(history), 2)),
  ];
  const { measurand } = site;
  const isUpright = measurand.kind === "width" && measurand.of.kind === "line" && measurand.of.along === "y";
  return {
    title: `Detail, ${site.label}`,
    note: value === null ? "not read yet: width drawn as an example" : "width drawn as an example",
    radius: RADIUS,
    primitives: isUpright ? level.map(turned) : level,
  };
}

/** With X and Y exchanged. */
function turned(primitive: Primitive): Primitive {
  const swap = ({ x, y }: { x: number; y: number }) => ({ x: y, y: x });
  if (primitive.kind === "stroke") return { ...primitive, points: primitive.points.map(swap) };
  if (primitive.kind !== "dimension") return primitive;
  return {
    ...primitive,
    from: swap(primitive.from),
    to: swap(primitive.to),
    along: primitive.along === "y" ? "x" : "y",
  };
}

function ladderOfLines(ringsSharpest: boolean): Primitive[] {
  const pitch = (2 * RADIUS) / ACROSS_FOCUS.length;
  return ACROSS_FOCUS.flatMap((width, i): Primitive[] => {
    const x = -RADIUS + (i + 0.5) * pitch;
    const half = pitch * 0.36;
    // Round ends reach half a width further.
    const lines =
      width === 0 ? [] : [-0.75, 0, 0.75].map((y) => line(x - half + width / 2, x + half - width / 2, y, width, "ink"));
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

function line(x0: number, x1: number, y: number, widthMm: number, tone: Tone): Primitive {
  return {
    kind: "stroke",
    closed: false,
    weight: "mark",
    widthMm,
    dashed: false,
    tone,
    points: [
      { x: x0, y },
      { x: x1, y },
    ],
  };
}

/** Over and under the middle line, and the dimension between them. */
function jaws(text: string): Primitive[] {
  const tone: Tone = "needs you";
  const half = LINE_WIDTH / 2;
  const edge = (y: number): Primitive => ({
    kind: "stroke",
    closed: false,
    weight: "thin",
    widthMm: 0,
    dashed: false,
    tone,
    points: [
      { x: 0.4, y },
      { x: 2.2, y },
    ],
  });
  return [
    edge(half),
    edge(-half),
    { kind: "dimension", from: { x: 1.8, y: -half }, to: { x: 1.8, y: half }, along: "y", at: 1.8, text, tone },
  ];
}
