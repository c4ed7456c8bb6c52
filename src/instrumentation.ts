/**
 * At start the database is opened and brought up to date, before the first page asks for it. Where it cannot be, the terminal says
 * why, and so do the pages until it can.
 */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { benchTrouble } = await import("./server/keeping/bench-trouble");
  const { databaseFile } = await import("./data/server-database");
  const { data } = benchTrouble();
  if (data !== null) console.error(`${databaseFile()}: ${data}`);
}
