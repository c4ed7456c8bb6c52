/** Picture of the cell of marking settings, cut out of a picture of its array. */
import { promisify } from "node:util";
import { inflate } from "node:zlib";
import { projected } from "../../core/fitting/projective";
import { boundsOf, corners } from "../../core/geometry/rect";
import { apart } from "../../core/marking/alike";
import { settingsAmong } from "../../core/marking/cell-settings";
import { findArray } from "../../core/picture/array/find-array";
import { arrayCells } from "../../core/procedures/test-array/cells";
import { SCAN_SITE } from "../../core/procedures/test-array/coupon";
import { testArrayPlan } from "../../core/procedures/test-array/plan-faults";
import type { Db } from "../../data/database";
import { greyOf, picturesOf } from "../../data/pictures";
import { type KeptResult, resultById } from "../../data/stocks";
import { partPng } from "../../formats/png-writer";
import { type FullTrial, fullTrial } from "../trial/trial-record";

/** Blank stock around the cell, as a share of its side. */
const AROUND = 0.35;
const LONGEST_PX = 220;

/** Whether the trial has a picture of the round of this result. */
export function hasCellPicture(db: Db, { result, roundId }: KeptResult): boolean {
  return result.kind === "marking" && roundId !== null && picturesOf(db, roundId).length > 0;
}

/** @returns a PNG; `null` if no picture shows the cell */
export async function cellPicture(db: Db, resultId: number): Promise<Buffer | null> {
  const kept = resultById(db, resultId);
  if (!kept || kept.trialId === null) return null;
  const shown = areaIn(db, fullTrial(db, kept.trialId), kept);
  if (!shown) return null;
  const { area, dots, radiusMm, facts, packed } = shown;
  const bytes = await promisify(inflate)(packed);
  const picture = { width: facts.width, height: facts.height, grey: new Uint8Array(bytes) };
  const found = [false, true].map((brighter) => findArray(picture, dots, radiusMm, brighter)).find((f) => f.ok);
  if (!found?.ok) return null;
  const by = AROUND * (area.x1 - area.x0);
  const wider = { x0: area.x0 - by, y0: area.y0 - by, x1: area.x1 + by, y1: area.y1 + by };
  const box = boundsOf(corners(wider).map((p) => projected(found.toPicture, p)));
  return box ? partPng(picture, box, LONGEST_PX) : null;
}

/** The newest burn of this cell that has a picture, up to the round of the result. */
function areaIn(db: Db, full: FullTrial, { roundId, result }: KeptResult) {
  const last = full.rounds.findIndex((r) => r.id === roundId);
  const wanted = settingsAmong(result.values);
  for (const round of full.rounds.slice(0, last + 1).reverse()) {
    const facts = picturesOf(db, round.id).at(-1);
    const packed = facts && greyOf(db, round.id, facts.id);
    const measurand = round.spec?.sites.find((s) => s.id === SCAN_SITE)?.measurand;
    if (!facts || !packed || measurand?.kind !== "cell look") continue;
    if (typeof round.plan !== "object" || round.plan === null) continue;
    const plan = testArrayPlan({ machine: full.machine, couponCode: "", inForce: {} }).whole(round.plan);
    const burned = arrayCells(plan, full.machine).filter((c) => c.leftOut === null);
    const area = measurand.cells[burned.findIndex((c) => apart(wanted, c.settings)?.distance === 0)];
    if (area) return { area, dots: measurand.dots, radiusMm: measurand.radiusMm, facts, packed };
  }
  return null;
}
