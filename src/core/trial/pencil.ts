/** What is left open on paper for the answers at a site: boxes for numbers, and words to tick. */
import type { Ask } from "../coupon/site";
import { DEFAULT_UNIT, type Dimension, type LengthUnit, UNITS } from "../metrology/units";

export type PencilField =
  | { kind: "box"; label: string; unit: string }
  /** One line of words, each with a box to tick. */
  | { kind: "ticks"; question: string; options: string[] };

/** The fields of one site. @param repeats how often it is read */
export function pencilFields(ask: Ask, repeats: number, length: LengthUnit): PencilField[] {
  const unit = (dimension: Dimension) => UNITS[dimension === "length" ? length : DEFAULT_UNIT[dimension]].symbol;
  switch (ask.kind) {
    case "quantity":
      return [
        ...boxes(
          Array.from({ length: repeats }, (_, i) => (repeats > 1 ? `${i + 1}` : "")),
          unit(ask.dimension),
        ),
        ...(ask.signedBy ? [ticks("", [ask.signedBy.positive, ask.signedBy.negative])] : []),
      ];
    case "count":
      return boxes([`0 to ${ask.most}`], "");
    case "ordinal":
      return [ticks("", ask.categories)];
    case "choice":
      return [
        ticks(
          "",
          ask.options.map((o) => o.label),
        ),
      ];
    case "cells":
      return [
        ticks(
          ask.noneToo ? "all such cells, or none:" : CELLS[ask.mode],
          ask.cells.map((c) => c.label),
        ),
      ];
    case "pair":
      return boxes([ask.first, ask.second], unit(ask.dimension));
    case "points":
      // A picture answers points of this many numbers, and no pencil writes them.
      if (ask.nominal.length > MOST_BOXES) return [];
      return boxes(
        ask.nominal.flatMap((_, i) => [`${i + 1}: X`, `${i + 1}: Y`]),
        unit("length"),
      );
    case "comparison":
      return boxes(
        Array.from({ length: repeats }, (_, i) => `${i + 1}`),
        "",
      );
    case "scores":
      // A picture shows them: nobody writes so many numbers.
      return [];
    case "vector":
      return boxes(["X", "Y"], unit(ask.dimension));
  }
}

const MOST_BOXES = 12;

const CELLS = {
  one: "one of",
  range: "first and last of",
  tied: "all that are equally good",
  rank: "number them, best first",
} as const;

function boxes(labels: readonly string[], unit: string): PencilField[] {
  // Once at the end: boxes side by side share it.
  return labels.map((label, i) => ({ kind: "box", label, unit: i === labels.length - 1 ? unit : "" }));
}

function ticks(question: string, options: readonly string[]): PencilField {
  return { kind: "ticks", question, options: [...options] };
}
