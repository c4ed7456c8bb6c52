import { database } from "../../../../../../../data/server-database";
import { momentNow } from "../../../../../../../server/keeping/clock";
import { takePicture } from "../../../../../../../server/pictures/picture-steps";
import { answering } from "../../../../../../../server/refusal";

/** Takes a picture as it is; its name comes as `?name=`. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string; n: string }> },
): Promise<Response> {
  const { id, n } = await params;
  const name = new URL(request.url).searchParams.get("name") ?? "";
  const file = Buffer.from(await request.arrayBuffer());
  const result = await answering(() => takePicture(database(), Number(id), Number(n), name, file, momentNow()));
  return Response.json(result, { status: result.ok ? 200 : 422, headers: { "Cache-Control": "no-store" } });
}
