import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["src/**/*.test.ts", "scripts/**/*.test.ts"],
    environment: "node",
    // The longest takes half a minute; one that waits for ever is told before long.
    testTimeout: 240_000,
    hookTimeout: 120_000,
    setupFiles: ["scripts/after-each-test.ts"],
    maxWorkers: "100%",
    // Files share their modules, which are the longest to load: each has a bench of its own and puts back what it changes.
    isolate: false,
  },
});
