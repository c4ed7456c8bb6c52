/** Pictures of burned coupons: added and taken back; only their scale is ever changed. */
import { and, asc, eq, isNull } from "drizzle-orm";
import { type PictureScale, pictureScaleSchema } from "../core/picture/picture-scale";
import type { Db } from "./database";
import { fromColumn, toColumn } from "./json-column";
import { picture } from "./schema";

export type PictureFacts = {
  id: number;
  name: string;
  sha256: string;
  width: number;
  height: number;
  xDpi: number | null;
  yDpi: number | null;
  scale: PictureScale | null;
  addedAt: number;
};

const FACTS = {
  id: picture.id,
  name: picture.name,
  sha256: picture.sha256,
  width: picture.width,
  height: picture.height,
  xDpi: picture.xDpi,
  yDpi: picture.yDpi,
  scale: picture.scale,
  addedAt: picture.addedAt,
};

/** A picture in colour, reduced; `rgb` deflated. */
export type PackedColours = { width: number; height: number; rgb: Buffer };

/** @param values `grey` deflated @param colours `null` where no colours are read @returns its id */
export function addPicture(
  db: Db,
  values: Omit<PictureFacts, "id" | "addedAt"> & { roundId: number; grey: Buffer },
  colours: PackedColours | null,
  now: number,
): number {
  const { rgb, width: rgbWidth, height: rgbHeight } = colours ?? { rgb: null, width: null, height: null };
  return db
    .insert(picture)
    .values({ ...values, rgb, rgbWidth, rgbHeight, scale: values.scale && toColumn(values.scale), addedAt: now })
    .returning({ id: picture.id })
    .get().id;
}

/** Oldest first. */
export function picturesOf(db: Db, roundId: number): PictureFacts[] {
  return db
    .select(FACTS)
    .from(picture)
    .where(and(eq(picture.roundId, roundId), isNull(picture.takenBackAt)))
    .orderBy(asc(picture.id))
    .all()
    .map((row) => ({
      ...row,
      scale: row.scale === null ? null : fromColumn(pictureScaleSchema, row.scale, "picture.scale"),
    }));
}

/** Grey bytes of one, deflated; `undefined` where the round has no such picture. */
export function greyOf(db: Db, roundId: number, id: number): Buffer | undefined {
  return db
    .select({ grey: picture.grey })
    .from(picture)
    .where(and(eq(picture.roundId, roundId), eq(picture.id, id), isNull(picture.takenBackAt)))
    .get()?.grey;
}

/** @returns `null` if the round has no such picture, or it has no colours */
export function coloursOf(db: Db, roundId: number, id: number): PackedColours | null {
  const row = db
    .select({ rgb: picture.rgb, width: picture.rgbWidth, height: picture.rgbHeight })
    .from(picture)
    .where(and(eq(picture.roundId, roundId), eq(picture.id, id), isNull(picture.takenBackAt)))
    .get();
  return row?.rgb && row.width !== null && row.height !== null
    ? { rgb: row.rgb, width: row.width, height: row.height }
    : null;
}

/** @returns whether there was such a picture */
export function setScale(db: Db, roundId: number, id: number, scale: PictureScale): boolean {
  return (
    db
      .update(picture)
      .set({ scale: toColumn(scale) })
      .where(and(eq(picture.roundId, roundId), eq(picture.id, id), isNull(picture.takenBackAt)))
      .run().changes === 1
  );
}

/** @returns whether there was such a picture */
export function takeBackPicture(db: Db, roundId: number, id: number, now: number): boolean {
  return (
    db
      .update(picture)
      .set({ takenBackAt: now })
      .where(and(eq(picture.roundId, roundId), eq(picture.id, id), isNull(picture.takenBackAt)))
      .run().changes === 1
  );
}
