/** Makes a checkout ready: installs packages when the lock file changed, and Chromium for tests where it is asked for. */
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";

const CI = ["ci", "--no-audit", "--no-fund"];
const STAMP = "node_modules/.lock-hash";
const CHROMIUM = "/usr/bin/chromium-headless-shell";

/** Runs a command with its output shown; ends this process when it fails. */
export function run(command, args, env = {}) {
  const child = spawn(command, args, { stdio: "inherit", env: { ...process.env, ...env } });
  return new Promise((done) => {
    child.on("exit", (code) => {
      if (code === 0) return done();
      console.error(`\n${command} ${args.join(" ")} failed.`);
      process.exit(code ?? 1);
    });
  });
}

/** Runs a command beside others, quietly; ends this process with its output when it fails. */
export function runBeside(command, args, env = {}) {
  const child = spawn(command, args, { stdio: ["ignore", "pipe", "pipe"], env: { ...process.env, ...env } });
  let said = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (data) => {
      said += data;
    });
  return new Promise((done) => {
    child.on("exit", (code) => {
      if (code === 0) return done();
      console.error(`${said}\n${command} ${args.join(" ")} failed.`);
      process.exit(code ?? 1);
    });
  });
}

/** Installs the packages of the lock file unless they are there already. */
export async function installPackages() {
  if (packagesAreThere()) return;
  console.log("Installing packages (the database driver is compiled once: some minutes) …");
  await run("npm", CI, { JOBS: "2" });
  writeFileSync(STAMP, lockHash());
}

/** The same, but the database driver is still being compiled when this returns. @returns how to wait for it */
export async function beginInstallingPackages() {
  if (packagesAreThere()) return () => Promise.resolve();
  console.log("Installing packages …");
  await run("npm", [...CI, "--ignore-scripts"]);
  console.log("Compiling the database driver meanwhile …");
  const compiled = runBeside("npm", ["rebuild", "better-sqlite3"], { JOBS: "2" });
  // A promise that is handed back alone would be waited for at once.
  return () => compiled.then(() => writeFileSync(STAMP, lockHash()));
}

function packagesAreThere() {
  return existsSync(STAMP) && readFileSync(STAMP, "utf8") === lockHash();
}

function lockHash() {
  return createHash("sha256").update(readFileSync("package-lock.json")).update(process.version).digest("hex");
}

/** What the tests need of Debian: Chromium, and independent readers of what Ustrina writes: one audits DXF, one draws PDF. @returns when it is there */
export async function installDebianPackages() {
  const missing = [
    ...(existsSync(CHROMIUM) ? [] : ["chromium-headless-shell"]),
    ...(spawnSync("/usr/bin/python3", ["-c", "import ezdxf"]).status === 0 ? [] : ["python3-ezdxf"]),
    ...(spawnSync("pdftoppm", ["-v"]).status === 0 ? [] : ["poppler-utils"]),
  ];
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(", ")} for the tests meanwhile …`);
  const apt = ["-o", "DPkg::Lock::Timeout=600", "-y", "-qq"];
  await runBeside("apt-get", [...apt, "update"]);
  await runBeside("apt-get", [...apt, "install", "--no-install-recommends", ...missing], {
    DEBIAN_FRONTEND: "noninteractive",
  });
}

/** Whether the last build was made of just these sources. */
export function buildIsFresh(stamp, sources) {
  return existsSync(stamp) && readFileSync(stamp, "utf8") === sources;
}

if (import.meta.url === `file://${process.argv[1]}`) await installPackages();
