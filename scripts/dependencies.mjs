/** What we depend on: pinned, each with its reason in docs/dependencies.md, none that runs while it is installed, licences listed. \`--write\` lists them anew. */
import { readFileSync, writeFileSync } from "node:fs";

const REASONS = "docs/dependencies.md";
const LICENCES = "docs/licences.md";
const MAY_INSTALL = ["better-sqlite3"];
/** What lets us ship. The libraries under the LGPL are loaded as they are, and can be exchanged. */
const KNOWN =
  /^(MIT|ISC|0BSD|BSD-[23]-Clause|Apache-2\.0|LGPL-3\.0-or-later|OFL-1\.1|CC-BY-4\.0|WTFPL|Bitstream-Vera|BSL-1\.0)$/;
/** Said in the package's own files, where its description says nothing that can be read. */
const SAID_ELSEWHERE = {
  "dejavu-fonts-ttf": "Bitstream-Vera",
  "png-js": "MIT",
};

const manifest = JSON.parse(readFileSync("package.json", "utf8"));
const lock = JSON.parse(readFileSync("package-lock.json", "utf8")).packages;
const faults = [...reasons(), ...installs(), ...licences()];
for (const fault of faults) console.error(fault);
console.log(`dependencies: ${Object.keys(lock).length - 1} packages, ${faults.length} against the rules`);
process.exit(faults.length > 0 ? 1 : 0);

/** Every package we name has one version and a row of its own, and every row is of a package we name. */
function reasons() {
  const named = { ...manifest.dependencies, ...manifest.devDependencies };
  const rows = new Map(
    [...readFileSync(REASONS, "utf8").matchAll(/^\| ([@\w./-]+) \| ([\w.-]+) \| (\S.*) \|$/gm)]
      .filter(([, name]) => name !== "package")
      .map(([, name, version]) => [name, version]),
  );
  return [
    ...Object.entries(named).flatMap(([name, version]) => [
      ...(/^\d+\.\d+\.\d+(-[\w.]+)?$/.test(version) ? [] : [`${name}: ${version} is not one version`]),
      ...(rows.get(name) === version ? [] : [`${name}: ${REASONS} has ${rows.get(name) ?? "no row"}, not ${version}`]),
    ]),
    ...[...rows.keys()].filter((name) => !(name in named)).map((name) => `${name}: a row in ${REASONS}, but not used`),
  ];
}

/** What would run while it is installed is either one of ours to allow, or told not to. */
function installs() {
  return Object.entries(lock).flatMap(([place, { hasInstallScript, resolved }]) => {
    const name = nameOf(place);
    const isTold = manifest.allowScripts[name] === MAY_INSTALL.includes(name);
    return [
      ...(hasInstallScript && !isTold ? [`${name}: runs something while it is installed`] : []),
      ...(resolved ? [`${name}: the lock file holds an address`] : []),
    ];
  });
}

/** Everything that ships, by licence. */
function licences() {
  const shipped = Object.entries(lock).filter(([place, { dev }]) => place !== "" && !dev);
  const byLicence = new Map();
  for (const [place, { version, license }] of shipped) {
    const licence = SAID_ELSEWHERE[nameOf(place)] ?? license ?? "unknown";
    byLicence.set(licence, [...(byLicence.get(licence) ?? []), `${nameOf(place)} ${version}`]);
  }
  const unknown = [...byLicence.keys()].filter((licence) =>
    licence
      .replace(/[()]/g, "")
      .split(/ (?:AND|OR) /)
      .some((one) => !KNOWN.test(one)),
  );
  const listed = list(byLicence, shipped.length);
  if (process.argv.includes("--write")) writeFileSync(LICENCES, listed);
  return [
    ...unknown.map((licence) => `${byLicence.get(licence).join(", ")}: the licence ${licence} is not one we know`),
    ...(readFileSync(LICENCES, "utf8") === listed ? [] : [`${LICENCES} is not current: npm run docs:licences`]),
  ];
}

function list(byLicence, count) {
  const parts = [...byLicence]
    .sort(([a], [b]) => a.localeCompare(b, "en"))
    .map(([licence, packages]) => `## ${licence}\n\n${[...new Set(packages)].sort().join(", ")}`);
  return `# Licences of what ships

Made from the lock file by \`npm run docs:licences\`: ${count} packages, those for other systems among them. Tests and tools that are not shipped are left out.
The lettering on coupons is from the Hershey fonts; their acknowledgement is in \`src/core/coupon\`.

${parts.join("\n\n")}
`;
}

function nameOf(place) {
  return place.slice(place.lastIndexOf("node_modules/") + "node_modules/".length);
}
