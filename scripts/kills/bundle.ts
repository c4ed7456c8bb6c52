/** The process to be killed as one file that starts at once: hundreds of starts are then a matter of a minute. */
import path from "node:path";
import { buildSync } from "esbuild";

/** @returns the file, below the working folder so that it finds its packages */
export function bundleKillChild(): string {
  const outfile = path.resolve(".tmp/kill-child.cjs");
  buildSync({
    entryPoints: ["scripts/kills/child.ts"],
    ...{ bundle: true, platform: "node", format: "cjs", outfile, logLevel: "warning" },
    external: ["better-sqlite3", "sharp", "pdfkit"],
  });
  return outfile;
}
