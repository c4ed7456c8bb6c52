/** The newest picture of a burned array, with its cells found again, and all its cells side by side. */
import { promisify } from "node:util";
import { inflate } from "node:zlib";
import type { Measurand } from "../../core/coupon/site";
import type { Projective } from "../../core/fitting/projective";
import { cellSheet } from "../../core/picture/array/cell-sheet";
import { findArray } from "../../core/picture/array/find-array";
import type { GreyPicture } from "../../core/picture/grey-picture";
import { SCAN_SITE } from "../../core/procedures/test-array/coupon";
import type { Db } from "../../data/database";
import { greyOf, picturesOf } from "../../data/pictures";
import { partPng } from "../../formats/png-writer";
import { type FullTrial, fullTrial, roundOf } from "../trial/trial-record";

export type ArrayPicture = {
  picture: GreyPicture;
  toPicture: Projective;
  look: Extract<Measurand, { kind: "cell look" }>;
};

/** @returns `null` if the round has no picture, or its dots are not found */
export async function arrayPicture(db: Db, round: FullTrial["rounds"][number]): Promise<ArrayPicture | null> {
  const facts = picturesOf(db, round.id).at(-1);
  const packed = facts && greyOf(db, round.id, facts.id);
  const look = round.spec?.sites.find((s) => s.id === SCAN_SITE)?.measurand;
  if (!facts || !packed || look?.kind !== "cell look") return null;
  const bytes = await promisify(inflate)(packed);
  const picture = { width: facts.width, height: facts.height, grey: new Uint8Array(bytes) };
  const found = [false, true]
    .map((brighter) => findArray(picture, look.dots, look.radiusMm, brighter))
    .find((f) => f.ok);
  return found?.ok ? { picture, toPicture: found.toPicture, look } : null;
}

/** @returns a PNG of all burned cells of a round, as `cell-sheet` lays them out; `null` if no picture shows them */
export async function cellSheetPng(db: Db, trialId: number, n: number): Promise<Buffer | null> {
  const shown = await arrayPicture(db, roundOf(fullTrial(db, trialId), n));
  if (!shown) return null;
  const sheet = cellSheet(shown.picture, shown.toPicture, shown.look.cells);
  return partPng(sheet, { x0: 0, y0: 0, x1: sheet.width, y1: sheet.height }, Math.max(sheet.width, sheet.height));
}
