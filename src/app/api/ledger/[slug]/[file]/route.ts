import { database } from "../../../../../data/server-database";
import { textFile } from "../../../../../server/attachment";
import { momentNow } from "../../../../../server/keeping/clock";
import { ledgerFile } from "../../../../../server/ledger/ledger-files";

type Asked = { params: Promise<{ slug: string; file: string }> };

/** The ledger of a machine, whole: as a document to load elsewhere, or as a table. */
export async function GET(_: Request, { params }: Asked): Promise<Response> {
  const { slug, file } = await params;
  return textFile(() => ledgerFile(database(), slug, file, momentNow()));
}
