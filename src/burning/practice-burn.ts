/** Burning on a practice machine what was exported, and reading it: the file text is all that passes between them. */
import type { Op } from "../core/coupon/program";
import type { RoundSpec, Turned } from "../core/coupon/round-spec";
import type { Measurand, Site } from "../core/coupon/site";
import { actingSettings } from "../core/course/acting-setting";
import { FIELD_TERMS } from "../core/geometry/field-term";
import type { Placement } from "../core/geometry/frames";
import { counted } from "../core/machine/counted";
import type { MachineSpec } from "../core/machine/machine-spec";
import { comparisonsOf, nextComparison } from "../core/marking/next-comparison";
import { holdOf } from "../core/measuring/number-correction";
import { fromInternal, type LengthUnit, UNITS } from "../core/metrology/units";
import type { Acts, SettingSpec } from "../core/settings/setting";
import type { AnswerValue } from "../core/trial/answer";
import type { AnswerInput } from "../core/trial/answer-input";
import { parseFieldTableCsv } from "../formats/field-table";
import { type GcodeProgram, parseGcode } from "../formats/gcode-parser";
import { commentText, couponComment } from "../formats/gcode-words";
import { faultText } from "../formats/parsed";
import { parseSvg } from "../formats/svg-parser";
import { readoutInFocus } from "../practice/bed";
import { cellLooks, type Surface } from "../practice/cell-look";
import { Cutter, taperedBy } from "../practice/cut-width";
import { edgeSeen } from "../practice/edges";
import { burnOnGalvo } from "../practice/galvo";
import { GalvoHead, type HeadHeld, type Square } from "../practice/galvo-head";
import type { GalvoTruth } from "../practice/galvo-truth";
import { burnOnGantry, type Mark, trueCorner } from "../practice/gantry";
import { focusOf, type GantryTruth, type PracticeController, ROW_SHIFT } from "../practice/gantry-truth";
import { marksByHand } from "../practice/hand-marks";
import { peakNoted } from "../practice/head-height";
import {
  ALIKE,
  cellsByEye,
  colourPartsOf,
  cutCells,
  markedCells,
  scoresOf,
  seenQuality,
} from "../practice/judge-array";
import { judgedCells } from "../practice/judge-cells";
import { feltAs, gapOf, handFromSeed } from "../practice/judge-mate";
import { placeOnRamp } from "../practice/judge-ramp";
import { placeOnStrip } from "../practice/judge-strip";
import { type Hand, practiceReading, seenOf } from "../practice/measure";
import {
  type AxisKeys,
  asEntered,
  bedOf,
  heightsOf,
  isGalvo,
  type PracticeTruth,
  rotaryTruthOf,
} from "../practice/practice-truth";
import { propped } from "../practice/prop";
import type { Random } from "../practice/random";
import { rotaryKey } from "../practice/rotary-truth";
import type { Seen } from "../practice/seen";
import {
  axisTakenOff,
  laidAround,
  type OnRotary,
  type PartCalled,
  turnedSeen,
  turnsRight,
} from "../practice/turned-part";
import { scannedDots } from "./scanned-dots";

/** What lies on a piece once it is burned, and where its lower left corner truly lay meanwhile: it was put where the machine pointed then. */
export type BurnedPiece = {
  marks: readonly Mark[];
  corner: Placement;
  /** Where the arrows of X and Y of the drawing point, of a galvo: columns of a matrix. Left out: as drawn. */
  lies?: Square | undefined;
};

export type PracticeBurn = ({ ok: true } & BurnedPiece) | { ok: false; message: string };

/** What of a round decides how it is burned. */
type Burnt = Pick<RoundSpec, "program" | "placement" | "pieces" | "turned"> & SamePart;

/** The round part that is on the rotary, as it was called at its first burn; left out: as it is called now. */
type SamePart = { called?: PartCalled | undefined };

/** What makes later rounds of a trial go on with the part of the first. @param specs of its rounds, in their order */
export function samePart(specs: readonly (Pick<RoundSpec, "turned"> | null)[]): SamePart {
  return { called: specs.find((s) => s?.turned)?.turned };
}

/**
 * Burns the file of a round on the practice machine: G-code on a gantry, the drawing on a galvo.
 *
 * @param text the file as downloaded, perhaps edited
 * @param couponCode the coupon whose file is expected
 */
