/** Pictures of a round: taken in, given a scale, read, taken back. */
import { createHash } from "node:crypto";
import { promisify } from "node:util";
import { deflate } from "node:zlib";
import { fromInternal } from "../../core/metrology/units";
import { ARRAY_READER_VERSION } from "../../core/picture/array/read-array";
import type { PictureReading } from "../../core/picture/picture-reading";
import { type PictureScale, scaleFromDpi } from "../../core/picture/picture-scale";
import { READER_VERSION } from "../../core/picture/read-picture";
import type { AnswerInput } from "../../core/trial/answer-input";
import type { Db } from "../../data/database";
import {
  addPicture,
  greyOf,
  type PackedColours,
  type PictureFacts,
  picturesOf,
  setScale,
  takeBackPicture,
} from "../../data/pictures";
import { addSession, isReadingKnown } from "../../data/readings";
import { decodeColours, decodePicture, PictureFault } from "../../formats/picture-decoder";
import { knownReader } from "../gauges/gauge-steps";
import { Refusal } from "../refusal";
import { burnedRound, fullTrial } from "../trial/trial-record";
import { takeReading } from "../trial/trial-steps";

const packed = promisify(deflate);
/** Quick rather than small: the grain of a scan does not become smaller. */
const LEVEL = 1;
const LONGEST_NAME = 120;

/**
 * Takes a picture in: decoded once, on disk when this returns.
 *
 * @param name as the file is called @returns what the page needs to know of it
 */
export async function takePicture(
  db: Db,
  trialId: number,
  n: number,
  name: string,
  file: Buffer,
  now: number,
): Promise<PictureFacts> {
  const round = burnedRound(db, trialId, n);
  refuseEnded(db, trialId);
  const sha256 = createHash("sha256").update(file).digest("hex");
  const known = picturesOf(db, round.id).find((p) => p.sha256 === sha256);
  if (known) return known;
  const { width, height, grey, dpi } = await decoded(file);
  const facts = {
    name: name.slice(0, LONGEST_NAME),
    sha256,
    width,
    height,
    xDpi: dpi?.x ?? null,
    yDpi: dpi?.y ?? null,
    scale: dpi ? scaleFromDpi(dpi.x, dpi.y) : null,
  };
  const bytes = await packed(grey, { level: LEVEL });
  const hasColours = round.spec?.sites.some((s) => s.measurand.kind === "cell colour");
  const colours = hasColours ? await packedColours(file) : null;
  const id = db.transaction((tx) => addPicture(tx, { ...facts, roundId: round.id, grey: bytes }, colours, now));
  return { ...facts, id, addedAt: now };
}

function decoded(file: Buffer) {
  return decodePicture(file).catch(refusing);
}

async function packedColours(file: Buffer): Promise<PackedColours> {
  const { rgb, width, height } = await decodeColours(file).catch(refusing);
  return { width, height, rgb: await packed(rgb, { level: LEVEL }) };
}

function refusing(error: unknown): never {
  throw error instanceof PictureFault ? new Refusal("picture", error.message) : error;
}

/** Deflated. @throws Refusal where there is no such picture */
export function pictureBytes(db: Db, trialId: number, n: number, id: number): Buffer {
  const grey = greyOf(db, burnedRound(db, trialId, n).id, id);
  if (!grey) throw new Refusal("picture", "This round has no such picture.");
  return grey;
}

export function givePictureScale(db: Db, trialId: number, n: number, id: number, scale: PictureScale): void {
  if (!setScale(db, burnedRound(db, trialId, n).id, id, scale)) throw new Refusal("picture", NO_PICTURE);
}

export function dropPicture(db: Db, trialId: number, n: number, id: number, now: number): void {
  if (!takeBackPicture(db, burnedRound(db, trialId, n).id, id, now)) throw new Refusal("picture", NO_PICTURE);
}

const NO_PICTURE = "This round has no such picture.";

/**
 * Takes what was read in a picture as readings: all of them or none, once however often it is sent.
 *
 * They are a sitting of their own, with a gauge whose scatter is what the reader says of this picture; each has an uncertainty of its own.
 *
 * @param key made by the page for this acceptance
 * @returns how many were taken
 */
export function acceptPicture(
  db: Db,
  input: { trialId: number; n: number; picture: number; readings: readonly PictureReading[]; key: string },
  now: number,
): number {
  const { trialId, n, readings, key } = input;
  const keyOf = (i: number) => `${key} ${i}`;
  const round = burnedRound(db, trialId, n);
  refuseEnded(db, trialId);
  const facts = picturesOf(db, round.id).find((p) => p.id === input.picture);
  const needsScale = readings.length === 0 || readings.some((r) => "mm" in r || "points" in r);
  if (!facts) throw new Refusal("picture", NO_PICTURE);
  if (needsScale && !facts.scale) throw new Refusal("picture", "This picture has no scale yet.");
  if (readings.length === 0) throw new Refusal("picture", "Nothing is read in this picture yet.");
  const measured = readings.flatMap((r) => ("mm" in r || "points" in r ? [r] : []));
  // Also where they were taken back since: then it is not a second sitting.
  if (isReadingKnown(db, keyOf(0))) return readings.length;
  return db.transaction((tx) => {
    const { revisionId } = knownReader(tx, measured, now);
    const zero = { outside: 0, inside: null };
    const session = addSession(tx, { roundId: round.id, gaugeRevisionId: revisionId, zero }, now);
    readings.forEach((r, i) => {
      const common = { trialId, n, site: r.site, from: "picture" as const, clientKey: keyOf(i), session };
      if ("blank" in r) {
        takeReading(tx, { ...common, input: { kind: "cannot read", why: "Nothing marked there." } }, now);
        return;
      }
      if ("scores" in r) {
        const picture = { sha256: facts.sha256, reader: ARRAY_READER_VERSION, edited: r.edited };
        takeReading(tx, { ...common, input: scoresInput(r.scores), picture }, now);
        return;
      }
      takeReading(
        tx,
        {
          ...common,
          input: "points" in r ? pointsInput(r.points) : lengthInput(r.mm),
          picture: {
            sha256: facts.sha256,
            reader: READER_VERSION,
            edited: r.edited,
            u: r.uMm,
            degreesOfFreedom: r.degreesOfFreedom,
          },
        },
        now,
      );
    });
    return readings.length;
  });
}

function lengthInput(mm: number): AnswerInput {
  const text = fromInternal(Math.abs(mm), "mm").toFixed(5);
  return { kind: "quantity", text, words: mm < 0 ? "negative" : "positive", unit: "mm" };
}

/** An empty point is one that was not seen. */
function pointsInput(points: readonly ({ x: number; y: number } | null)[]): AnswerInput {
  const text = (mm: number | undefined) => (mm === undefined ? "" : mm.toFixed(5));
  return { kind: "points", points: points.map((p) => ({ x: text(p?.x), y: text(p?.y) })), unit: "mm" };
}

function scoresInput(scores: readonly (number | null)[]): AnswerInput {
  return { kind: "scores", scores: scores.map((s) => (s === null ? "?" : s.toFixed(5))) };
}

function refuseEnded(db: Db, trialId: number): void {
  if (fullTrial(db, trialId).trial.endedAt !== null) throw new Refusal("trial", "This trial has ended already.");
}
