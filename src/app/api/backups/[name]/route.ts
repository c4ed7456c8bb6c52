import { createReadStream } from "node:fs";
import { Readable } from "node:stream";
import { databaseFile } from "../../../../data/server-database";
import { attachment } from "../../../../server/attachment";
import { backupNamed } from "../../../../server/keeping/backup-steps";
import { Refusal } from "../../../../server/refusal";

/** A backup, to be kept on another disk. */
export async function GET(_: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  try {
    const { file, name, bytes } = backupNamed(databaseFile(), (await params).name);
    return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, {
      headers: {
        "Content-Type": "application/vnd.sqlite3",
        "Content-Length": String(bytes),
        "Content-Disposition": attachment(name),
        "Cache-Control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 404 });
    throw error;
  }
}
