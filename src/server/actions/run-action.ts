/** How every action of the pages runs: its input is parsed, it is done whole or not at all, its answer is data, also a refusal. */
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { database } from "../../data/server-database";
import { answering, type Result } from "../refusal";

/** A file as text. What is too large of its kind is said by its reader; what is too large of any kind does not come so far. */
export const fileText = z.string();

/**
 * Parses, runs in one transaction, and answers; what cannot be parsed is a fault of the page, said as such.
 *
 * The commit is a step of its own, whose fault is heard: SQLite ends a single statement that returns its row only after that row
 * was given out, and whether it could be kept is not known by then.
 */
export async function run<I, O>(schema: z.ZodType<I>, input: unknown, act: (input: I) => O): Promise<Result<O>> {
  return runOutside(schema, input, (read) =>
    database()
      .$client.transaction(() => act(read))
      .immediate(),
  );
}

/** The same for what changes what several pages show. */
export async function runAndRefresh<I, O>(
  schema: z.ZodType<I>,
  input: unknown,
  act: (input: I) => O,
): Promise<Result<O>> {
  return run(schema, input, (i) => {
    const done = act(i);
    revalidatePath("/", "layout");
    return done;
  });
}

/** The same for what is not done in the bench but to it, such as a restore. */
export async function runOutside<I, O>(
  schema: z.ZodType<I>,
  input: unknown,
  act: (input: I) => O | Promise<O>,
): Promise<Result<O>> {
  const read = schema.safeParse(input);
  if (!read.success) {
    const issue = read.error.issues[0];
    return { ok: false, field: issue?.path.join(".") ?? "", message: issue?.message ?? "This cannot be read." };
  }
  return answering(() => act(read.data));
}
