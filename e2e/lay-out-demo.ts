/** Before all tests the demo bench is laid out once; each test begins with a copy of it. */
import { spawnSync } from "node:child_process";
import { mkdirSync, rmSync } from "node:fs";
import path from "node:path";

const FOLDER = ".tmp/e2e";
export const DEMO_BENCH = path.join(FOLDER, "demo.sqlite");

export default function layOutDemo(): void {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
  const seeded = spawnSync(process.execPath, ["node_modules/tsx/dist/cli.mjs", "scripts/seed.ts"], {
    env: { ...process.env, USTRINA_DATABASE: DEMO_BENCH },
    encoding: "utf8",
  });
  if (seeded.status !== 0) throw new Error(`the demo bench cannot be laid out: ${seeded.stderr}`);
}
