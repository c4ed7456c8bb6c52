/** A life of a process that does the server's own steps, as one file that starts at once: many kills are a matter of seconds. */
import { spawn } from "node:child_process";
import path from "node:path";
import { buildSync } from "esbuild";
import type { Life } from "./rehearsal";

/** Bundled below the working folder, so that it finds its packages. */
export function stepsLife(): Life {
  const outfile = path.resolve(".tmp/kill-child.mjs");
  buildSync({
    entryPoints: ["scripts/kills/child.ts"],
    bundle: true,
    platform: "node",
    format: "esm",
    // Packages of an older kind ask for others by this name.
    banner: { js: `import { createRequire } from "node:module"; const require = createRequire(import.meta.url);` },
    outfile,
    logLevel: "warning",
    external: ["better-sqlite3", "sharp", "pdfkit"],
  });
  return ({ file, trials, seed, afterMs }) => {
    const child = spawn(process.execPath, [outfile, file, String(trials.read), String(trials.recorded), String(seed)]);
    let said = "";
    let faults = "";
    return new Promise((resolve, reject) => {
      child.stderr.on("data", (data) => {
        faults += data;
      });
      child.stdout.on("data", (data) => {
        const isFirst = !said.includes("\n");
        said += data;
        if (isFirst && said.includes("\n")) setTimeout(() => child.kill("SIGKILL"), afterMs);
      });
      child.on("exit", (code) => {
        if (code !== null) return reject(new Error(`the process ended by itself: ${faults}`));
        const lines = said.split("\n").slice(0, -1);
        resolve(lines.map((line) => line.split(" ")));
      });
    });
  };
}
