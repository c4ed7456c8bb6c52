/** The cell that marking settings were found in, cut out of a picture of its array. */
import { promisify } from "node:util";
import { inflate } from "node:zlib";
import { projected } from "../../core/fitting/projective";
import { settingsAmong } from "../../core/marking/cell-settings";
import { findArray } from "../../core/picture/array/find-array";
import type { GreyPicture } from "../../core/picture/grey-picture";
import { arrayCells } from "../../core/procedures/test-array/cells";
import { SCAN_SITE } from "../../core/procedures/test-array/coupon";
import { testArrayPlan } from "../../core/procedures/test-array/plan-faults";
import type { Db } from "../../data/database";
import { greyOf, picturesOf } from "../../data/pictures";
import { type KeptResult, resultById } from "../../data/stocks";
import { greyPng } from "../../formats/png-writer";
import { type FullTrial, fullTrial } from "../trial/trial-record";

/** Blank stock around the cell, as a share of its side, and the longest side of the picture, pixels. */
const [AROUND, LONGEST_PX] = [0.35, 220];

/** Whether a round of its trial has a picture. */
export function hasCellPicture(db: Db, { result, roundId }: KeptResult): boolean {
  return result.kind === "marking" && roundId !== null && picturesOf(db, roundId).length > 0;
}

/** @returns a PNG; `null` where no picture shows the cell */
export async function cellPicture(db: Db, resultId: number): Promise<Buffer | null> {
  const kept = resultById(db, resultId);
  if (!kept || kept.trialId === null || kept.roundId === null) return null;
  const shown = areaIn(fullTrial(db, kept.trialId), kept);
  const facts = picturesOf(db, kept.roundId).at(-1);
  const packed = facts && greyOf(db, kept.roundId, facts.id);
  if (!shown || !facts || !packed) return null;
  const bytes = await promisify(inflate)(packed);
  const picture = { width: facts.width, height: facts.height, grey: new Uint8Array(bytes) };
  const { area, dots, radiusMm } = shown;
  const found = [false, true].map((brighter) => findArray(picture, dots, radiusMm, brighter)).find((f) => f.ok);
  if (!found?.ok) return null;
  const by = AROUND * (area.x1 - area.x0);
  const corners = [
    { x: area.x0 - by, y: area.y0 - by },
    { x: area.x1 + by, y: area.y0 - by },
    { x: area.x1 + by, y: area.y1 + by },
    { x: area.x0 - by, y: area.y1 + by },
  ].map((p) => projected(found.toPicture, p));
  return greyPng({ ...cutOut(picture, corners), pixelsPerMm: found.pxPerMm });
}

/** Where the cell lies on the coupon of the round that it was kept from. */
function areaIn(full: FullTrial, { roundId, result }: KeptResult) {
  const round = full.rounds.find((r) => r.id === roundId);
  const measurand = round?.spec?.sites.find((s) => s.id === SCAN_SITE)?.measurand;
  if (!round || measurand?.kind !== "cell look") return null;
  if (typeof round.plan !== "object" || round.plan === null) return null;
  const plan = testArrayPlan({ machine: full.machine, couponCode: "", inForce: {} }).whole(round.plan);
  const wanted = Object.entries(settingsAmong(result.values));
  const burned = arrayCells(plan, full.machine).filter((c) => c.leftOut === null);
  const at = burned.findIndex((c) => wanted.every(([key, value]) => isSame(Object.entries(c.settings), key, value)));
  const area = measurand.cells[at];
  return area ? { area, dots: measurand.dots, radiusMm: measurand.radiusMm } : null;
}

function isSame(settings: readonly (readonly [string, number])[], key: string, value: number): boolean {
  return settings.some(([k, v]) => k === key && Math.abs(v - value) < 1e-9 * Math.max(1, Math.abs(v)));
}

/** The smallest upright part around these places, every so many pixels. */
function cutOut({ width, height, grey }: GreyPicture, around: readonly { x: number; y: number }[]): GreyPicture {
  const within = (v: number, most: number) => Math.max(0, Math.min(most, Math.round(v)));
  const [xs, ys] = [around.map((p) => p.x), around.map((p) => p.y)];
  const [x0, x1] = [within(Math.min(...xs), width - 1), within(Math.max(...xs), width)];
  const [y0, y1] = [within(Math.min(...ys), height - 1), within(Math.max(...ys), height)];
  const step = Math.max(1, Math.ceil(Math.max(x1 - x0, y1 - y0) / LONGEST_PX));
  const [columns, rows] = [Math.max(1, Math.floor((x1 - x0) / step)), Math.max(1, Math.floor((y1 - y0) / step))];
  const part = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      part[row * columns + column] = grey[(y0 + row * step) * width + x0 + column * step] ?? 0;
  return { width: columns, height: rows, grey: part };
}
