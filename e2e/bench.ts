/** Every test has a server and a bench of its own, so that none depends on what another did, nor on their order. */
import { test as base } from "@playwright/test";
import { type OwnServer, ownServer } from "./own-server";

const FIRST_PORT = 4870;

export const test = base.extend<{ bench: "demo" | "empty"; server: OwnServer }>({
  bench: ["demo", { option: true }],
  server: async ({ bench }, use, info) => {
    const server = ownServer(FIRST_PORT + info.parallelIndex, `.tmp/e2e/${info.testId}-${info.repeatEachIndex}`, bench);
    await server.start();
    await use(server);
    await server.kill();
  },
  baseURL: ({ server }, use) => use(server.origin),
});

export { expect } from "@playwright/test";