export function burnFile(
  text: string,
  couponCode: string,
  machine: MachineSpec,
  truth: PracticeTruth,
  controller: PracticeController,
  spec: Burnt,
): PracticeBurn {
  const isByHand = spec.program.every((op) => op.kind !== "mark");
  if (!isGalvo(truth)) {
    // Where nothing is marked by a file, at most pulses are given and crosses traced by hand.
    if (isByHand) {
      const runs = asItRuns(truth, controller, machine);
      return { ok: true, marks: marksByHand(spec, runs), corner: trueCorner(spec.placement, runs) };
    }
    return burnGcode(text, couponCode, machine, truth, controller, spec);
  }
  if (isByHand) return { ok: true, marks: [], corner: trueCorner(spec.placement, truth) };
  return burnDrawing(text, couponCode, machine, truth, controller, spec);
}

function burnDrawing(
  text: string,
  couponCode: string,
  machine: MachineSpec,
  truth: GalvoTruth,
  controller: PracticeController,
  { program, placement, turned, called }: Burnt,
): PracticeBurn {
  const parsed = parseSvg(text);
  if (!parsed.ok) return { ok: false, message: faultText(parsed) };
  const named = /coupon (\S+)$/.exec(parsed.value.title)?.[1];
  if (named !== couponCode)
    return {
      ok: false,
      message: named
        ? `This drawing is for coupon ${named}; this round is coupon ${couponCode}.`
        : `This drawing names no coupon. Download the SVG of coupon ${couponCode} and use that.`,
    };
  if (turned) {
    const runs = { ...truth, ...(turned.axis === "x" ? { scaleX: 1 } : { scaleY: 1 }) };
    const burn = burnOnGalvo(parsed.value, program, placement, runs, withoutEnd(machine, turned));
    if (!burn.ok) return burn;
    const marks = laidAround(burn.marks, turned, placement, rotaryOn(truth, controller, turned, called));
    return { ok: true, marks, corner: trueCorner(placement, runs) };
  }
  const head = headOf(truth, controller, machine);
  const burn = burnOnGalvo(parsed.value, program, placement, truth, machine, head);
  return burn.ok ? { ...burn, corner: trueCorner(placement, truth), ...(head ? { lies: head.lies } : {}) } : burn;
}

/** Its head with what its controller holds now; none where the machine is of before there were heads. */
function headOf(
  truth: GalvoTruth,
  { numbers = {}, fieldTable }: PracticeController,
  machine: MachineSpec,
): GalvoHead | undefined {
  if (!truth.head) return undefined;
  const table = fieldTable === undefined ? null : parseFieldTableCsv(fieldTable);
  const numberOf = (acts: Acts) => numbers[keyOf(acts)];
  const scaleOf = (axis: "x" | "y") => {
    const [spec] = actingSettings({ on: "field scale", axis });
    const held = spec && holdOf(machine, spec);
    return {
      held: spec && numbers[spec.key],
      // A larger share makes marks larger; what a larger size does, the machine page says.
      grows: !held || UNITS[held.unit].dimension === "ratio" || held.sense === 1,
    };
  };
  const held: HeadHeld = {
    swap: numberOf({ on: "orientation", part: "swap" }),
    invertX: numberOf({ on: "orientation", part: "invert x" }),
    invertY: numberOf({ on: "orientation", part: "invert y" }),
    scale: { x: scaleOf("x"), y: scaleOf("y") },
    turn: turnOf(numbers, machine),
    terms: Object.fromEntries(FIELD_TERMS.map((term) => [term, numberOf({ on: "field form", term })])),
    ...(table?.ok ? { table: table.value } : {}),
  };
  return new GalvoHead(truth.head, held, machine.widthMm / 2);
}

function turnOf(numbers: NonNullable<PracticeController["numbers"]>, machine: MachineSpec): HeadHeld["turn"] {
  const [spec] = actingSettings({ on: "field turn" });
  return { held: spec && numbers[spec.key], sense: spec ? holdOf(machine, spec).sense : 1 };
}

/**
 * Runs a G-code file on a practice gantry.
 *
 * @param text the file as downloaded, perhaps edited
 * @param couponCode the coupon whose file is expected
 * @param spec what is done by hand besides: heights set at its pauses, the stock propped
 */
