/** Makes a checkout ready: installs packages when the lock file changed, and Chromium for tests where it is asked for. */
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";

const STAMP = "node_modules/.lock-hash";
export const CHROMIUM = "/usr/bin/chromium";

/** Runs a command with its output shown; ends this process when it fails. */
export function run(command, args, env = {}) {
  const result = spawnSync(command, args, { stdio: "inherit", env: { ...process.env, ...env } });
  if (result.status !== 0) {
    console.error(`\n${command} ${args.join(" ")} failed.`);
    process.exit(result.status ?? 1);
  }
}

/** Installs the packages of the lock file unless they are there already. */
export function installPackages() {
  const hash = createHash("sha256").update(readFileSync("package-lock.json")).update(process.version).digest("hex");
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === hash) return;
  console.log("Installing packages (the database driver is compiled once: some minutes) …");
  run("npm", ["ci", "--no-audit", "--no-fund"], { JOBS: "2" });
  writeFileSync(STAMP, hash);
}

/** Debian's Chromium, for the tests in the browser. */
export function installChromium() {
  installDebian("chromium", existsSync(CHROMIUM));
}

/** Independent readers of what Ustrina writes: one that audits DXF, one that draws PDF. */
export function installReaders() {
  installDebian("python3-ezdxf", spawnSync("/usr/bin/python3", ["-c", "import ezdxf"]).status === 0);
  installDebian("poppler-utils", spawnSync("pdftoppm", ["-v"]).status === 0);
}

function installDebian(name, isThere) {
  if (isThere) return;
  console.log(`Installing ${name} for the tests …`);
  const apt = ["-o", "DPkg::Lock::Timeout=600", "-y", "-qq"];
  run("apt-get", [...apt, "update"]);
  run("apt-get", [...apt, "install", "--no-install-recommends", name], { DEBIAN_FRONTEND: "noninteractive" });
}

/** Whether the last build was made of just these sources. */
export function buildIsFresh(stamp, sources) {
  return existsSync(stamp) && readFileSync(stamp, "utf8") === sources;
}

if (import.meta.url === `file://${process.argv[1]}`) installPackages();
