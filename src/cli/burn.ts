/**
 * `burn TRIAL --practice FILE --seed N`: the last round is exported as its machine takes it, parsed and burned on a practice machine, and read;
 * the readings go into the document. With `--next` the round that the procedure asks for is laid out first, with its corrections
 * entered in the machine. With `--picture` what was burned is drawn as a scan of so many dots per inch.
 */
import { z } from "zod";
import { withTable } from "../burning/loaded-table";
import { burnFile, samePart, siteReader } from "../burning/practice-burn";
import { scanOfArray } from "../burning/scanned-array";
import { colourScanOfArray } from "../burning/scanned-colours";
import { scanOfDots } from "../burning/scanned-dots";
import type { Piece } from "../core/coupon/piece";
import type { Site } from "../core/coupon/site";
import { actingSettings } from "../core/course/acting-setting";
import { withFewestReadings } from "../core/course/forecast";
import type { Placement } from "../core/geometry/frames";
import { burnFileOf } from "../core/machine/machine-kind";
import type { MachineSpec } from "../core/machine/machine-spec";
import { NO_FIELD_TABLE } from "../core/settings/field-table";
import type { SettingsInForce } from "../core/settings/setting";
import { type Answer, PLAIN_SHARES, sitesLeft, valuesAt } from "../core/trial/answer";
import { writtenAnswer } from "../core/trial/answer-text";
import { draftOf } from "../core/trial/draft";
import { contextOf, couponCodeOf } from "../formats/document-history";
import { colourPng, greyPng } from "../formats/png-writer";
import type { TrialDocument } from "../formats/trial-document";
import type { Mark } from "../practice/gantry";
import type { PracticeController } from "../practice/gantry-truth";
import { marksPicture } from "../practice/marks-picture";
import { practiceFromSeed, practiceTruthSchema } from "../practice/practice-truth";
import { seeded, seedOf } from "../practice/random";
import { CliFault } from "./cli-fault";
import { couponText } from "./coupon";
import { jsonFile, trialIn } from "./document-file";

const practiceFileSchema = z.strictObject({
  /** Draws the machine, unless its truth is given. */
  seed: z.number().int().default(1),
  truth: practiceTruthSchema.optional(),
  /** What it does when it was told to correct: false = the table is there, but not switched on. */
  switchedOn: z.boolean().default(true),
  /** Numbers that its controller is found to hold, by the key of their setting, internal unit: read back before the burn where the trial does not know them. */
  holds: z.record(z.string(), z.number()).default({}),
});

const HAND_PLACING_MM = 0.02;

export type Burned = {
  document: TrialDocument;
  marks: readonly Mark[];
  placement: Placement;
  /** The first one; nothing where the round burns none. */
  piece: Piece | undefined;
  sites: readonly Site[];
  machine: MachineSpec;
  /** Of the practice machine: its scanner is always the same. */
  seed: number;
};

export function burn(file: string, document: TrialDocument, practiceFile: string, seed: number, next: boolean): Burned {
  const practice = jsonFile(practiceFile, practiceFileSchema);
  const truth = practice.truth ?? practiceFromSeed(practice.seed, document.machine);
  const laid = readBack(next ? withNextRound(file, document) : document, practice.holds);
  const { history } = trialIn(file, laid);
  const round = history.rounds.at(-1);
  const i = laid.rounds.length - 1;
  const written = laid.rounds[i];
  if (!round || !written) throw new CliFault(file, "rounds", "The trial has no round to burn.");
  if (written.readings.length > 0)
    throw new CliFault(file, `rounds[${i}].readings`, "This round is read already: --next lays out the one after it.");
  const sitting = written.sittings.at(-1) ?? {
    id: "practice",
    gauge: laid.gauges[0]?.id ?? "",
    zero: "0 mm",
    insideZero: null,
    begun: null,
  };
  const gauge = laid.gauges.find((g) => g.id === sitting.gauge);
  if (!gauge) throw new CliFault(file, "gauges", "Declare a gauge to read with.");
  const held = Object.values(round.inForce).find((v) => v?.shape === "table");
  const numbers: PracticeController = {
    table: held?.shape === "table" ? held.rows : [],
    switchedOn: practice.switchedOn,
    numbers: Object.fromEntries(
      Object.entries(practice.holds).map(([key, found]) => {
        const entered = round.inForce[key];
        return [key, { found, now: entered?.shape === "scalar" ? entered.value : found }];
      }),
    ),
  };
  const fieldTable = FIELD_TABLE === undefined ? null : round.inForce[FIELD_TABLE];
  const controller = fieldTable?.shape === "map" ? withTable(numbers, fieldTable, laid.machine) : numbers;
  const kind = burnFileOf(laid.machine.kind) === "drawing" ? "svg" : "gcode";
  const text = couponText(file, laid, kind, round.n);
  const spec = { ...round.spec, ...samePart(history.rounds.map((r) => r.spec)) };
  const burned = burnFile(text, couponCodeOf(laid, round.n), laid.machine, truth, controller, spec);
  if (!burned.ok) throw new CliFault(file, `rounds[${i}]`, burned.message);
  const random = seeded(seedOf(seed, "hand", round.n));
  const common = seeded(seedOf(seed, "gauge", gauge.id)).between(-gauge.limitMm, gauge.limitMm);
  const hand = {
    placingMm: gauge.placing?.sdMm ?? HAND_PLACING_MM,
    commonMm: common,
    resolutionMm: gauge.resolutionMm,
  };
  const { sites } = round.spec;
  const readings: (typeof written.readings)[number][] = [];
  const answers: Answer[] = [];
  for (let [site] = sitesLeft(sites, answers); site; [site] = sitesLeft(sites, answers)) {
    const read = siteReader(
      site,
      burned,
      spec,
      truth,
      laid.machine,
      controller,
      valuesAt(answers, site.id),
    )(hand, random, gauge.unit);
    if (!read.ok) throw new CliFault(file, `rounds[${i}]`, `${site.label}: ${read.why}`);
    const written = read.value && writtenAnswer(site, read.value, gauge.unit);
    const cannotRead = read.input.kind === "cannot read" ? read.input.why : null;
    answers.push({
      site: site.id,
      u: null,
      gauge: gauge.id,
      session: sitting.id,
      shares: PLAIN_SHARES,
      from: "practice",
      content: read.value ? { status: "read", value: read.value } : { status: "cannot read", why: cannotRead ?? "" },
    });
    readings.push({
      site: site.id,
      reading: site.ask.kind === "quantity" && written ? `${read.text} ${gauge.unit}` : (written?.reading ?? ""),
      which: written?.words ?? "",
      cannotRead,
      sitting: sitting.id,
      from: "practice",
      taken: null,
    });
  }
  const done = {
    ...written,
    spec: round.spec,
    sittings: written.sittings.length > 0 ? written.sittings : [sitting],
    readings,
  };
  return {
    document: { ...laid, rounds: laid.rounds.map((r, k) => (k === i ? done : r)) },
    marks: burned.marks,
    placement: burned.corner,
    piece: round.spec.pieces[0],
    machine: laid.machine,
    sites: round.spec.sites,
    seed: truth.seed,
  };
}

