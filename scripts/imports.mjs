/** Checks the import rules, and that the checker saw the code at all: it silently sees nothing when its parser is missing. */
import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";

const LEAST_MODULES = 100;
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
const { summary } = JSON.parse(run.stdout);
const typesOnly = uiTakesMoreThanTypes();
for (const line of typesOnly) console.error(`ui-takes-types-only: ${line}`);
for (const v of summary.violations) console.error(`${v.rule.name}: ${v.from} -> ${v.to}`);
console.log(
  `imports: ${summary.totalCruised} modules, ${summary.violations.length + typesOnly.length} against the rules`,
);
if (summary.totalCruised < LEAST_MODULES) {
  console.error(`Only ${summary.totalCruised} modules were seen; at least ${LEAST_MODULES} were expected.`);
  process.exit(1);
}
process.exit(summary.violations.length + typesOnly.length > 0 ? 1 : 0);

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
