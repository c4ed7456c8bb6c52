/** Makes or reads the access code of the bench and says where other devices reach it; `--new-code` makes another code. Prints JSON for the starter. */
import path from "node:path";
import { databaseFile } from "../src/data/server-database";
import { codeWords } from "../src/server/guard/access-code";
import { keysOf } from "../src/server/guard/access-file";
import { addresses } from "../src/server/guard/allowed-hosts";

const keys = keysOf(path.dirname(databaseFile()), process.argv.includes("--new-code"));
console.log(JSON.stringify({ ...keys, words: codeWords(keys.code), addresses: addresses() }));
