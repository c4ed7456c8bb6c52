/** Documents of Ustrina's own as JSON: how each is read, and where and why it cannot be. */
import type { z } from "zod";
import { tooLarge } from "./parsed";

const MOST_CHARACTERS = 8_000_000;
/** Beginnings and separators in JSON: a trial of a thousand readings has some ten thousand. */
const MOST_MARKS = 200_000;
const [COMMA, OPEN_LIST, OPEN_OBJECT] = [44, 91, 123];

export type DocumentFault = { path: string; message: string };
export type ReadDocument<T> = { ok: true; document: T } | { ok: false; fault: DocumentFault };

export type DocumentKind<T> = {
  /** `trial`: as messages say it. */
  name: string;
  format: string;
  version: number;
  schema: z.ZodType<T>;
};

/** Reads a document, with at most so many beginnings and separators; a fault names its field, such as `rounds[0].readings[3].site`. */
export function readDocument<T>(text: string, kind: DocumentKind<T>, mostMarks = MOST_MARKS): ReadDocument<T> {
  const { name, format, version: present } = kind;
  if (text.length > MOST_CHARACTERS) return bad("", tooLarge(MOST_CHARACTERS));
  if (marksIn(text) > mostMarks)
    return bad("", `The file is too large for a ${name} document. Choose a file that Ustrina exported.`);
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch (error) {
    return bad(
      "",
      `The file is not valid JSON (${error instanceof Error ? error.message : "cannot be read"}). Export the ${name} again.`,
    );
  }
  if (typeof raw !== "object" || raw === null || Array.isArray(raw))
    return bad("", `The file is not a ${name} document. Choose a file that Ustrina exported.`);
  const { format: found, version } = raw as { format?: unknown; version?: unknown };
  if (found !== format) return bad("format", `The file is not a ${name} document. Its format must be “${format}”.`);
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1)
    return bad("version", `The version is missing. Enter version ${present}.`);
  if (version > present)
    return bad(
      "version",
      `The document has version ${version}. This Ustrina reads up to version ${present}. Update Ustrina.`,
    );
  if (version < present)
    return bad(
      "version",
      `The document has version ${version}. This Ustrina reads version ${present}. Export the ${name} again from the Ustrina that wrote it.`,
    );
  const read = kind.schema.safeParse(raw);
  if (read.success) return { ok: true, document: read.data };
  const issue = read.error.issues[0];
  return bad(pathText(issue?.path ?? []), issue?.message ?? "This cannot be read.");
}

export function documentText(document: unknown): string {
  return `${JSON.stringify(document, null, 2)}\n`;
}

/** `rounds[0].plan.speeds`. */
export function pathText(path: readonly PropertyKey[]): string {
  return path.reduce<string>(
    (text, part) => (typeof part === "number" ? `${text}[${part}]` : `${text}${text ? "." : ""}${String(part)}`),
    "",
  );
}

/** How many lists, objects and separators a text has, as far as it matters. */
function marksIn(text: string): number {
  let count = 0;
  for (let i = 0; i < text.length && count <= MOST_MARKS; i++) {
    const c = text.charCodeAt(i);
    if (c === COMMA || c === OPEN_LIST || c === OPEN_OBJECT) count++;
  }
  return count;
}

function bad(path: string, message: string): { ok: false; fault: DocumentFault } {
  return { ok: false, fault: { path, message } };
}
