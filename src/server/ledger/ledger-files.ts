/** The ledger of a machine as files. */
import type { Db } from "../../data/database";
import { documentText } from "../../formats/json-document";
import { ledgerCsv } from "../../formats/ledger-csv";
import { Refusal } from "../refusal";
import { ledgerOf } from "./ledger-document";

const FILES = {
  "ledger.json": { mime: "application/json", make: documentText },
  "ledger.csv": { mime: "text/csv", make: ledgerCsv },
} as const;

/** @throws Refusal where there is no such file or machine */
export function ledgerFile(
  db: Db,
  slug: string,
  file: string,
  now: number,
): { name: string; mime: string; text: string } {
  const made = Object.hasOwn(FILES, file) ? FILES[file as keyof typeof FILES] : null;
  if (!made) throw new Refusal("file", "There is no such file.");
  const document = ledgerOf(db, slug, now);
  return { name: `${document.machine.toLowerCase()}-${file}`, mime: made.mime, text: made.make(document) };
}
