/** Fills an empty database with the demo bench. */
import { openDatabase } from "../src/data/database";
import { databaseFile, refuseEmptyPlace } from "../src/data/server-database";
import { troubleOf } from "../src/data/trouble";
import { addDemoBench } from "../src/server/demo/demo-bench";

try {
  refuseEmptyPlace(databaseFile());
  const db = openDatabase(databaseFile());
  addDemoBench(db, Date.now());
  db.$client.close();
} catch (error) {
  // The pages say the same, and offer the backups.
  const trouble = troubleOf(error);
  if (!trouble) throw error;
  console.error(trouble.message);
}
