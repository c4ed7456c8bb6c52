import { database } from "../../../../../../../../../data/server-database";
import { cellColours } from "../../../../../../../../../server/pictures/array-picture";
import { Refusal } from "../../../../../../../../../server/refusal";

/** Colours of all burned cells, by the places of a white and a grey card: `?white=240,1180&grey=520,1180`, pixels of the picture. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string; n: string; picture: string }> },
): Promise<Response> {
  const { id, n, picture } = await params;
  const asked = new URL(request.url).searchParams;
  const [white, grey] = [placeIn(asked.get("white")), placeIn(asked.get("grey"))];
  if (!white || !grey)
    return new Response("Name the places of both cards, for example white=240,1180.", { status: 422 });
  try {
    const where = { trialId: Number(id), n: Number(n), picture: Number(picture), cards: { white, grey } };
    return Response.json(await cellColours(database(), where));
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}

function placeIn(text: string | null): { x: number; y: number } | null {
  const match = /^(\d+(?:\.\d+)?),(\d+(?:\.\d+)?)$/.exec(text ?? "");
  return match ? { x: Number(match[1]), y: Number(match[2]) } : null;
}