export function burnGcode(
  text: string,
  couponCode: string,
  machine: MachineSpec,
  truth: GantryTruth,
  controller: PracticeController,
  spec: Burnt = NOTHING_BY_HAND,
): PracticeBurn {
  const parsed = parseGcode(text, { dialect: machine.gcode });
  if (!parsed.ok) return { ok: false, message: faultText(parsed) };
  const named = parsed.value.comments.find((c) => c.startsWith(couponComment("")));
  if (!named)
    return {
      ok: false,
      message: `This file names no coupon. Download the G-code of coupon ${couponCode} and use that.`,
    };
  if (named !== couponComment(couponCode))
    return {
      ok: false,
      message: `This file is for “${named.replace(couponComment(""), "").trim()}”; this round is coupon ${couponCode}.`,
    };
  const byHand = heightsByHand(spec.program);
  const told = new Set(parsed.value.steps.flatMap((step) => (step.kind === "pause" ? [step.text] : [])));
  const untold = [...byHand.keys()].find((text) => !told.has(text));
  if (untold)
    return { ok: false, message: `This file does not stop for “${untold}”. Use the file as it was downloaded.` };
  const { turned } = spec;
  const bed = { ...withoutEnd(machine, turned), powerAtFull: machine.gcode.powerAtFull };
  const op = spec.program.find((o) => o.kind === "prop");
  const prop = op ? propped(op, spec.placement.xMm, truth.seed) : null;
  const asSet = asItRuns(truth, controller, machine);
  const runs = turned ? axisTakenOff(asSet, turned.axis) : asSet;
  const burn = burnOnGantry(asSeenFromAbove(parsed.value, machine), runs, rowsShifted(controller), bed, {
    heights: byHand,
    aboveFocus: aboveFocusByHand(spec.program),
    prop,
    cutter: cutterFor(spec, runs),
  });
  if (!burn.ok) return { ok: false, message: `Line ${burn.line}: ${burn.message}` };
  const marks = turned
    ? laidAround(burn.marks, turned, spec.placement, rotaryOn(truth, controller, turned, spec.called))
    : burn.marks;
  return { ok: true, marks, corner: trueCorner(spec.placement, runs) };
}

/** A part that turns has no end along the axis that it takes the place of. */
function withoutEnd(machine: MachineSpec, turned: Turned | undefined): MachineSpec {
  if (!turned) return machine;
  return { ...machine, ...(turned.axis === "y" ? { depthMm: Infinity } : { widthMm: Infinity }) };
}

/** The one shift of scanned rows that it stores, under the name that the practice machine has for it. */
function rowsShifted(controller: PracticeController): PracticeController {
  const stored = controller.numbers?.[keyOf({ on: "scanned rows" })];
  return stored ? { ...controller, numbers: { ...controller.numbers, [ROW_SHIFT]: stored } } : controller;
}

/** The rotary that is fitted, with the numbers that its controller holds now. */
function rotaryOn(
  truth: PracticeTruth,
  { numbers = {} }: PracticeController,
  turned: Turned,
  called: PartCalled = turned,
): OnRotary {
  const { rotary, drive } = turned;
  // Where no bench keeps rotaries apart, a controller has one.
  const held = (on: "rotary steps" | "roller") => numbers[rotaryKey(keyOf({ on }), rotary)] ?? numbers[keyOf({ on })];
  return {
    truth: rotaryTruthOf(truth, rotary, drive),
    seed: truth.seed,
    called,
    held: { steps: held("rotary steps"), roller: held("roller") },
  };
}

const NOTHING_BY_HAND = { program: [], placement: { xMm: 0, yMm: 0 }, pieces: [] };

/** The beam on the stock that lies there, where it is cut; a group that is marked again and again is cut in as many passes. */
function cutterFor({ pieces, program }: Pick<RoundSpec, "program" | "pieces">, truth: GantryTruth): Cutter | null {
  const cutFrom = pieces[0]?.cutFrom;
  if (!cutFrom) return null;
  const marked = program.flatMap((op) => (op.kind === "mark" ? [`${op.piece} ${op.settings}`] : []));
  const passes = Math.max(1, ...marked.map((group) => marked.filter((other) => other === group).length));
  return new Cutter(focusOf(truth), { ...cutFrom, passes }, truth.seed, truth.endJitterMm === 0);
}

/** Key of the setting that acts on this; of no setting where none does. */
function keyOf(acts: Acts): string {
  return actingSettings(acts)[0]?.key ?? "";
}

