import { database } from "../../../../../data/server-database";
import { cellPicture } from "../../../../../server/stock/cell-picture";

/** The cell of kept marking settings, as a picture of its array shows it. */
export async function GET(_: Request, { params }: { params: Promise<{ result: string }> }): Promise<Response> {
  const { result } = await params;
  const png = await cellPicture(database(), Number(result));
  if (!png) return new Response("No picture shows this cell.", { status: 404 });
  return new Response(new Uint8Array(png), {
    headers: { "Content-Type": "image/png", "Cache-Control": "private, max-age=600" },
  });
}
