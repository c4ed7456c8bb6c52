/** Adapts a drawing off the page. */
import { adapt } from "../artwork/adapt";
import type { FromAdapter, ToAdapter } from "./artwork-messages";

addEventListener("message", ({ data: { id, order } }: MessageEvent<ToAdapter>) => {
  const began = performance.now();
  const say = (result: FromAdapter["result"]) =>
    postMessage({ id, result, ms: performance.now() - began } satisfies FromAdapter);
  try {
    say(adapt(order));
  } catch (error) {
    console.error(error);
    say({ ok: false, asksUnit: false, message: "This drawing could not be worked through to its end." });
  }
});
