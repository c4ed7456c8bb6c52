import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "e2e",
  // A busy machine is slow, and what is waited for comes.
  timeout: 300_000,
  expect: { timeout: 15_000 },
  // Each test has a server of its own, and a browser takes as much as a server.
  workers: 2,
  fullyParallel: true,
  globalSetup: "./e2e/lay-out-demo.ts",
  forbidOnly: true,
  reporter: [["list"]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    // Traces cost each test a third of its time; a failing one is run again with --trace on.
    screenshot: "only-on-failure",
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
});
