import { database } from "../../../../../../../../data/server-database";
import { pictureBytes } from "../../../../../../../../server/pictures/picture-steps";
import { Refusal } from "../../../../../../../../server/refusal";

/** The grey bytes of a picture, row by row from the top; packed (zlib). */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ id: string; n: string; picture: string }> },
): Promise<Response> {
  const { id, n, picture } = await params;
  try {
    const bytes = pictureBytes(database(), Number(id), Number(n), Number(picture));
    return new Response(new Uint8Array(bytes), {
      headers: {
        "Content-Type": "application/octet-stream",
        "Content-Disposition": "attachment",
        // Its bytes never change.
        "Cache-Control": "private, max-age=3600, immutable",
      },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}
