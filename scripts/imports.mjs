/**
 * Checks the import rules, that the checker saw the code at all (it silently sees nothing when its parser is missing), and that the
 * picture of the house is of this code; `--draw` draws it anew.
 */
import { spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { houseOf } from "./house.mjs";
import { roomCircles } from "./room-circles.mjs";

const LEAST_MODULES = 100;
const HOUSE = "docs/house.svg";
const run = spawnSync(
  process.execPath,
  [
    "node_modules/dependency-cruiser/bin/dependency-cruise.mjs",
    "--config",
    ".dependency-cruiser.cjs",
    "--output-type",
    "json",
    "src",
  ],
  { encoding: "utf8", maxBuffer: 200_000_000 },
);
if (!run.stdout) {
  console.error(run.stderr);
  process.exit(1);
}
const { summary, modules } = JSON.parse(run.stdout);
const typesOnly = uiTakesMoreThanTypes();
const { svg, faults } = houseOf(modules);
faults.push(...roomCircles(modules));
if (process.argv.includes("--draw")) writeFileSync(HOUSE, svg);
if (!existsSync(HOUSE) || readFileSync(HOUSE, "utf8") !== svg)
  faults.push(`${HOUSE} is not of this code: npm run docs:house`);
for (const fault of faults) console.error(fault);
for (const line of typesOnly) console.error(`ui-takes-types-only: ${line}`);
for (const v of summary.violations) console.error(`${v.rule.name}: ${v.from} -> ${v.to}`);
console.log(
  `imports: ${summary.totalCruised} modules, ${summary.violations.length + typesOnly.length + faults.length} against the rules`,
);
if (summary.totalCruised < LEAST_MODULES) {
  console.error(`Only ${summary.totalCruised} modules were seen; at least ${LEAST_MODULES} were expected.`);
  process.exit(1);
}
process.exit(summary.violations.length + typesOnly.length + faults.length > 0 ? 1 : 0);

/** From the server the interface takes actions and types, nothing that runs there. The cruiser cannot tell types apart. */
function uiTakesMoreThanTypes() {
  return readdirSync("src/ui", { recursive: true, encoding: "utf8" })
    .filter((name) => /\.tsx?$/.test(name))
    .flatMap((name) =>
      readFileSync(path.join("src/ui", name), "utf8")
        .split("\n")
        .filter(
          (line) =>
            /from "[^"]*\/server\/(?!actions\/[a-z]+-actions")/.test(line) && !/^(import|export) type /.test(line),
        )
        .map((line) => `${name}: ${line}`),
    );
}
