/** What the page and the worker that adapts drawings say to each other. */
import type { AdaptOrder, AdaptResult } from "../artwork/adapt";

/** `id` counts the orders: of several only the last matters. */
export type ToAdapter = { id: number; order: AdaptOrder };
export type FromAdapter = { id: number; result: AdaptResult; ms: number };
