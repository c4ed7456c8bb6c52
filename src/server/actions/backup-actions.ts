"use server";
/** What the page of the backups may ask the server to do. */
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { database, databaseFile } from "../../data/server-database";
import * as backups from "../keeping/backup-steps";
import { answering, Refusal } from "../refusal";
import { runOutside } from "./run-action";

const name = z.string().max(120);

export async function backUpNow() {
  return answering(async () => {
    const facts = await backups.backUpNow(database(), databaseFile(), Date.now());
    revalidatePath("/", "layout");
    return facts;
  });
}

/** @param form with the file as `backup` */
export async function takeInBackup(form: FormData) {
  return answering(async () => {
    const file = form.get("backup");
    if (!(file instanceof File)) throw new Refusal("backup", "Choose a file.");
    const facts = backups.takeInBackup(new Uint8Array(await file.arrayBuffer()), databaseFile(), Date.now());
    revalidatePath("/backup");
    return facts;
  });
}

export async function restoreBackup(input: unknown) {
  return runOutside(z.object({ name }), input, (i) => {
    const facts = backups.restoreBackup(i.name, Date.now());
    revalidatePath("/", "layout");
    return facts;
  });
}

export async function throwAwayBackup(input: unknown) {
  return runOutside(z.object({ name }), input, (i) => {
    backups.throwAwayBackup(databaseFile(), i.name);
    revalidatePath("/backup");
  });
}
