/** Fills an empty database with the demo bench. */
import { databaseFile, openDatabase } from "../src/data/database";
import { addDemoBench } from "../src/server/demo/demo-bench";

const db = openDatabase(databaseFile());
addDemoBench(db, Date.now());
db.$client.close();
