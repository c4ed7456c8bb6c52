/** What every page should know: whether the data of the bench can be used, and whether the clock is right. */
import { database, looksInto } from "../../data/server-database";
import { troubleOf } from "../../data/trouble";
import { clockSetBack } from "./clock";

/** `data`: words on what is wrong with the file or its disk. */
export type BenchTrouble = { data: string | null; clock: { clock: number; newest: number } | null };

/** @throws what is no trouble of the data */
export function benchTrouble(): BenchTrouble {
  try {
    return { data: null, clock: clockSetBack(database(), Date.now()) };
  } catch (error) {
    const trouble = troubleOf(error);
    if (!trouble) throw error;
    return { data: looksInto(trouble).message, clock: null };
  }
}
