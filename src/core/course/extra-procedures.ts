/** Procedures besides those of the list. The tests of the screens put theirs in the place of this module when they build the app. */
import type { ListedProcedure } from "./procedure-list";

export const EXTRA_PROCEDURES: readonly ListedProcedure[] = [];
