import { database } from "../../../../data/server-database";
import { attachment } from "../../../../server/attachment";
import { Refusal } from "../../../../server/refusal";
import { stockFile } from "../../../../server/stock/stock-files";

/** All cards of stock: as a document to load elsewhere, or as a table. */
export async function GET(_: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  const { file } = await params;
  try {
    const { name, mime, text } = stockFile(database(), file);
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
