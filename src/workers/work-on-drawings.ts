/** A worker that does one kind of work on drawings, order after order, and never goes silent. */
import type { CannotWork, FromDrawingWorker, ToDrawingWorker } from "./drawing-messages";

export function workOnDrawings<Order, Result>(work: (order: Order) => Result): void {
  addEventListener("message", ({ data: { id, order } }: MessageEvent<ToDrawingWorker<Order>>) => {
    const began = performance.now();
    const say = (result: Result | CannotWork) =>
      postMessage({ id, result, ms: performance.now() - began } satisfies FromDrawingWorker<Result | CannotWork>);
    try {
      say(work(order));
    } catch (error) {
      console.error(error);
      say({ ok: false, asksUnit: false, message: "This drawing could not be worked through to its end." });
    }
  });
}
