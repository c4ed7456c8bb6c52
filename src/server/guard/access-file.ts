/** The access code is kept beside the database, so that devices which once came in stay in when the server starts again. */
import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { z } from "zod";
import type { AccessKeys } from "./access";
import { newCode } from "./access-code";

const FILE = "access.json";
const keysSchema = z.object({ code: z.string().length(8), secret: z.string().min(40) });

/**
 * The keys of a bench; made where there are none or they cannot be read, and made anew on request, which ends every session.
 *
 * @param folder of the database
 */
export function keysOf(folder: string, anew: boolean): AccessKeys {
  const file = path.join(folder, FILE);
  const kept = anew || !existsSync(file) ? null : keptIn(file);
  if (kept) return kept;
  const keys = { code: newCode(), secret: randomBytes(32).toString("base64url") };
  mkdirSync(folder, { recursive: true });
  writeFileSync(file, JSON.stringify(keys), { mode: 0o600 });
  return keys;
}

function keptIn(file: string): AccessKeys | null {
  try {
    return keysSchema.parse(JSON.parse(readFileSync(file, "utf8")));
  } catch {
    return null;
  }
}
