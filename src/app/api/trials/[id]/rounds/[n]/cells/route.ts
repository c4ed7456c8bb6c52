import { database } from "../../../../../../../data/server-database";
import { cellSheetPng } from "../../../../../../../server/pictures/array-picture";
import { Refusal } from "../../../../../../../server/refusal";

/** All burned cells of an array side by side, as the newest picture of the round shows them. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string; n: string }> }): Promise<Response> {
  const { id, n } = await params;
  try {
    const png = await cellSheetPng(database(), Number(id), Number(n));
    if (!png) return new Response("No picture shows these cells.", { status: 404 });
    return new Response(new Uint8Array(png), {
      headers: { "Content-Type": "image/png", "Cache-Control": "private, max-age=60" },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}
