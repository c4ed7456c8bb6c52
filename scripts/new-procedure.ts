/** Begins a procedure: `npm run new:procedure -- bar-width "Bar width"` copies the sample under that name, ready to be changed, and begins its example. */
import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import path from "node:path";

const FOLDER = "src/core/procedures";
const SAMPLE = "sample-bar";
const SAMPLE_FOLDER = `src/testing/${SAMPLE}`;

/**
 * @param id letters, digits and hyphens: the folder, and the address on the pages
 * @param title as the bench shows it
 * @returns the folder
 * @throws Error in words where it cannot be made
 */
export function newProcedure(id: string, title: string): string {
  if (!/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/.test(id))
    throw new Error(`“${id}”: small letters, digits and single hyphens, please.`);
  if (!/^[A-Z][\w ]+$/.test(title))
    throw new Error(`“${title}”: a title begins with a capital letter, for example Bar width.`);
  const folder = path.join(FOLDER, id);
  if (existsSync(folder)) throw new Error(`${folder} is there already.`);
  cpSync(SAMPLE_FOLDER, folder, { recursive: true });
  for (const name of readdirSync(folder)) {
    const file = path.join(folder, name);
    writeFileSync(file, moved(renamed(readFileSync(file, "utf8"), id, title)));
    if (name.includes(SAMPLE)) renameSync(file, path.join(folder, name.replace(SAMPLE, id)));
  }
  makeExample(id, title);
  // Imports are in another order from there.
  spawnSync("npx", ["biome", "check", "--write", folder], { stdio: "ignore" });
  return folder;
}

/** The machine of an example, and what its practice machine stores at first. Its trial is written once the procedure is listed. */
function makeExample(id: string, title: string): void {
  const example = path.join("examples", id);
  mkdirSync(example, { recursive: true });
  cpSync("examples/axis-scale/machine.json", path.join(example, "machine.json"));
  const practice = { seed: 417, holds: { [`${title.toLowerCase()} scale`]: 1 } };
  writeFileSync(path.join(example, "practice.json"), `${JSON.stringify(practice, null, 2)}\n`);
}

/** The sample's name in each of the ways in which it is written. */
function renamed(text: string, id: string, title: string): string {
  const camel = id.replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
  return text
    .replaceAll("Sample bar", title)
    .replaceAll("sample bar", title.toLowerCase())
    .replaceAll("SampleBar", camel.charAt(0).toUpperCase() + camel.slice(1))
    .replaceAll("sampleBar", camel)
    .replaceAll("SAMPLE_BAR", id.replaceAll("-", "_").toUpperCase())
    .replaceAll(SAMPLE, id)
    .replace(/ \* A procedure to begin a new one from: a bar(.*)\n \* `npm run new:procedure`.*\n/, " * A bar$1\n");
}

/** Its imports, from the place of a procedure. */
function moved(text: string): string {
  return text
    .replaceAll('from "../../core/procedures/', 'from "../')
    .replaceAll('from "../../core/', 'from "../../')
    .replaceAll('from "../../practice/', 'from "../../../practice/')
    .replaceAll(/from "\.\.\/(rehearsal|sample-machine)/g, 'from "../../../testing/$1');
}

if (import.meta.url === `file://${process.argv[1]}`) {
  const [id = "", title = ""] = process.argv.slice(2);
  try {
    console.log(`${newProcedure(id, title)} is made. docs/architecture.md says what comes next.`);
  } catch (error) {
    console.error(error instanceof Error ? error.message : error);
    process.exitCode = 2;
  }
}
