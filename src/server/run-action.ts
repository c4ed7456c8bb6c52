/** How every action of the pages runs: its input is parsed, its answer is data, also a refusal. */
import type { z } from "zod";
import { answering, type Result } from "./refusal";

/** Parses, runs, and answers; what cannot be parsed is a fault of the page, said as such. */
export async function run<I, O>(schema: z.ZodType<I>, input: unknown, act: (input: I) => O): Promise<Result<O>> {
  const read = schema.safeParse(input);
  if (!read.success) {
    const issue = read.error.issues[0];
    return { ok: false, field: issue?.path.join(".") ?? "", message: issue?.message ?? "This cannot be read." };
  }
  return answering(() => act(read.data));
}
