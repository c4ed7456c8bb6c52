/** Answers as one text each, as a spreadsheet or a document written by hand holds them, and back to what a person puts in. */
import type { Site } from "../coupon/site";
import { inUnit } from "../metrology/quantity-text";
import { DEFAULT_UNIT, type Dimension, type LengthUnit, UNITS, type UnitId } from "../metrology/units";
import type { AnswerValue } from "./answer";
import { type AnswerInput, NOT_SEEN } from "./answer-input";

/** Between the parts of an answer that has several: the two of a pair, the places of points. */
const PART = "|";
const DECIMALS = 9;

/** What is written, and where words choose the sign, which. */
export type WrittenAnswer = { reading: string; words: string };

/** The unit of plain numbers at a site; `null` where none are asked for. */
export function unitAt(site: Site, length: LengthUnit): UnitId | null {
  const { ask } = site;
  const of = (dimension: Dimension): UnitId => (dimension === "length" ? length : DEFAULT_UNIT[dimension]);
  if (ask.kind === "quantity" || ask.kind === "pair" || ask.kind === "vector") return of(ask.dimension);
  return ask.kind === "points" ? length : null;
}

export function writtenAnswer(site: Site, value: AnswerValue, length: LengthUnit): WrittenAnswer {
  const unit = unitAt(site, length) ?? "one";
  const shown = (internal: number) => inUnit(internal, unit, DECIMALS).replace("−", "-");
  const plainly = (reading: string) => ({ reading, words: "" });
  switch (value.kind) {
    case "quantity": {
      const signs = site.ask.kind === "quantity" ? site.ask.signedBy : null;
      if (!signs) return plainly(shown(value.value));
      const words = value.value === 0 ? "" : value.value > 0 ? signs.positive : signs.negative;
      return { reading: shown(Math.abs(value.value)), words };
    }
    case "count":
      return plainly(String(value.value));
    case "ordinal":
      return plainly(value.category);
    case "choice":
      return plainly(value.option);
    case "cells":
      return plainly(value.cells.join(` ${PART} `));
    case "pair":
      return plainly(`${shown(value.first)} ${PART} ${shown(value.second)}`);
    case "vector":
      return plainly(`${shown(value.x)} ${PART} ${shown(value.y)}`);
    case "points":
      return plainly(
        value.points.map((p) => (p ? `${shown(p.x)} ${PART} ${shown(p.y)}` : `? ${PART} ?`)).join(` ${PART} `),
      );
    case "comparison":
      return plainly(comparisonText(value));
    case "scores":
      return plainly(value.scores.map((s) => (s === null ? "?" : shown(s))).join(` ${PART} `));
  }
}

/** `c4 > c9`, or `c4 = c9` where they look alike. */
function comparisonText({ better, worse, alike }: { better: string; worse: string; alike: boolean }): string {
  return `${better} ${alike ? "=" : ">"} ${worse}`;
}

export type ReadText = { ok: true; input: AnswerInput } | { ok: false; field: "reading" | "words"; message: string };

/**
 * @param length the unit of lengths that carry none
 */
export function inputFromText(site: Site, { reading, words }: WrittenAnswer, length: LengthUnit): ReadText {
  const { ask } = site;
  const unit = unitAt(site, length) ?? "one";
  const parts = reading.split(PART).map((p) => p.trim());
  const text = reading.trim();
  switch (ask.kind) {
    case "quantity": {
      const chosen = words.trim().toLowerCase();
      const sign = ask.signedBy && signOf(ask.signedBy, chosen);
      if (ask.signedBy && chosen !== "" && !sign)
        return bad("words", `Write “${ask.signedBy.positive}” or “${ask.signedBy.negative}”.`);
      return good({ kind: "quantity", text, words: sign ?? null, unit });
    }
    case "count":
      return good({ kind: "count", text });
    case "ordinal":
      return good({ kind: "ordinal", category: text });
    case "choice":
      return good({ kind: "choice", option: text });
    case "cells":
      return good({ kind: "cells", cells: parts.filter((p) => p !== "") });
    case "pair":
    case "vector": {
      const [a = "", b = ""] = parts;
      if (parts.length !== 2) return bad("reading", `Two numbers with ${PART} between them are asked for here.`);
      return good(
        ask.kind === "pair" ? { kind: "pair", first: a, second: b, unit } : { kind: "vector", x: a, y: b, unit },
      );
    }
    case "points": {
      if (parts.length !== 2 * ask.nominal.length)
        return bad("reading", `${ask.nominal.length} places are asked for here: x ${PART} y, one after the other.`);
      const points = ask.nominal.map((_, i) => ({ x: parts[2 * i] ?? "", y: parts[2 * i + 1] ?? "" }));
      return good({ kind: "points", points, unit });
    }
    case "comparison": {
      const match = /^(\S+)\s*([>=])\s*(\S+)$/.exec(text);
      const [, better = "", sign, worse = ""] = match ?? [];
      if (!match) return bad("reading", "Enter two cells, for example B4 > F2, or B4 = F2 where they look alike.");
      return good({ kind: "comparison", better, worse, alike: sign === "=" });
    }
    case "scores":
      if (parts.length !== ask.cells.length)
        return bad(
          "reading",
          `Enter ${ask.cells.length} scores with ${PART} between them, and ? for a cell without one.`,
        );
      return good({ kind: "scores", scores: parts });
  }
}

function signOf(signs: { positive: string; negative: string }, chosen: string): "positive" | "negative" | undefined {
  if (chosen === signs.positive.toLowerCase()) return "positive";
  return chosen === signs.negative.toLowerCase() ? "negative" : undefined;
}

function good(input: AnswerInput): ReadText {
  return { ok: true, input };
}

function bad(field: "reading" | "words", message: string): ReadText {
  return { ok: false, field, message };
}

/** What was put in, as one text with its unit: read again it gives the same answer. */
export function textFromInput(site: Site, input: AnswerInput): WrittenAnswer {
  const withUnit = (text: string, unit: UnitId) =>
    NOT_SEEN.test(text) || /[a-zµμ"″”'′’°%]/i.test(text) ? text : `${text} ${UNITS[unit].spellings[0] ?? ""}`.trim();
  const plainly = (reading: string) => ({ reading, words: "" });
  switch (input.kind) {
    case "quantity": {
      const signs = site.ask.kind === "quantity" ? site.ask.signedBy : null;
      const words = signs && input.words ? signs[input.words] : "";
      return { reading: withUnit(input.text, input.unit), words };
    }
    case "count":
      return plainly(input.text);
    case "ordinal":
      return plainly(input.category);
    case "choice":
      return plainly(input.option);
    case "cells":
      return plainly(input.cells.join(` ${PART} `));
    case "pair":
      return plainly(`${withUnit(input.first, input.unit)} ${PART} ${withUnit(input.second, input.unit)}`);
    case "vector":
      return plainly(`${withUnit(input.x, input.unit)} ${PART} ${withUnit(input.y, input.unit)}`);
    case "points":
      return plainly(
        input.points.map((p) => `${withUnit(p.x, input.unit)} ${PART} ${withUnit(p.y, input.unit)}`).join(` ${PART} `),
      );
    case "comparison":
      return plainly(comparisonText(input));
    case "scores":
      return plainly(input.scores.map((s) => (NOT_SEEN.test(s) ? "?" : s)).join(` ${PART} `));
    case "cannot read":
      return plainly("");
  }
}
