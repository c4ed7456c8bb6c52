import { benchTrouble } from "../../../server/keeping/bench-trouble";

/** Asked by a page that could not be shown, for what it should say. */
export function GET(): Response {
  return Response.json(benchTrouble(), { headers: { "Cache-Control": "no-store" } });
}
