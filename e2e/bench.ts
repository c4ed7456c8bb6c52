/** Every test has a server and a bench of its own, so that none depends on what another did, nor on their order. */
import { test as base, type Page, type Request } from "@playwright/test";
import { type OwnServer, ownServer } from "./own-server";

const FIRST_PORT = 4870;

export const test = base.extend<{ bench: "demo" | "empty"; server: OwnServer; underWay: undefined }>({
  bench: ["demo", { option: true }],
  server: async ({ bench }, use, info) => {
    const server = ownServer(FIRST_PORT + info.parallelIndex, `.tmp/e2e/${info.testId}-${info.repeatEachIndex}`, bench);
    await server.start();
    await use(server);
    await server.kill();
  },
  baseURL: ({ server }, use) => use(server.origin),
  // A page is there for a person when it answers to keys, which is a moment after it is seen.
  page: async ({ page }, use) => {
    const [goTo, reload] = [page.goto.bind(page), page.reload.bind(page)];
    page.goto = (...to) => goTo(...to).then((answer) => answering(page).then(() => answer));
    page.reload = (...how) => reload(...how).then((answer) => answering(page).then(() => answer));
    await use(page);
  },
  // What was asked for and not yet answered when a test failed, and what its server had said.
  underWay: [
    async ({ page, server }, use, info) => {
      const asked = new Map<Request, string>();
      const answered = (request: Request) => asked.delete(request);
      page.on("request", (r) => asked.set(r, `${new Date().toISOString()} ${r.method()} ${r.url()}`));
      page.on("requestfinished", answered);
      page.on("requestfailed", answered);
      await use(undefined);
      if (info.status !== info.expectedStatus)
        console.log(
          [`${info.title}, under way at ${new Date().toISOString()}:`, ...asked.values(), server.printed()].join("\n"),
        );
    },
    { auto: true },
  ],
});

/** Pages that are not drawn by the app answer at once. */
async function answering(page: Page): Promise<void> {
  await page.waitForFunction(() => {
    const isApp = document.querySelector('script[src*="/_next/"]') !== null;
    const isAlive = (e: Element) => Object.keys(e).some((key) => key.startsWith("__reactProps"));
    return !isApp || [...document.querySelectorAll("a, button, input")].some(isAlive);
  });
}

export { expect } from "@playwright/test";
