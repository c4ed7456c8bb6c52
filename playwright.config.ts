import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "./e2e/chromium";

export default defineConfig({
  testDir: "e2e",
  // A busy machine is slow, and what is waited for comes.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  // Each test has a server of its own, and both wait for one another: on two cores a third test fills what the others leave.
  workers: 3,
  fullyParallel: true,
  globalSetup: "./e2e/lay-out-demo.ts",
  forbidOnly: true,
  // A test that passes only the second time is reported as flaky, with what was under way the first time: it must be mended.
  retries: 0,
  reporter: [["list"]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    // Traces cost each test a third of its time; a failing one is run again with --trace on.
    screenshot: "only-on-failure",
    launchOptions: CHROMIUM,
  },
});
