/** In the place of `core/course/extra-procedures` where the tests of the screens build the app. */
import type { ListedProcedure } from "../core/course/procedure-list";

export const EXTRA_PROCEDURES: readonly ListedProcedure[] = [
  { id: "made-up", load: () => import("./made-up/procedure").then((m) => m.madeUp) },
];
