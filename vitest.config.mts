import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["src/**/*.test.ts", "scripts/**/*.test.ts"],
    environment: "node",
    testTimeout: 600_000,
    hookTimeout: 120_000,
    maxWorkers: "100%",
  },
});
