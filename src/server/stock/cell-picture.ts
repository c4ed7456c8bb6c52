/** Picture of the cell of marking settings, cut out of a picture of its array. */
import { projected } from "../../core/fitting/projective";
import { boundsOf, corners, type Rect } from "../../core/geometry/rect";
import { apart } from "../../core/marking/alike";
import { settingsAmong } from "../../core/marking/cell-settings";
import type { ColourPicture } from "../../core/picture/array/read-colours";
import { arrayCells } from "../../core/procedures/test-array/cells";
import { testArrayPlan } from "../../core/procedures/test-array/plan-faults";
import type { Db } from "../../data/database";
import { picturesOf } from "../../data/pictures";
import { type KeptResult, resultById } from "../../data/stocks";
import { colourPartPng, partPng } from "../../formats/png-writer";
import { type ArrayPicture, arrayPicture, colourPicture } from "../pictures/array-picture";
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
  const shown = await shownIn(db, fullTrial(db, kept.trialId), kept);
  if (!shown) return null;
  const { area, picture, toPicture, colours } = shown;
  const by = AROUND * (area.x1 - area.x0);
  const wider = { x0: area.x0 - by, y0: area.y0 - by, x1: area.x1 + by, y1: area.y1 + by };
  const box = boundsOf(corners(wider).map((p) => projected(toPicture, p)));
  if (!box) return null;
  if (!colours) return partPng(picture, box, LONGEST_PX);
  const scale = colours.width / picture.width;
  const reduced = { x0: scale * box.x0, y0: scale * box.y0, x1: scale * box.x1, y1: scale * box.y1 };
  return colourPartPng(colours, reduced, LONGEST_PX);
}

/** The newest burn of this cell that has a picture, up to the round of the result. */
async function shownIn(
  db: Db,
  full: FullTrial,
  { roundId, result }: KeptResult,
): Promise<(ArrayPicture & { area: Rect; colours: ColourPicture | null }) | null> {
  const last = full.rounds.findIndex((r) => r.id === roundId);
  const wanted = settingsAmong(result.values);
  for (const round of full.rounds.slice(0, last + 1).reverse()) {
    if (typeof round.plan !== "object" || round.plan === null || picturesOf(db, round.id).length === 0) continue;
    const plan = testArrayPlan({ machine: full.machine, couponCode: "", inForce: {} }).whole(round.plan);
    const burned = arrayCells(plan, full.machine).filter((c) => c.leftOut === null);
    const k = burned.findIndex((c) => apart(wanted, c.settings)?.distance === 0);
    const shown = k < 0 ? null : await arrayPicture(db, round);
    const area = shown?.look.cells[k];
    if (shown && area) return { ...shown, area, colours: await colourPicture(db, round.id, shown.id) };
  }
  return null;
}
