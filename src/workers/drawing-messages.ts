/** What a page and a worker that works on drawings say to each other. `id` counts the orders: of several only the last matters. */
export type ToDrawingWorker<Order> = { id: number; order: Order };
export type FromDrawingWorker<Result> = { id: number; result: Result; ms: number };

/** What every such worker may say instead of a result. */
export type CannotWork = { ok: false; asksUnit: boolean; message: string };
