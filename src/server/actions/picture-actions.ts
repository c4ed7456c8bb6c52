"use server";
/** What the picture screen may ask the server to do, besides sending a picture. */
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { pictureScaleSchema } from "../../core/picture/picture-scale";
import { MOST_ACROSS } from "../../core/procedures/field/grid/plan";
import { MOST_CELLS } from "../../core/procedures/test-array/plan-faults";
import { database } from "../../data/server-database";
import { momentNow } from "../keeping/clock";
import * as steps from "../pictures/picture-steps";
import { run } from "./run-action";

const place = { trialId: z.number().int().positive(), n: z.number().int().positive() };
const picture = z.number().int().positive();

export async function givePictureScale(input: unknown) {
  return run(z.object({ ...place, picture, scale: pictureScaleSchema }), input, (i) => {
    steps.givePictureScale(database(), i.trialId, i.n, i.picture, i.scale);
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

export async function dropPicture(input: unknown) {
  return run(z.object({ ...place, picture }), input, (i) => {
    steps.dropPicture(database(), i.trialId, i.n, i.picture, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

const readings = z
  .array(
    z.union([
      z.object({
        site: z.string(),
        mm: z.number().finite(),
        uMm: z.number().positive().finite(),
        degreesOfFreedom: z.number().positive().finite(),
        edited: z.boolean(),
      }),
      z.object({
        site: z.string(),
        points: z.array(z.object({ x: z.number().finite(), y: z.number().finite() }).nullable()).max(MOST_ACROSS ** 2),
        uMm: z.number().positive().finite(),
        degreesOfFreedom: z.number().positive().finite(),
        edited: z.boolean(),
      }),
      z.object({
        site: z.string(),
        scores: z.array(z.number().finite().nullable()).max(MOST_CELLS),
        edited: z.boolean(),
      }),
      z.object({ site: z.string(), blank: z.literal(true) }),
    ]),
  )
  .max(500);

export async function acceptPicture(input: unknown) {
  return run(z.object({ ...place, picture, readings, key: z.string().min(8).max(60) }), input, (i) => {
    const count = steps.acceptPicture(database(), i, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
    return count;
  });
}
