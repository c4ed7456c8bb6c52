/** Every check there is, from nothing: packages, Chromium, style, types, imports, unused code, units, build, browser. */
import { installChromium, installPackages, installReaders, run } from "./ready.mjs";

const node = (script, ...args) => [process.execPath, [script, ...args]];
const BIN = "node_modules";

installPackages();
installChromium();
installReaders();
const steps = [
  ["style", ...node(`${BIN}/@biomejs/biome/bin/biome`, "check", "--error-on-warnings", ".")],
  ["types", ...node(`${BIN}/typescript/bin/tsc`, "-p", "tsconfig.json")],
  ["types of the core alone", ...node(`${BIN}/typescript/bin/tsc`, "-p", "src/core/tsconfig.json")],
  ["imports", ...node("scripts/imports.mjs")],
  ["dependencies", ...node("scripts/dependencies.mjs")],
  ["unused code", ...node(`${BIN}/knip/bin/knip.js`)],
  ["units", ...node(`${BIN}/vitest/vitest.mjs`, "run")],
  ["build", ...node(`${BIN}/next/dist/bin/next`, "build")],
  ["browser", ...node(`${BIN}/@playwright/test/cli.js`, "test")],
];
for (const [name, command, args] of steps) {
  const began = Date.now();
  console.log(`\n== ${name}`);
  run(command, args, { NEXT_TELEMETRY_DISABLED: "1" });
  console.log(`== ${name}: ${((Date.now() - began) / 1000).toFixed(0)} s`);
}
console.log(`\n${steps.length} passed, 0 failed`);
