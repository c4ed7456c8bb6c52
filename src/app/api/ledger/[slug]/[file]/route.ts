import { database } from "../../../../../data/server-database";
import { attachment } from "../../../../../server/attachment";
import { momentNow } from "../../../../../server/keeping/clock";
import { ledgerFile } from "../../../../../server/ledger/ledger-files";
import { Refusal } from "../../../../../server/refusal";

type Asked = { params: Promise<{ slug: string; file: string }> };

/** The ledger of a machine, whole: as a document to load elsewhere, or as a table. */
export async function GET(_: Request, { params }: Asked): Promise<Response> {
  const { slug, file } = await params;
  try {
    const { name, mime, text } = ledgerFile(database(), slug, file, momentNow());
    return new Response(text, {
      headers: {
        "Content-Type": `${mime}; charset=utf-8`,
        "Content-Disposition": attachment(name),
        "Cache-Control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}