/** With the numbers that its controller holds now. */
function asItRuns(truth: GantryTruth, controller: PracticeController, machine: MachineSpec): GantryTruth {
  const dimension = (spec: SettingSpec) => UNITS[holdOf(machine, spec).unit].dimension;
  const keys = (axis: "x" | "y"): AxisKeys => ({
    lengths: actingSettings({ on: "length", axis }).map((spec) => ({
      key: spec.key,
      lengthens: dimension(spec) === "per length" || holdOf(machine, spec).sense === 1,
    })),
    homes: actingSettings({ on: "home", axis }).map((spec) => ({
      key: spec.key,
      counts: dimension(spec) === "count",
    })),
  });
  return asEntered(truth, controller, { x: keys("x"), y: keys("y") });
}

/** By the words that a file stops with. */
function heightsByHand(program: readonly Op[]): ReadonlyMap<string, number> {
  return new Map(
    program.flatMap((op) =>
      op.kind === "set height" && op.by === "hand" ? [[commentText(op.text), op.zMm] as const] : [],
    ),
  );
}

/** Heights above focus, by the words that ask for them. */
function aboveFocusByHand(program: readonly Op[]): ReadonlyMap<string, number> {
  return new Map(
    program.flatMap((op) =>
      op.kind === "move by hand" && op.aboveFocusMm !== undefined
        ? [[commentText(op.text), op.aboveFocusMm] as const]
        : [],
    ),
  );
}

/** Where the head goes, whichever way the machine counts. */
function asSeenFromAbove(program: GcodeProgram, machine: MachineSpec): GcodeProgram {
  const steps = program.steps.map((step) =>
    step.kind === "move" ? { ...step, from: counted(step.from, machine), to: counted(step.to, machine) } : step,
  );
  return { ...program, steps };
}

export type PracticeAnswer =
  | {
      ok: true;
      /** What a person would put in: also that it cannot be read. */
      input: AnswerInput;
      /** What it comes to; `null` where it cannot be read. */
      value: AnswerValue | null;
      /** What the gauge showed, as it would be typed; empty where it cannot be read. */
      text: string;
    }
  | { ok: false; why: string };

