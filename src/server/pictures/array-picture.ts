/** The newest picture of a burned array, with its cells found again, and all its cells side by side. */
import { promisify } from "node:util";
import { inflate } from "node:zlib";
import type { Measurand } from "../../core/coupon/site";
import type { PlanePoint } from "../../core/fitting/plane-map";
import type { Projective } from "../../core/fitting/projective";
import { cellSheet } from "../../core/picture/array/cell-sheet";
import { findArray } from "../../core/picture/array/find-array";
import { type ColourPicture, type ColoursRead, readColours } from "../../core/picture/array/read-colours";
import type { GreyPicture } from "../../core/picture/grey-picture";
import type { Db } from "../../data/database";
import { coloursOf, greyOf, picturesOf } from "../../data/pictures";
import { partPng } from "../../formats/png-writer";
import { Refusal } from "../refusal";
import { type FullTrial, fullTrial, roundOf } from "../trial/trial-record";

type Look = Extract<Measurand, { kind: "cell look" | "cell colour" }>;

export type ArrayPicture = {
  id: number;
  picture: GreyPicture;
  toPicture: Projective;
  look: Look;
};

/** @param id of the picture; left out: the newest @returns `null` if the round has no such picture, or its dots are not found */
export async function arrayPicture(
  db: Db,
  round: FullTrial["rounds"][number],
  id?: number,
): Promise<ArrayPicture | null> {
  const pictures = picturesOf(db, round.id);
  const facts = id === undefined ? pictures.at(-1) : pictures.find((p) => p.id === id);
  const packed = facts && greyOf(db, round.id, facts.id);
  const look = round.spec?.sites.flatMap(({ measurand: m }) =>
    m.kind === "cell look" || m.kind === "cell colour" ? [m] : [],
  )[0];
  if (!facts || !packed || !look) return null;
  const bytes = await promisify(inflate)(packed);
  const picture = { width: facts.width, height: facts.height, grey: new Uint8Array(bytes) };
  const found = [false, true]
    .map((brighter) => findArray(picture, look.dots, look.radiusMm, brighter))
    .find((f) => f.ok);
  return found?.ok ? { id: facts.id, picture, toPicture: found.toPicture, look } : null;
}

/** @returns `null` if the picture has no colours */
export async function colourPicture(db: Db, roundId: number, id: number): Promise<ColourPicture | null> {
  const packed = coloursOf(db, roundId, id);
  return packed && { ...packed, rgb: new Uint8Array(await promisify(inflate)(packed.rgb)) };
}

/**
 * Colours of all burned cells of a round in one of its pictures.
 *
 * @param cards places in pixels of the picture
 * @throws Refusal when the picture has no colours, or the array is not found
 */
export async function cellColours(
  db: Db,
  {
    trialId,
    n,
    picture: id,
    cards,
  }: { trialId: number; n: number; picture: number; cards: Record<"white" | "grey", PlanePoint> },
): Promise<ColoursRead> {
  const round = roundOf(fullTrial(db, trialId), n);
  const shown = await arrayPicture(db, round, id);
  const colours = await colourPicture(db, round.id, id);
  if (!shown || !colours || shown.look.kind !== "cell colour")
    throw new Refusal(
      "picture",
      "This picture does not show the colours of this array. Add the scan again, in colour.",
    );
  const { look, picture, toPicture } = shown;
  return readColours(colours, toPicture, colours.width / picture.width, look.cells, {
    white: { at: cards.white, l: look.white },
    grey: { at: cards.grey, l: look.grey },
  });
}

/** @returns a PNG of all burned cells of a round, as `cell-sheet` lays them out; `null` if no picture shows them */
export async function cellSheetPng(db: Db, trialId: number, n: number): Promise<Buffer | null> {
  const shown = await arrayPicture(db, roundOf(fullTrial(db, trialId), n));
  if (!shown) return null;
  const sheet = cellSheet(shown.picture, shown.toPicture, shown.look.cells);
  return partPng(sheet, { x0: 0, y0: 0, x1: sheet.width, y1: sheet.height }, Math.max(sheet.width, sheet.height));
}
