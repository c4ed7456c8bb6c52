import { database } from "../../../../data/server-database";
import { textFile } from "../../../../server/attachment";
import { stockFile } from "../../../../server/stock/stock-files";

/** All cards of stock: as a document to load elsewhere, or as a table. */
export async function GET(_: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  const { file } = await params;
  return textFile(() => stockFile(database(), file));
}