/** A burned piece at one site: each call is one reading there, signed as the words would. */
export function siteReader(
  site: Site,
  { marks, corner: at, lies }: BurnedPiece,
  { placement, pieces, turned, called }: Omit<Burnt, "program">,
  truth: PracticeTruth,
  size: { widthMm: number; depthMm: number; topSpeedMmPerS: number },
  controller: PracticeController = { table: [], switchedOn: true },
  /** What was read at this site before: which two cells are compared next goes by it. */
  earlier: readonly AnswerValue[] = [],
): (hand: Hand, random: Random, unit?: LengthUnit) => PracticeAnswer {
  const cutFrom = pieces[0]?.cutFrom;
  // Of an array, the cells that are not cut through are what is read.
  const isThrough = !cutFrom || site.ask.kind === "cells" || marks.some((m) => m.cutThrough);
  if (!isThrough) return () => NOT_THROUGH;
  if (turned) {
    const on = rotaryOn(truth, controller, turned, called);
    const seen = turnedSeen(site.measurand, marks, placement, turned, on);
    if (seen) return turnedReader(site, seen);
    if (site.ask.kind === "choice") return choiceReader(site.ask, turnsRight(on.truth) ? 0 : 1);
  }
  if (site.ask.kind === "choice") return orientationReader(site.ask, site.measurand, lies);
  const surface = { seed: truth.seed, stock: pieces[0]?.stockKey ?? "", topSpeedMmPerS: size.topSpeedMmPerS };
  const ofArray = comparisonReader(site, marks, at, surface, earlier) ?? arrayReader(site, marks, at, surface);
  if (ofArray) return ofArray;
  if (site.measurand.kind === "clearance") return mateReader(site, site.measurand, marks, placement, truth);
  if (site.ask.kind === "cells") {
    const { ask } = site;
    return (_, random) => {
      const judged = judgedCells(site.measurand, marks, at, random);
      if (!judged.ok) return judged;
      const chosen = judged.cells.flatMap((i) => (ask.cells[i] ? [ask.cells[i]] : []));
      const value = { kind: "cells" as const, cells: chosen.map((c) => c.id) };
      return { ok: true, value, input: value, text: chosen.map((c) => c.label).join(" to ") };
    };
  }
  if (site.ask.kind === "points") return dotsReader(site.ask, site.measurand, marks, truth.seed);
  const { ask, measurand } = site;
  const shownBy = (hand: Hand): Hand =>
    ask.kind === "quantity" && ask.atMachine ? { placingMm: 0, commonMm: 0, resolutionMm: ask.atMachine.step } : hand;
  if (measurand.kind === "height of peak")
    return (hand, random, unit = "mm") =>
      asRead(peakNoted(heightsOf(truth), measurand.going, random), shownBy(hand), random, unit);
  if (measurand.kind === "focus readout") {
    const from = { x: measurand.xMm - size.widthMm / 2, y: measurand.yMm - size.depthMm / 2 };
    return (hand, random, unit = "mm") =>
      asRead(readoutInFocus(heightsOf(truth), bedOf(truth, size), from, random), shownBy(hand), random, unit);
  }
  if (measurand.kind === "place on ramp")
    return (hand, random, unit = "mm") => {
      const found = placeOnRamp(measurand, marks, at, random);
      return found.ok ? asRead(found.value, shownBy(hand), random, unit) : found;
    };
  if (measurand.kind === "place on strip")
    return (hand, random, unit = "mm") => {
      const found = placeOnStrip(measurand, marks, at, surface, random);
      if (found.ok) return asRead(found.value, shownBy(hand), random, unit);
      // Nothing of it on the strip is what is read there.
      return measurand.which === "best"
        ? found
        : { ok: true, input: { kind: "cannot read", why: found.why }, value: null, text: "" };
    };
  if (measurand.kind === "edge distance" && isGalvo(truth))
    return () => ({ ok: false, why: "The practice galvo has no stops." });
  const seen =
    measurand.kind === "edge distance" && !isGalvo(truth)
      ? edgeSeen(measurand, marks, truth, size, placement)
      : atFace(measurand, seenOf(measurand, marks, at, placement), cutFrom);
  if (measurand.kind === "readout" && seen.ok)
    return (hand, random, unit = "mm") => asRead(seen.mean, shownBy(hand), random, unit);
  return (hand, random, unit = "mm") => readOnce(site, seen, hand, random, unit);
}

/** Shows the practice technician two cells at a time, as a page does. @returns `null` where no comparison is asked for */
function comparisonReader(
  { ask, measurand }: Site,
  marks: readonly Mark[],
  corner: Placement,
  surface: Surface,
  earlier: readonly AnswerValue[],
): ((hand: Hand, random: Random) => PracticeAnswer) | null {
  if (ask.kind !== "comparison" || measurand.kind !== "better of two") return null;
  const looks = cellLooks(measurand.cells, marks, corner, surface);
  const compared = comparisonsOf(ask.cells, earlier);
  return (_, random) => {
    const [a, b] = nextComparison(ask.cells, compared);
    const [first, second] = [a, b].map((i) => seenQuality(looks, i, random));
    const isFirst = (first ?? 0) >= (second ?? 0);
    const [better, worse] = isFirst ? [a, b] : [b, a];
    const alike = Math.abs((first ?? 0) - (second ?? 0)) < ALIKE;
    compared.push({ better, worse, alike });
    const of = (i: number) => ask.cells[i] ?? { id: "", label: "" };
    const value = { kind: "comparison" as const, better: of(better).id, worse: of(worse).id, alike };
    return { ok: true, value, input: value, text: `${of(better).label} ${alike ? "=" : ">"} ${of(worse).label}` };
  };
}

function chosenOf(cells: readonly { id: string; label: string }[], seen: readonly number[]): PracticeAnswer {
  const chosen = seen.flatMap((i) => (cells[i] ? [cells[i]] : []));
  const value = { kind: "cells" as const, cells: chosen.map((c) => c.id) };
  return { ok: true, value, input: value, text: chosen.map((c) => c.label).join(", ") || "none" };
}

