import { database } from "../../../data/server-database";
import { placesView } from "../../../server/screens/places-view";

/** What the palette finds. */
export function GET(): Response {
  return Response.json(placesView(database()), { headers: { "Cache-Control": "no-store" } });
}
