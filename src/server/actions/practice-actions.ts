"use server";
/** What the pages may ask the server to do with practice machines, and the demo bench they stand on. */
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { type Machine, machineBySlug } from "../../data/machines";
import { database } from "../../data/server-database";
import { addDemoBench } from "../demo/demo-bench";
import { momentNow } from "../keeping/clock";
import * as practice from "../practice/practice-machine";
import { Refusal } from "../refusal";
import { run } from "./run-action";

export async function revealTruth(input: unknown) {
  return practiceAction(z.object({ machine: z.string() }), input, ({ id }) =>
    practice.reveal(database(), id, momentNow()),
  );
}

export async function renewPractice(input: unknown) {
  return practiceAction(z.object({ machine: z.string() }), input, (machine) =>
    practice.renew(database(), machine, Date.now() % 2 ** 31),
  );
}

export async function switchCorrection(input: unknown) {
  return practiceAction(z.object({ machine: z.string(), on: z.boolean() }), input, ({ id }, i) =>
    practice.switchCorrection(database(), id, i.on),
  );
}

export async function wearPractice(input: unknown) {
  return practiceAction(
    z.object({ machine: z.string(), months: z.number().int().min(1).max(240) }),
    input,
    ({ id }, i) => practice.wear(database(), id, i.months),
  );
}

export async function openDemoBench() {
  return run(z.undefined(), undefined, () => {
    addDemoBench(database(), momentNow());
    revalidatePath("/", "layout");
  });
}

async function practiceAction<I extends { machine: string }>(
  schema: z.ZodType<I>,
  input: unknown,
  act: (machine: Machine, input: I) => void,
) {
  return run(schema, input, (i) => {
    const machine = machineBySlug(database(), i.machine);
    if (!machine) throw new Refusal("machine", "There is no such machine.");
    act(machine, i);
    revalidatePath("/practice");
  });
}