/** @returns `null` where nothing of an array is asked for */
function arrayReader(
  { id, ask, measurand }: Site,
  marks: readonly Mark[],
  corner: Placement,
  surface: Surface,
): ((hand: Hand, random: Random, unit?: LengthUnit) => PracticeAnswer) | null {
  if ((measurand.kind === "cell look" || measurand.kind === "cell colour") && ask.kind === "scores")
    return (_, random) => {
      const looks = cellLooks(measurand.cells, marks, corner, surface);
      const scores =
        measurand.kind === "cell look"
          ? scoresOf(measurand.of, looks, random)
          : colourPartsOf(measurand.of, looks, random);
      const texts = scores.map((s) => (s === null ? "?" : s.toFixed(4)));
      return {
        ok: true,
        value: { kind: "scores", scores },
        input: { kind: "scores", scores: texts },
        text: `${scores.filter((s) => s !== null).length} cells`,
      };
    };
  if ((measurand.kind === "best cells" || measurand.kind === "charred") && ask.kind === "cells")
    return (_, random) => {
      const what = measurand.kind === "charred" ? "charred" : ask.mode === "one" ? "best" : "as good";
      const seen = cellsByEye(what, cellLooks(measurand.cells, marks, corner, surface), random);
      return chosenOf(ask.cells, seen);
    };
  if (measurand.kind === "passed" && ask.kind === "cells")
    return (_, random) => {
      const passed =
        measurand.how === "cut through"
          ? cutCells(measurand.cells, marks, corner)
          : markedCells(cellLooks(measurand.cells, marks, corner, surface), random);
      return chosenOf(ask.cells, passed);
    };
  if (measurand.kind !== "depth" || ask.kind !== "quantity" || !id.startsWith("depth")) return null;
  return (hand, random, unit = "mm") => {
    const [look] = cellLooks([measurand.within], marks, corner, surface);
    const depthMm = look?.depthMm ?? 0;
    return asRead(Math.max(0, depthMm + hand.commonMm), hand, random, unit);
  };
}

/** Dots are always read from a scan, also in a session with calipers. */
function dotsReader(
  ask: Extract<Site["ask"], { kind: "points" }>,
  measurand: Measurand,
  marks: readonly Mark[],
  seed: number,
): (hand: Hand, random: Random) => PracticeAnswer {
  if (measurand.kind !== "dots") return () => CANNOT_SHOW;
  return (_, random) => {
    const seen = scannedDots(measurand, ask, marks, seed, random);
    if (!seen.ok) return seen;
    const text = (mm: number | undefined) => (mm === undefined ? "" : mm.toFixed(4));
    return {
      ok: true,
      value: { kind: "points", points: seen.points },
      input: { kind: "points", points: seen.points.map((p) => ({ x: text(p?.x), y: text(p?.y) })), unit: "mm" },
      text: `${seen.points.filter((p) => p !== null).length} dots`,
    };
  };
}

/** On a part that turned: counted, read at the machine, or measured. */
function turnedReader(site: Site, seen: Seen): (hand: Hand, random: Random, unit?: LengthUnit) => PracticeAnswer {
  const { ask } = site;
  if (ask.kind === "count")
    return (_, random) => {
      if (!seen.ok) return seen;
      const value = Math.round(seen.look(random));
      return {
        ok: true,
        value: { kind: "count", value },
        input: { kind: "count", text: String(value) },
        text: String(value),
      };
    };
  if (ask.kind === "quantity" && ask.atMachine && seen.ok) {
    const shown: Hand = { placingMm: 0, commonMm: 0, resolutionMm: ask.atMachine.step };
    return (_, random, unit = "mm") => asRead(seen.mean, shown, random, unit);
  }
  return (hand, random, unit = "mm") => readOnce(site, seen, hand, random, unit);
}

/** The ways in which an arrow can end, by where its tip lies. */
const WAYS: readonly { id: string; x: number; y: number }[] = [
  { id: "right", x: 1, y: 0 },
  { id: "left", x: -1, y: 0 },
  { id: "away", x: 0, y: 1 },
  { id: "toward you", x: 0, y: -1 },
];

/** The stock as it lies under the head: which way an arrow ends, and whether words read. */
function orientationReader(
  ask: Extract<Site["ask"], { kind: "choice" }>,
  measurand: Measurand,
  [a, b, c, d]: Square = [1, 0, 0, 1],
): () => PracticeAnswer {
  const chosen = (id: string | undefined) => {
    const at = ask.options.findIndex((o) => o.id === id);
    return at < 0 ? () => CANNOT_SHOW : choiceReader(ask, at);
  };
  if (measurand.kind === "mirrored") return choiceReader(ask, a * d - b * c > 0 ? 0 : 1);
  if (measurand.kind !== "arrow end") return () => CANNOT_SHOW;
  const [x, y] = measurand.axis === "x" ? [a, c] : [b, d];
  return chosen(WAYS.find((way) => way.x === x && way.y === y)?.id);
}

