import { defineConfig } from "@playwright/test";

const PORT = 4870;
/** A bench on which nothing has happened, for what a newcomer does first. */
const EMPTY_PORT = 4871;

function server(port: number, folder: string) {
  return {
    command: `rm -rf ${folder} && node node_modules/next/dist/bin/next start -H 127.0.0.1 -p ${port}`,
    url: `http://127.0.0.1:${port}`,
    env: { USTRINA_DATABASE: `${folder}/bench.sqlite`, USTRINA_MADE_UP: "1", NEXT_TELEMETRY_DISABLED: "1" },
    reuseExistingServer: false,
    timeout: 60_000,
  };
}

export default defineConfig({
  testDir: "e2e",
  // A busy machine is slow, and what is waited for comes.
  timeout: 300_000,
  expect: { timeout: 15_000 },
  workers: 1,
  fullyParallel: false,
  forbidOnly: true,
  reporter: [["list"]],
  // The whole loop begins on the empty bench, so it goes first.
  projects: [
    { name: "whole loop", testMatch: "whole-loop.spec.ts" },
    { name: "the rest", testIgnore: ["whole-loop.spec.ts", "empty-bench.spec.ts"], dependencies: ["whole loop"] },
    {
      name: "empty bench",
      testMatch: "empty-bench.spec.ts",
      use: { baseURL: `http://127.0.0.1:${EMPTY_PORT}` },
    },
  ],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    trace: "retain-on-failure",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: [server(PORT, ".tmp/e2e"), server(EMPTY_PORT, ".tmp/e2e-empty")],
});
