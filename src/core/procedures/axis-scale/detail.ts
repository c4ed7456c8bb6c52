/** The close-up of what is measured: from the same edge of tick 0 to the same edge of this tick, the rule along the guide line. */
import type { Detail, Primitive } from "../../drawing/scene";
import { knownLengthDetail } from "../../measuring/known-length";
import { shownNumber } from "../../metrology/quantity-text";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import type { Focus, History } from "../../trial/history";
import { placesOf } from "./places";
import type { AxisScalePlan } from "./plan";

const NOTES = {
  side: "top face; not to scale",
  readout: "the number that the machine showed",
  distance: "from the same edge of both; not to scale",
  tick: "from the same edge of both; not to scale",
} as const;
const RADIUS = 3.4;
const [HALF, LINE, TICK] = [2, 0.34, 1.1];

export function detailOf(history: History<AxisScalePlan>, focus: Focus): Detail | null {
  const round = history.rounds.at(-1);
  const place = round && placesOf(round.plan).find((p) => p.site === focus.site);
  const site = round?.spec.sites.find((s) => s.id === focus.site);
  if (!round || !site) return null;
  const value = focus.typed ?? quantitiesAt(round.answers, site.id).at(-1) ?? null;
  const text = value === null ? "?" : shownNumber(value, lengthUnitOf(history), 2);
  if (!place) return knownLengthDetail(site, value === null ? null : text);
  const turned = place.axis === "y";
  const turn = (p: { x: number; y: number }) => (turned ? { x: -p.y, y: p.x } : p);
  const primitives = place.kind === "side" ? partDrawn(place.of, text) : marksDrawn(place, text);
  return {
    title: `Detail, ${site.label}`,
    note: NOTES[place.kind],
    radius: RADIUS,
    strip: { low: -3.1, high: 2.2 },
    primitives: primitives.map((p) => turnedBy(p, turn, turned)),
  };
}

function stroke(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  tone: "ink" | "data" | "faint",
  widthMm = 0,
): Primitive {
  return {
    kind: "stroke",
    closed: false,
    weight: widthMm > 0 ? "mark" : "thin",
    widthMm,
    dashed: tone === "faint",
    tone,
    points: [
      { x: x0, y: y0 },
      { x: x1, y: y1 },
    ],
  };
}

/** Marks on their guide line, the arrows at the same edge; of a readout the mark that it belongs to. */
function marksDrawn(place: ReturnType<typeof placesOf>[number], text: string): Primitive[] {
  const edge = -LINE / 2;
  const [first, last] = place.kind === "tick" ? ["0", String(place.index)] : ["1", "2"];
  const asked: Primitive[] =
    place.kind === "readout"
      ? [
          { kind: "highlight", at: { x: markX(place.end), y: 0 }, radiusMm: 0.7, sign: "ring", tone: "needs you" },
          label(markX(place.end), -TICK - 1, text),
        ]
      : [
          {
            kind: "dimension",
            from: { x: -HALF + edge, y: -TICK },
            to: { x: HALF + edge, y: -TICK },
            along: "x",
            at: -TICK - 0.75,
            text,
            tone: "data",
          },
        ];
  return [
    stroke(-HALF - 0.6, -TICK, HALF + 0.6, -TICK, "faint"),
    stroke(-HALF, -TICK, -HALF, TICK, "ink", LINE),
    stroke(HALF, -TICK, HALF, TICK, "ink", LINE),
    label(-HALF, TICK + 0.35, first as string),
    label(HALF, TICK + 0.35, last as string),
    ...asked,
  ];
}

function markX(end: "from" | "to"): number {
  return end === "from" ? -HALF : HALF;
}

function partDrawn(of: "part" | "hole", text: string): Primitive[] {
  const [w, h] = of === "part" ? [HALF, TICK] : [HALF + 0.25, TICK + 0.25];
  const box = [
    [-w, -h, w, -h],
    [w, -h, w, h],
    [w, h, -w, h],
    [-w, h, -w, -h],
  ] as const;
  return [
    ...box.map(([x0, y0, x1, y1]) => stroke(x0, y0, x1, y1, "ink", 0.12)),
    label(0, 0, of),
    {
      kind: "dimension",
      from: { x: -w, y: -h },
      to: { x: w, y: -h },
      along: "x",
      at: -h - 0.75,
      text,
      tone: "data",
    },
  ];
}

function label(x: number, y: number, text: string): Primitive {
  return { kind: "text", at: { x, y }, text, size: 1, anchor: "middle", tone: "ink" };
}

/** Along Y the same drawing stands upright. */
function turnedBy(
  p: Primitive,
  turn: (p: { x: number; y: number }) => { x: number; y: number },
  turned: boolean,
): Primitive {
  switch (p.kind) {
    case "stroke":
      return { ...p, points: p.points.map(turn) };
    case "text":
    case "highlight":
      return { ...p, at: turn(p.at) };
    case "dimension":
      return turned ? { ...p, from: turn(p.from), to: turn(p.to), along: "y", at: -p.at } : p;
    default:
      return p;
  }
}
