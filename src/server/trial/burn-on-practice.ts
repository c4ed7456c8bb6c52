/** A round burned on the practice machine and read there. */
import { z } from "zod";
import { type BurnedPiece, burnFile, type PracticeAnswer, samePart, siteReader } from "../../burning/practice-burn";
import type { RoundSpec } from "../../core/coupon/round-spec";
import { placementSchema } from "../../core/geometry/frames";
import { burnFileOf } from "../../core/machine/machine-kind";
import { PICTURE_READER } from "../../core/metrology/gauge";
import { valuesAt } from "../../core/trial/answer";
import { fromEditedFile } from "../../core/trial/decisions";
import type { Db } from "../../data/database";
import { fromColumn, toColumn } from "../../data/json-column";
import { addBurn, burnOf, type PracticeRow, practiceOf } from "../../data/practice";
import type { Round } from "../../data/rounds";
import { setDecision } from "../../data/trials";
import { svgOf } from "../../formats/svg-writer";
import { trueCorner } from "../../practice/gantry";
import type { PracticeTruth } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { controllerOf, truthOf } from "../practice/practice-machine";
import { Refusal } from "../refusal";
import { freezeBurn } from "./freeze-burn";
import { roundGcode } from "./round-gcode";
import { roundPiece } from "./round-piece";
import { couponCode, type FullTrial, fullTrial, laidOut, roundOf } from "./trial-record";

/** Scatter with which a practice technician places a gauge of which nothing is known, mm. */
const HAND_PLACING_MM = 0.02;

const marksSchema = z.array(
  z.object({
    x0: z.number(),
    y0: z.number(),
    x1: z.number(),
    y1: z.number(),
    widthMm: z.number(),
    speedMmPerS: z.number(),
    line: z.number(),
    powerShare: z.number().optional(),
    pulses: z.object({ kHz: z.number(), ns: z.number().nullable() }).optional(),
    narrowness: z.number().optional(),
    cutThrough: z.literal(true).optional(),
    sent: z.object({ x: z.number(), y: z.number() }).optional(),
    drawn: z.object({ x: z.number(), y: z.number() }).optional(),
  }),
);

/** Burns of before it was kept where the corner of the stock lay hold their marks alone. */
const burnedSchema = z.union([
  z.object({
    marks: marksSchema,
    corner: placementSchema,
    lies: z.tuple([z.number(), z.number(), z.number(), z.number()]).optional(),
  }),
  marksSchema.transform((marks) => ({ marks, corner: null, lies: undefined })),
]);

/** A burn as it was kept. @param truth of its machine, by which the corner lay before that was kept */
function burnedPiece(column: string, { placement }: RoundSpec, truth: PracticeTruth): BurnedPiece {
  const { marks, corner, lies } = fromColumn(burnedSchema, column, "practice_burn.marks");
  return { marks, corner: corner ?? trueCorner(placement, truth), lies };
}

/**
 * Burns a round on the practice machine and freezes it.
 *
 * @param file an edited file instead of the exported one
 */
export function burnOnPractice(db: Db, trialId: number, n: number, file: string | null, now: number): void {
  const full = fullTrial(db, trialId);
  const round = roundOf(full, n);
  if (round.burnedAt !== null) throw new Refusal("round", "This round is burned already.");
  const row = practiceRow(db, full);
  const own = fileToBurn(db, full, n);
  const text = file ?? own;
  const frozen = laidOut(db, full, round);
  const burn = burnFile(
    text,
    couponCode(full, n),
    { ...full.machine, gcode: full.dialect },
    truthOf(row),
    controllerOf(row),
    { ...frozen.spec, ...partOf(full) },
  );
  if (!burn.ok) throw new Refusal("file", burn.message);
  db.transaction((tx) => {
    freezeBurn(tx, full, round, frozen, now);
    if (lines(text) !== lines(own)) setDecision(tx, trialId, fromEditedFile(n).as(true));
    addBurn(
      tx,
      { roundId: round.id, file: text, marks: toColumn({ marks: burn.marks, corner: burn.corner, lies: burn.lies }) },
      now,
    );
  });
}

/** Text with equal line ends, because editors differ. */
function lines(text: string): string {
  return text.replaceAll("\r\n", "\n").trimEnd();
}

/** A round part stays the same from its first burn on. */
function partOf({ rounds }: FullTrial) {
  return samePart(rounds.map((r) => r.spec));
}

/** As it would be downloaded for its machine. */
function fileToBurn(db: Db, full: FullTrial, n: number): string {
  const { spec } = laidOut(db, full, roundOf(full, n));
  if (spec.pieces.length === 0) return "";
  return burnFileOf(full.machine.kind) === "drawing"
    ? svgOf(roundPiece(db, full, n, 1))
    : [...roundGcode(db, full, n)].join("");
}

/** One reading at a site of the practice piece, taken with the gauge of the open session. */
export function readOnPractice(
  db: Db,
  trialId: number,
  n: number,
  siteId: string,
): Extract<PracticeAnswer, { ok: true }> {
  const full = fullTrial(db, trialId);
  const round = roundOf(full, n);
  const row = practiceRow(db, full);
  const burn = burnOf(db, round.id);
  const site = round.spec?.sites.find((s) => s.id === siteId);
  const session = round.sessions.findLast((s) => s.gauge.id !== PICTURE_READER);
  if (!burn || !round.spec) throw new Refusal("site", "This coupon was not burned on the practice machine.");
  if (!site) throw new Refusal("site", "This coupon has no such place.");
  if (!session) throw new Refusal("gauge", "Say first which gauge you read with.");
  const truth = truthOf(row);
  const gaugeChance = seeded(seedOf(truth.seed, full.trial.code, session.gauge.id));
  const count = round.readings.length;
  const answer = siteReader(
    site,
    burnedPiece(burn.marks, round.spec, truth),
    { ...round.spec, ...partOf(full) },
    truth,
    full.machine,
    controllerOf(row),
    valuesAt(
      round.readings.map((r) => r.answer),
      siteId,
    ),
  )(
    {
      placingMm: session.gauge.placing?.sdMm ?? HAND_PLACING_MM,
      commonMm: gaugeChance.between(-session.gauge.limitMm, session.gauge.limitMm),
      resolutionMm: session.gauge.resolutionMm,
    },
    seeded(seedOf(truth.seed, full.trial.code, n, siteId, count)),
    session.gauge.unit,
  );
  if (!answer.ok) throw new Refusal("site", answer.why);
  return answer;
}

/** What was burned on the practice machine in a round, and the seed of that machine; `null` where it was burned elsewhere. */
export function practiceBurnOf(db: Db, full: FullTrial, round: Pick<Round, "id" | "spec">) {
  const [row, burn] = [practiceOf(db, full.trial.machineId), burnOf(db, round.id)];
  if (!row || !burn || !round.spec) return null;
  const truth = truthOf(row);
  return { ...burnedPiece(burn.marks, round.spec, truth), seed: truth.seed };
}

function practiceRow(db: Db, full: FullTrial): PracticeRow {
  const row = practiceOf(db, full.trial.machineId);
  if (!row) throw new Refusal("machine", `${full.machine.name} has no practice machine.`);
  return row;
}
