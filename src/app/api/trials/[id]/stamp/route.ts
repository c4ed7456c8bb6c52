import { database } from "../../../../../data/server-database";
import { Refusal } from "../../../../../server/refusal";
import { trialStamp } from "../../../../../server/trial/trial-stamp";

/** Asked every second or two by each window in which the trial is open. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  try {
    return Response.json(trialStamp(database(), Number(id)), { headers: { "Cache-Control": "no-store" } });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 404 });
    throw error;
  }
}
