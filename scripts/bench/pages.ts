/** What each main page asks a browser to load. Needs a build. */
import { gzipSync } from "node:zlib";
import { below, type Line } from "./line";
import { startServer } from "./server";

const PORT = 4881;

/** Addresses on the demo bench, and what their scripts may weigh, kB. */
const PAGES: Record<string, number> = {
  "/": 250,
  "/machine/alder": 300,
  "/trial/2/lay-out": 340,
  "/trial/2/read": 340,
  "/trial/2/correct": 340,
  "/trial/2/prove": 340,
  "/ledger": 300,
  "/gauges": 300,
  "/practice": 300,
  "/backup": 300,
};

/** All scripts that a page names, compressed; what it brings later, when it is asked for, is not counted. */
export async function pageWeights(database: string): Promise<Line[]> {
  const server = await startServer(database, PORT);
  const sizes = new Map<string, number>();
  const sizeOf = async (script: string) => {
    const known = sizes.get(script);
    if (known !== undefined) return known;
    const bytes = gzipSync(Buffer.from(await (await fetch(server.origin + script)).arrayBuffer())).length;
    sizes.set(script, bytes);
    return bytes;
  };
  try {
    const lines: Line[] = [];
    for (const [address, target] of Object.entries(PAGES)) {
      const html = await (await fetch(server.origin + address)).text();
      const scripts = [...new Set([...html.matchAll(/\/_next\/static\/[^"'\\]+\.js/g)].map((m) => m[0]))];
      let bytes = 0;
      for (const script of scripts) bytes += await sizeOf(script);
      lines.push({
        what: `scripts of ${address}, compressed (${scripts.length} files)`,
        ...below(bytes / 1000, target, "kB"),
      });
    }
    return lines;
  } finally {
    server.stop();
  }
}
