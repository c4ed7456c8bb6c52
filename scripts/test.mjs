/** Every check there is, from nothing: packages, Chromium, style, types, imports, unused code, units, build, browser. */
import { beginInstallingPackages, installDebianPackages, run } from "./ready.mjs";

const node = (script, ...args) => [process.execPath, [script, ...args]];
const BIN = "node_modules";

const began = Date.now();
// The longest waits are for the network and one compiler: what needs neither runs meanwhile.
const debian = installDebianPackages();
const driver = await beginInstallingPackages();
const nothing = () => Promise.resolve();
const everything = () => Promise.all([driver(), debian]);
/** Name, what it waits for, command. */
const steps = [
  ["style", nothing, ...node(`${BIN}/@biomejs/biome/bin/biome`, "check", "--error-on-warnings", ".")],
  ["types", nothing, ...node(`${BIN}/typescript/bin/tsc`, "-p", "tsconfig.json")],
  ["types of the core alone", nothing, ...node(`${BIN}/typescript/bin/tsc`, "-p", "src/core/tsconfig.json")],
  ["imports", nothing, ...node("scripts/imports.mjs")],
  ["dependencies", nothing, ...node("scripts/dependencies.mjs")],
  ["unused code", nothing, ...node(`${BIN}/knip/bin/knip.js`)],
  ["units", everything, ...node(`${BIN}/vitest/vitest.mjs`, "run")],
  ["build", everything, ...node(`${BIN}/next/dist/bin/next`, "build")],
  ["browser", everything, ...node(`${BIN}/@playwright/test/cli.js`, "test")],
];
for (const [name, ready, command, args] of steps) {
  await ready();
  const stepBegan = Date.now();
  console.log(`\n== ${name}`);
  // The tests of the screens build a procedure of theirs in.
  await run(command, args, { NEXT_TELEMETRY_DISABLED: "1", USTRINA_MADE_UP: "1" });
  console.log(`== ${name}: ${seconds(stepBegan)} s`);
}
console.log(`\n${steps.length} passed, 0 failed, in ${seconds(began)} s`);

function seconds(since) {
  return ((Date.now() - since) / 1000).toFixed(0);
}
