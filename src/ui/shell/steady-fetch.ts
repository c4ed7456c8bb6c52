"use client";
/**
 * Pages are asked for again until the server is back. Left to itself the router leaves the page for the browser's own fault page
 * when a request fails, also one that only looks whether something is new, and what stands on the page is gone.
 */
import { toast } from "sonner";

const AGAIN_MS = 1500;
const NOTE = "server away";
/** Answers without a body cannot be made again. */
const EMPTY = new Set([204, 205, 304]);

/** Puts it in the place of the browser's own `fetch`. @returns how to take it away again */
export function steadyFetch(): () => void {
  const own = window.fetch;
  const steady: typeof fetch = (input, init) => (asksForPage(init) ? untilWhole(own, input, init) : own(input, init));
  window.fetch = steady;
  return () => {
    if (window.fetch === steady) window.fetch = own;
  };
}

/** What is only fetched beforehand may fail. */
function asksForPage(init: RequestInit | undefined): boolean {
  const headers = new Headers(init?.headers);
  return (init?.method ?? "GET") === "GET" && headers.has("rsc") && !headers.has("next-router-prefetch");
}

async function untilWhole(own: typeof fetch, input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
  for (;;) {
    try {
      const answer = await whole(await own(input, init));
      toast.dismiss(NOTE);
      return answer;
    } catch (error) {
      if (init?.signal?.aborted) throw error;
      toast("The server does not answer. The page comes when it is back.", { id: NOTE, duration: Infinity });
      await new Promise((done) => setTimeout(done, AGAIN_MS));
    }
  }
}

/** Also a server that goes away in the middle of its answer does not answer. */
async function whole(answer: Response): Promise<Response> {
  if (EMPTY.has(answer.status)) return answer;
  const { status, statusText, headers, url, redirected } = answer;
  const again = new Response(await answer.arrayBuffer(), { status, statusText, headers });
  return Object.defineProperties(again, { url: { value: url }, redirected: { value: redirected } });
}
