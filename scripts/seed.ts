/** Fills an empty database with the demo bench. */
import { openDatabase } from "../src/data/database";
import { databaseFile } from "../src/data/server-database";
import { addDemoBench } from "../src/server/demo/demo-bench";

const db = openDatabase(databaseFile());
addDemoBench(db, Date.now());
db.$client.close();
