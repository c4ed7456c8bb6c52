/** Works out responses of arrays, off the page. */
import { answerOf } from "../core/marking/array-answer";
import type { FromResponder, ToResponder } from "./response-messages";

const say = (message: FromResponder) => postMessage(message);

addEventListener("message", ({ data: { given } }: MessageEvent<ToResponder>) => {
  say({ kind: "answer", answer: answerOf(given, (share) => say({ kind: "progress", share })) });
});
