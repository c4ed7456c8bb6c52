import { defineConfig } from "@playwright/test";

const PORT = 4870;

export default defineConfig({
  testDir: "e2e",
  timeout: 120_000,
  workers: 1,
  fullyParallel: false,
  forbidOnly: true,
  reporter: [["list"]],
  // The whole loop begins on the empty bench, so it goes first.
  projects: [
    { name: "whole loop", testMatch: "whole-loop.spec.ts" },
    { name: "the rest", testIgnore: "whole-loop.spec.ts", dependencies: ["whole loop"] },
  ],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
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
  webServer: {
    command: `rm -rf .tmp/e2e && node node_modules/next/dist/bin/next start -H 127.0.0.1 -p ${PORT}`,
    url: `http://127.0.0.1:${PORT}`,
    env: { USTRINA_DATABASE: ".tmp/e2e/bench.sqlite", USTRINA_MADE_UP: "1", NEXT_TELEMETRY_DISABLED: "1" },
    reuseExistingServer: false,
    timeout: 60_000,
  },
});