const FIELD_TABLE = actingSettings({ on: "field table" }, "map")[0]?.key;
/** Settings that correct the whole field. A practice machine starts without any. */
const MAPS = [
  ...(FIELD_TABLE === undefined ? [] : [FIELD_TABLE]),
  ...actingSettings({ on: "drawings" }, "map").map((s) => s.key),
];

/** What the last round does not know of the controller is read there. */
function readBack(document: TrialDocument, holds: Readonly<Record<string, number>>): TrialDocument {
  const last = document.rounds.length - 1;
  return {
    ...document,
    rounds: document.rounds.map((round, i) => {
      if (i !== last) return round;
      const inForce: SettingsInForce = { ...round.inForce };
      for (const key of MAPS) if (key in inForce) inForce[key] ??= NO_FIELD_TABLE;
      for (const [key, value] of Object.entries(holds)) if (key in inForce) inForce[key] ??= { shape: "scalar", value };
      return { ...round, inForce };
    }),
  };
}

/** The round that the procedure asks for, with every correction as it is to be entered in force. */
function withNextRound(file: string, document: TrialDocument): TrialDocument {
  const { procedure, history } = trialIn(file, document);
  const outcome = procedure.solve(history);
  const next = procedure.next(history, outcome);
  if (next.do !== "round" || outcome.status !== "solved") throw new CliFault(file, "rounds", next.why);
  const inForce = { ...history.rounds.at(-1)?.inForce };
  for (const correction of outcome.corrections) inForce[correction.setting] = correction.newValue;
  const n = document.rounds.length + 1;
  const context = contextOf(document, n);
  const last = document.rounds.at(-1)?.sittings.at(-1);
  const asked = { procedure, plan: next.plan, context, tolerance: history.tolerance };
  const gauge = next.purpose === "proof" ? history.gauges.find((g) => g.id === last?.gauge) : undefined;
  const plan = draftOf(procedure.plan(context), gauge ? withFewestReadings(asked, gauge, history) : next.plan);
  const sittings = last ? [{ ...last, id: String(n) }] : [];
  const round = {
    purpose: next.purpose,
    plan,
    burned: null,
    spec: null,
    inForce,
    readBack: null,
    sittings,
    readings: [],
  };
  return { ...document, rounds: [...document.rounds, round] };
}

/**
 * @param site of a grid of dots: as that scan lies on the glass; else empty
 * @returns the bytes of a PNG
 */
export function pictureOf(burned: Burned, dpi: number, site: string): Promise<Buffer> {
  const { marks, placement, piece, sites, machine, seed } = burned;
  if (!piece) throw new CliFault("", "--picture", "This round burns no piece: there is nothing to see.");
  const dots = sites.find((s) => s.measurand.kind === "dots" && (site === "" || s.id === site))?.measurand;
  if (site !== "" && !dots) throw new CliFault("", "--site", `“${site}” is no scan of this round: sites lists them.`);
  const look = sites.find((s) => s.measurand.kind === "cell look")?.measurand;
  const colour = sites.find((s) => s.measurand.kind === "cell colour")?.measurand;
  try {
    if (colour?.kind === "cell colour")
      return colourPng(
        colourScanOfArray({ marks, corner: placement, piece, machine, seed }, colour, dpi, seedOf(seed, "scan")),
      );
    if (look?.kind === "cell look")
      return greyPng(scanOfArray({ marks, corner: placement, piece, machine, seed }, look, dpi, seedOf(seed, "scan")));
    return greyPng(
      dots?.kind === "dots"
        ? scanOfDots(marks, dots, seed, dpi, seedOf(seed, "scan", site))
        : marksPicture(marks, placement, piece, dpi),
    );
  } catch (error) {
    if (error instanceof RangeError) throw new CliFault("", "--dpi", "That makes no picture: 100 to 2400 is usual.");
    throw error;
  }
}
