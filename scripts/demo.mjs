/**
 * One command from a fresh clone to the running demo: installs, builds, migrates, seeds, starts.
 *
 * `--lan` opens it to the local network, with an access code; `--new-code` makes another code and ends every session.
 */
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { beginInstallingPackages, buildIsFresh, run } from "./ready.mjs";

const PORT = process.env.PORT ?? "4820";
const KNOWN = ["--lan", "--new-code"];
const BUILD_STAMP = ".next/ustrina-sources";
const BUILT_FROM = ["src", "package-lock.json", "next.config.ts", "postcss.config.mjs", "tsconfig.json"];

const asked = process.argv.slice(2);
const unknown = asked.find((word) => !KNOWN.includes(word));
if (unknown !== undefined || (asked.includes("--new-code") && !asked.includes("--lan"))) {
  console.error(
    `${unknown ?? "--new-code alone"} says nothing here. Known: npm run demo, npm run demo -- --lan, npm run demo -- --lan --new-code`,
  );
  process.exit(2);
}
const sources = hashOf(BUILT_FROM);
const isBuilt = buildIsFresh(BUILD_STAMP, sources);
if (!isBuilt)
  console.log("The first start takes three to four minutes: packages, the database driver, the pages, the demo bench.");
const driver = await beginInstallingPackages();
if (!isBuilt) {
  console.log("Building the pages …");
  await run(process.execPath, ["node_modules/next/dist/bin/next", "build"], { NEXT_TELEMETRY_DISABLED: "1" });
  mkdirSync(path.dirname(BUILD_STAMP), { recursive: true });
  writeFileSync(BUILD_STAMP, sources);
}
await driver();
console.log("Laying out the demo bench …");
await run(process.execPath, ["node_modules/tsx/dist/cli.mjs", "scripts/seed.ts"]);
start();

function start() {
  const network = asked.includes("--lan") ? networkAccess() : null;
  const host = network ? "0.0.0.0" : "127.0.0.1";
  const server = spawn(process.execPath, ["--import", "tsx", "scripts/serve.ts", host, PORT], {
    stdio: ["inherit", "pipe", "inherit"],
    env: {
      ...process.env,
      NODE_ENV: "production",
      NEXT_TELEMETRY_DISABLED: "1",
      USTRINA_ACCESS_CODE: network?.code ?? "",
      USTRINA_ACCESS_SECRET: network?.secret ?? "",
    },
  });
  server.stdout.on("data", (data) => {
    if (String(data).includes("Ready")) console.log(greeting(network));
  });
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => server.kill(signal));
  server.on("exit", (code, signal) => {
    if (code !== null && code !== 0)
      console.error(`The server ended with ${code}. If the port is taken: PORT=4830 npm run demo`);
    process.exit(signal ? 0 : (code ?? 0));
  });
}

/** The access code and the addresses of this machine on the local network. */
function networkAccess() {
  const made = spawnSync(
    process.execPath,
    ["node_modules/tsx/dist/cli.mjs", "scripts/lan.ts", ...asked.filter((word) => word === "--new-code")],
    { encoding: "utf8" },
  );
  if (made.status !== 0) {
    console.error(`${made.stderr}\nThe access code could not be made.`);
    process.exit(1);
  }
  return JSON.parse(made.stdout);
}

function greeting(network) {
  const own = `http://127.0.0.1:${PORT}`;
  const last = `Ctrl+C stops it. Its data stays in ${process.env.USTRINA_DATABASE ?? "data/ustrina.sqlite"}.`;
  if (!network) return `\nUstrina is running: ${own}\n${last}`;
  const others = network.addresses.map((a) => `  http://${a}:${PORT}`);
  return [
    `\nUstrina is running, open to the local network: ${own}/access#${network.code}`,
    ...(others.length > 0 ? ["On other devices:", ...others] : ["This computer is on no network now."]),
    `Access code: ${network.words}`,
    "It goes over the network as it is: use it only where you know everybody. --new-code makes another.",
    last,
  ].join("\n");
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
