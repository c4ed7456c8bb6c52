/** Streams the G-code of a coupon of a million moves, as a process of its own: prints milliseconds and the most memory it held. */
import { openSync, writeSync } from "node:fs";
import type { RoundSpec } from "../../src/core/coupon/round-spec";
import { USUAL_DIALECT } from "../../src/core/machine/gcode-dialect";
import { gcodeChunks } from "../../src/formats/gcode-writer";

const MOVES = 1_000_000;

const spec: RoundSpec = {
  pieces: [
    {
      id: "p",
      label: "Long",
      stock: "board",
      widthMm: 400,
      heightMm: 400,
      settings: [{ id: "a", label: "A", use: "line", speedMmPerS: 100, powerPct: 10, runUpMm: 0, scan: null }],
      paths: Array.from({ length: 1000 }, (_, k) => ({
        points: Array.from({ length: MOVES / 1000 }, (_, i) => ({ x: (i % 997) / 3, y: k / 3 + (i % 7) / 50 })),
        closed: false,
        settings: "a",
      })),
    },
  ],
  placement: { xMm: 0, yMm: 0 },
  sites: [],
  delivery: "d",
  checklist: [],
  program: [{ kind: "mark", piece: "p", settings: "a" }],
};
const nowhere = openSync("/dev/null", "w");
const began = performance.now();
let moves = 0;
for (const chunk of gcodeChunks(spec, { couponCode: "T-1", machineName: "T", dialect: USUAL_DIALECT })) {
  writeSync(nowhere, chunk);
  moves += chunk.match(/^G\d/gm)?.length ?? 0;
}
const ms = performance.now() - began;
console.log(JSON.stringify({ moves, ms, residentMb: process.resourceUsage().maxRSS / 1000 }));
