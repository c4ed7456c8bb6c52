/** The verbs as a script calls them, on the examples. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { PROCEDURES } from "../core/procedures/registry";
import { CliFault } from "./cli-fault";
import { ustrina } from "./main";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-cli-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const fault = (...args: string[]): CliFault => {
  try {
    ustrina(args);
  } catch (error) {
    if (error instanceof CliFault) return error;
    throw error;
  }
  throw new Error("nothing was refused");
};

describe.each(PROCEDURES.map((p) => p.id))("%s from a terminal", (id) => {
  const machine = `examples/${id}/machine.json`;
  const practice = `examples/${id}/practice.json`;

  it("goes from plan to proved without a browser", () => {
    const trial = path.join(folder, `${id}.json`);
    writeFileSync(trial, ustrina(["plan", id, "--machine", machine]));
    expect(JSON.parse(ustrina(["solve", trial])).status).toBe("open");
    ustrina(["burn", trial, "--practice", practice, "--seed", "3"]);
    const measured = JSON.parse(ustrina(["solve", trial]));
    expect(measured).toMatchObject({ status: "solved", complete: true, next: { do: "round", purpose: "proof" } });
    expect(measured.corrections[0].rows[0].arithmetic.length).toBeGreaterThan(0);
    ustrina(["burn", trial, "--practice", practice, "--seed", "3", "--next"]);
    expect(JSON.parse(ustrina(["solve", trial])).verdict.result).toBe("proved");
    expect(ustrina(["check", trial])).toMatch(/2 rounds/);
  });

  it("says the same for the same seed, and something else for another", () => {
    const run = (seed: string) => {
      const trial = path.join(folder, `${id}-${seed}.json`);
      writeFileSync(trial, ustrina(["plan", id, "--machine", machine]));
      ustrina(["burn", trial, "--practice", practice, "--seed", seed]);
      return readFileSync(trial, "utf8");
    };
    expect(run("5")).toBe(run("5"));
    expect(run("5")).not.toBe(run("6"));
  });

  it("holds a worked trial among the examples, which solves", () => {
    expect(JSON.parse(ustrina(["solve", `examples/${id}/trial.json`]))).toMatchObject({ status: "solved" });
  });

  it.each(["svg", "dxf", "gcode", "csv"])("writes its coupon as %s, which checks", (format) => {
    const file = path.join(folder, `coupon.${format}`);
    expect(ustrina(["coupon", `examples/${id}/trial.json`, "--format", format, "-o", file])).toBe(`${file}\n`);
    expect(ustrina(["check", file]).length).toBeGreaterThan(5);
  });

  it("lists its sites", () => {
    expect(ustrina(["sites", `examples/${id}/trial.json`])).toMatch(/^site,place,question/);
  });
});

describe("what is wrong", () => {
  it("is said in one line with file and field", () => {
    expect(fault("solve", "gone.json").line).toBe("gone.json: There is no such file, or it cannot be read.");
    expect(fault("frobnicate").line).toBe("frobnicate: There is no such verb. Without one, all are listed.");
    expect(fault("coupon", "examples/scan-offset/trial.json").line).toMatch(/^--format: Choose one of/);
    expect(fault("plan", "magic", "--machine", "examples/scan-offset/machine.json").line).toMatch(
      /no procedure “magic”/,
    );
    expect(fault("plan", "scan-offset").line).toBe("--machine: This is missing.");
    expect(fault("burn", "x.json", "--practice", "y", "--seed", "many").line).toMatch(
      /--seed: “many” is no whole number/,
    );
    expect(fault("check", "a.png").line).toMatch(/Only json, svg/);
    const bad = path.join(folder, "bad.json");
    writeFileSync(bad, readFileSync("examples/scan-offset/trial.json", "utf8").replace('"v100-left"', '"v7-left"'));
    expect(fault("solve", bad).line).toMatch(
      /bad\.json: rounds\[0\]\.readings\[\d+\]\.site: This coupon has no place “v100-left”/,
    );
    const cut = path.join(folder, "cut.nc");
    writeFileSync(cut, "G21\nG1 X1 Y1 F100\n");
    expect(fault("check", cut).line).toMatch(/cut\.nc: line \d+, column \d+: /);
  });

  it("does not burn a round twice", () => {
    const args = [
      "burn",
      "examples/scan-offset/trial.json",
      "--practice",
      "examples/scan-offset/practice.json",
      "--seed",
      "1",
    ];
    expect(fault(...args).line).toMatch(/read already: --next lays out the one after it/);
  });

  it("lists the verbs without one", () => {
    expect(ustrina([])).toMatch(/burn TRIAL --practice FILE --seed N/);
    expect(ustrina(["procedures"])).toMatch(/^scan-offset/);
  });
});
