import { database } from "../../../../../../../data/server-database";
import { attachment } from "../../../../../../../server/attachment";
import { Refusal } from "../../../../../../../server/refusal";
import { AS_USUAL, type FileBody, roundFile } from "../../../../../../../server/trial/round-files";
import { paperOf } from "../../../../../../../server/trial/round-sheet";

/** A file of a round, such as coupon.svg; `?paper=letter` for what lies on pages, `?piece=2` for what holds one, `?dpi=1200` for a scan, `?x=20&y=35&across=5` for a look. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string; n: string; file: string }> },
): Promise<Response> {
  const { id, n, file } = await params;
  try {
    const asked = new URL(request.url).searchParams;
    const made = roundFile(database(), Number(id), Number(n), file, {
      paper: paperOf(asked.get("paper")),
      piece: Number(asked.get("piece") ?? AS_USUAL.piece),
      dpi: Number(asked.get("dpi") ?? 0),
      place: {
        at: { x: Number(asked.get("x") ?? 0), y: Number(asked.get("y") ?? 0) },
        acrossMm: Number(asked.get("across") ?? 10),
      },
      of: (asked.get("of") ?? "").replace(/[^\w-]/g, ""),
    });
    const body = await made.body;
    const text = made.mime.startsWith("text/") || !Buffer.isBuffer(body);
    return new Response(streamed(body), {
      headers: {
        "Content-Type": text ? `${made.mime}; charset=utf-8` : made.mime,
        "Content-Disposition": attachment(made.name),
        "Cache-Control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}

/** Pieces are made as the reader takes them, so that a long file is never held whole. */
function streamed(body: FileBody): string | Uint8Array<ArrayBuffer> | ReadableStream<Uint8Array> {
  if (typeof body === "string") return body;
  if (Buffer.isBuffer(body)) return new Uint8Array(body);
  const pieces = body[Symbol.iterator]();
  const encoder = new TextEncoder();
  return new ReadableStream({
    pull(controller) {
      const next = pieces.next();
      if (next.done) controller.close();
      else controller.enqueue(encoder.encode(next.value));
    },
  });
}
