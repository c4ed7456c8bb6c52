/** At start the database is opened and brought up to date, before the first page asks for it. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { database } = await import("./data/database");
  database();
}