const CANNOT_SHOW: PracticeAnswer = { ok: false, why: "The practice machine cannot show this." };

/** The first option where all is right. */
function choiceReader({ options }: Extract<Site["ask"], { kind: "choice" }>, index: number): () => PracticeAnswer {
  const chosen = options[index] as (typeof options)[number];
  const value = { kind: "choice" as const, option: chosen.id };
  return () => ({ ok: true, value, input: value, text: chosen.label });
}

const NOT_THROUGH: PracticeAnswer = {
  ok: true,
  value: null,
  text: "",
  input: { kind: "cannot read", why: "It is not cut through." },
};

/** How one mate goes into the other: each judgement is one by the same pair of hands. */
function mateReader(
  { ask }: Site,
  measurand: Extract<Measurand, { kind: "clearance" }>,
  marks: readonly Mark[],
  placement: Placement,
  truth: PracticeTruth,
): (hand: Hand, random: Random) => PracticeAnswer {
  const gap = gapOf(measurand, marks, placement);
  if (gap === null || ask.kind !== "ordinal")
    return () => ({ ok: false, why: "There are no such mates on the practice piece." });
  const feel = handFromSeed(truth.seed);
  return (_, random) => {
    const category = ask.categories[Math.min(feltAs(gap, feel, random), ask.categories.length - 1)] as string;
    const input = { kind: "ordinal" as const, category };
    return { ok: true, value: input, input, text: category };
  };
}

/** At the bottom a cut is narrower: parts are larger there, holes smaller. */
function atFace(measurand: Measurand, seen: Seen, cutFrom: { stock: string; thicknessMm: number } | undefined): Seen {
  if (!seen.ok || !cutFrom || measurand.kind !== "cut size" || measurand.face !== "bottom") return seen;
  const by = (measurand.of === "part" ? 1 : -1) * taperedBy(cutFrom);
  return { ok: true, look: (random) => seen.look(random) + by, mean: seen.mean + by };
}

function readOnce(site: Site, seen: Seen, hand: Hand, random: Random, unit: LengthUnit): PracticeAnswer {
  if (!seen.ok && seen.isBlank)
    return { ok: true, value: null, input: { kind: "cannot read", why: seen.why }, text: "" };
  const zeroMm = site.ask.kind === "quantity" ? (hand.zeroMm?.[site.ask.jaws] ?? 0) : 0;
  const reading = practiceReading(seen, { ...hand, commonMm: hand.commonMm + zeroMm }, random);
  if (!reading.ok) return reading;
  if (site.ask.kind !== "quantity") return { ok: false, why: "The practice machine answers lengths and cells only." };
  const isNegative = site.ask.signedBy !== null && !reading.positive;
  const text = asShown(reading.shownMm, hand.resolutionMm, unit);
  return {
    ok: true,
    value: { kind: "quantity", value: isNegative ? -reading.shownMm : reading.shownMm },
    input: { kind: "quantity", text, words: isNegative ? "negative" : "positive", unit },
    text,
  };
}

/** A number read at a scale or a rule: what it always reads wrong is no part of it, since heights are set by the same one. */
function asRead(mm: number, hand: Hand, random: Random, unit: LengthUnit): PracticeAnswer {
  const seen = mm + (hand.placingMm > 0 ? hand.placingMm * random.normal() : 0);
  const step = hand.resolutionMm;
  const shown = step > 0 ? Number((Math.round(seen / step) * step).toFixed(6)) : seen;
  const text = asShown(shown, step, unit);
  return {
    ok: true,
    text,
    value: { kind: "quantity", value: shown },
    input: { kind: "quantity", text, words: null, unit },
  };
}

/** With the digits that the gauge shows, in its unit. */
function asShown(mm: number, resolutionMm: number, unit: LengthUnit): string {
  const step = fromInternal(resolutionMm, unit);
  const decimals = step > 0 ? Math.max(0, Math.ceil(-Math.log10(step) - 1e-9)) : 9;
  return fromInternal(mm, unit).toFixed(decimals);
}
