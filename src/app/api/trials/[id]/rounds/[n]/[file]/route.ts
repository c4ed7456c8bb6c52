import { database } from "../../../../../../../data/database";
import { Refusal } from "../../../../../../../server/refusal";
import { roundFile } from "../../../../../../../server/round-files";

/** A file of a round: coupon.svg or coupon.nc. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string; n: string; file: string }> },
): Promise<Response> {
  const { id, n, file } = await params;
  try {
    const made = roundFile(database(), Number(id), Number(n), file);
    return new Response(made.text, {
      headers: {
        "Content-Type": `${made.mime}; charset=utf-8`,
        "Content-Disposition": `attachment; filename="${made.name}"`,
        "Cache-Control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}
