/** One command from a fresh clone to the running demo: installs, builds, migrates, seeds, starts. */
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { buildIsFresh, installPackages, run } from "./ready.mjs";

const PORT = process.env.PORT ?? "4820";
const BUILD_STAMP = ".next/ustrina-sources";
const BUILT_FROM = ["src", "package-lock.json", "next.config.ts", "postcss.config.mjs", "tsconfig.json"];

installPackages();
const sources = hashOf(BUILT_FROM);
if (!buildIsFresh(BUILD_STAMP, sources)) {
  console.log("Building …");
  run(process.execPath, ["node_modules/next/dist/bin/next", "build"], { NEXT_TELEMETRY_DISABLED: "1" });
  mkdirSync(path.dirname(BUILD_STAMP), { recursive: true });
  writeFileSync(BUILD_STAMP, sources);
}
console.log("Laying out the demo bench …");
run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "scripts/seed.ts"]);
start();

function start() {
  const server = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", PORT], {
    stdio: ["inherit", "pipe", "inherit"],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
  });
  server.stdout.on("data", (data) => {
    if (String(data).includes("Ready"))
      console.log(
        `\nUstrina is running: http://127.0.0.1:${PORT}\nCtrl+C stops it. Its data stays in ${process.env.USTRINA_DATABASE ?? "data/ustrina.sqlite"}.`,
      );
  });
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => server.kill(signal));
  server.on("exit", (code, signal) => {
    if (code !== null && code !== 0)
      console.error(`The server ended with ${code}. If the port is taken: PORT=4830 npm run demo`);
    process.exit(signal ? 0 : (code ?? 0));
  });
}

/** A hash over all files below some paths. */
function hashOf(paths) {
  const hash = createHash("sha256");
  for (const start of paths) {
    const files = statSync(start).isDirectory()
      ? readdirSync(start, { recursive: true, encoding: "utf8" })
          .sort()
          .map((f) => path.join(start, f))
      : [start];
    for (const file of files) if (statSync(file).isFile()) hash.update(file).update(readFileSync(file));
  }
  return hash.digest("hex");
}
