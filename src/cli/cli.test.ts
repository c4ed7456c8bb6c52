/** The verbs as a script calls them, on the examples. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import sharp from "sharp";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { PROCEDURES } from "../core/course/registry";
import { backupFiles } from "../data/backup-files";
import { openDatabase } from "../data/database";
import { addMachine, allMachines } from "../data/machines";
import { SAMPLE_MACHINE } from "../testing/sample-machine";
import { CliFault } from "./cli-fault";
import { ustrina } from "./main";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-cli-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** What a command prints. */
const said = async (...args: string[]) => String(await ustrina(args));

/** The one line with which a command is refused. */
const fault = async (...args: string[]): Promise<string> => {
  try {
    await ustrina(args);
  } catch (error) {
    if (error instanceof CliFault) return error.line;
    throw error;
  }
  throw new Error("nothing was refused");
};

/** Folder of the example, procedure: each that corrects a setting has one, and focus one more for a machine that takes drawings. */
const EXAMPLES = [
  ...PROCEDURES.filter((p) => p.settings.length > 0).map((p) => [p.id, p.id] as const),
  ["focus-galvo", "focus"] as const,
];

describe("an array from a terminal", () => {
  const PRACTICE = ["--practice", "examples/kerf/practice.json", "--seed", "3"];

  it("is burned, drawn as a scan, scored and solved; the sheet of scores is taken in", async () => {
    const [trial, scan, sheet] = ["array.json", "array.png", "array.csv"].map((name) => path.join(folder, name));
    await ustrina([
      "burn",
      "examples/test-array/trial.json",
      ...PRACTICE,
      "--picture",
      scan ?? "",
      "--dpi",
      "300",
      "-o",
      trial ?? "",
    ]);
    const read = await said("read", trial ?? "", "--picture", scan ?? "");
    const [, line = ""] = read.trim().split("\n");
    const scores = line
      .slice(line.indexOf(",") + 1)
      .split(" | ")
      .map(Number);
    expect(line.startsWith("scan,")).toBe(true);
    expect(scores).toHaveLength(49);
    // The stock answers: some cells are far darker than others.
    expect(Math.max(...scores) - Math.min(...scores)).toBeGreaterThan(0.2);
    await ustrina(["read", trial ?? "", "--picture", scan ?? "", "-o", sheet ?? ""]);
    await ustrina(["take", trial ?? "", "--sheet", sheet ?? ""]);
    const outcome = JSON.parse(await said("solve", trial ?? ""));
    expect(outcome.forStock).toMatchObject({ kind: "marking", purpose: "Engrave dark" });
    expect(outcome.estimates[0]).toMatchObject({ id: "short" });
  }, 60_000);
});

describe("the colours of an array from a terminal", () => {
  const PRACTICE = ["--practice", "examples/kerf/practice.json", "--seed", "3"];

  it("are read beside the two cards, taken in and solved", async () => {
    const [plan, trial, scan, sheet] = ["plan.json", "colour.json", "colour.png", "colour.csv"].map((name) =>
      path.join(folder, name),
    );
    const laid = JSON.parse(readFileSync("examples/test-array/trial.json", "utf8"));
    const [first] = laid.rounds;
    first.plan = { ...first.plan, score: "colour", wanted: "#3a62a8" };
    writeFileSync(plan ?? "", JSON.stringify(laid));
    await ustrina(["burn", plan ?? "", ...PRACTICE, "--picture", scan ?? "", "--dpi", "300", "-o", trial ?? ""]);
    const { height = 0 } = await sharp(scan).metadata();
    const cards = ["--white", `177,${height - 142}`, "--grey", `484,${height - 142}`];
    const lines = (await said("read", trial ?? "", "--picture", scan ?? "", ...cards)).trim().split("\n");
    expect(lines.map((l) => l.split(",")[0])).toEqual(["site", "scan L*", "scan a*", "scan b*"]);
    expect(await fault("read", trial ?? "", "--picture", scan ?? "")).toMatch(/--white/);
    await ustrina(["read", trial ?? "", "--picture", scan ?? "", ...cards, "-o", sheet ?? ""]);
    await ustrina(["take", trial ?? "", "--sheet", sheet ?? ""]);
    const outcome = JSON.parse(await said("solve", trial ?? ""));
    expect(outcome.forStock).toMatchObject({ kind: "marking", purpose: "Mark in colour" });
    expect(outcome.forStock.palette).toHaveLength(49);
  }, 60_000);
});

describe("a picture from a terminal", () => {
  it("is read by the reader of the screen, in the words that a script takes apart", async () => {
    const trial = path.join(folder, "pictured.json");
    writeFileSync(trial, await said("plan", "scan-offset", "--machine", "examples/scan-offset/machine.json"));
    const scan = path.join(folder, "scan.png");
    await ustrina([
      "burn",
      trial,
      "--practice",
      "examples/scan-offset/practice.json",
      "--seed",
      "2",
      "--picture",
      scan,
      "--dpi",
      "600",
    ]);
    const lines = (await said("read", trial, "--picture", scan)).trim().split("\n");
    expect(lines[0]).toBe("site,value mm,u mm,from");
    const { rounds } = JSON.parse(readFileSync(trial, "utf8"));
    for (const line of lines.slice(1)) {
      const [site, value, u] = line.split(",");
      const byHand = rounds[0].readings.filter((r: { site: string }) => r.site === site);
      const mean =
        byHand.reduce((sum: number, r: { reading: string }) => sum + Number.parseFloat(r.reading), 0) / byHand.length;
      expect(Math.abs(Number(value)) - mean, site).toBeLessThan(0.06);
      // A small stagger whose rows are not told apart is 0, give or take its size.
      expect(Number(u), site).toBeLessThan(0.035);
    }
    // One place alone, cut out of it around its marks
    const right = lines.findLast((l) => /^v\d+-right,/.test(l)) ?? "";
    const site = right.split(",")[0] ?? "";
    const { x, y } = rounds[0].spec.sites.find((s: { id: string }) => s.id === site).place.at;
    const [piece] = rounds[0].spec.pieces;
    const perMm = 600 / 25.4;
    const { width = 0, height = 0 } = await sharp(scan).metadata();
    // The piece lies in the middle, nearly upright.
    const at = { x: width / 2 + (x - piece.widthMm / 2) * perMm, y: height / 2 - (y - piece.heightMm / 2) * perMm };
    const shot = path.join(folder, "shot.png");
    // The one-way rows above the block belong to it.
    const box = { left: Math.round(at.x - 7 * perMm), top: Math.round(at.y - 7 * perMm) };
    const size = { width: Math.round(10 * perMm), height: Math.round(11 * perMm) };
    await sharp(scan)
      .extract({ ...box, ...size })
      .withMetadata({ density: 600 })
      .toFile(shot);
    const [, alone = ""] = (await said("read", trial, "--picture", shot, "--site", site)).trim().split("\n");
    expect(alone.split(",")[0]).toBe(site);
    expect(Math.abs(Number(alone.split(",")[1]) - Number(right.split(",")[1]))).toBeLessThan(0.003);
    expect(await fault("read", trial, "--picture", shot, "--site", "v7-up")).toMatch(/has no site "v7-up"/);
    expect(await fault("read", trial, "--picture", scan, "--dpi", "1200")).toMatch(/The scale is wrong/);
    expect(await fault("read", trial, "--picture", trial)).toMatch(/no picture that can be read/);
    expect(await fault("read", "examples/bed-tilt/trial.json", "--picture", scan)).toMatch(/no burned piece/);
  });
});

describe.each([
  ["bed-tilt", /turns? clockwise/],
  ["squareness", /mm (toward|away from) you/],
])("%s from a terminal", (id, done) => {
  it("says from its readings what to adjust by hand, and holds a worked trial", async () => {
    const trial = path.join(folder, `${id}.json`);
    writeFileSync(trial, await said("plan", id, "--machine", `examples/${id}/machine.json`));
    await ustrina(["burn", trial, "--practice", `examples/${id}/practice.json`, "--seed", "3"]);
    const solved = JSON.parse(await said("solve", trial));
    expect(solved).toMatchObject({ status: "solved", complete: true, corrections: [] });
    expect(solved.adjustments.map((a: { text: string }) => a.text)).toContainEqual(expect.stringMatching(done));
    expect(await said("solve", `examples/${id}/trial.json`)).toBe(await said("solve", trial));
    expect(await said("sites", trial)).toMatch(/^site,place,question/);
  });
});

describe("the field of a galvo from a terminal", () => {
  const PRACTICE = ["--practice", "examples/field/practice.json", "--seed", "3"];
  const trial = () => path.join(folder, "grid.json");
  beforeAll(async () => {
    const scan = path.join(folder, "dots.png");
    await ustrina(["burn", "examples/field/grid.json", ...PRACTICE, "--picture", scan, "--dpi", "300", "-o", trial()]);
  }, 60_000);

  it("reads a scan of the grid as a sheet, whose dots lie as the practice scanner reads them, but for the pose", async () => {
    const sheet = path.join(folder, "dots.csv");
    const scan = path.join(folder, "dots.png");
    await ustrina(["read", trial(), "--picture", scan, "--site", "dots", "-o", sheet]);
    const document = JSON.parse(readFileSync(trial(), "utf8"));
    const [round] = document.rounds;
    const placesIn = (text: string) => text.split(" | ").map((t) => Number.parseFloat(t)) satisfies number[];
    const practice = placesIn(round.readings.find((r: { site: string }) => r.site === "dots").reading);
    const picture = placesIn(readFileSync(sheet, "utf8").split(",").at(-1) ?? "");
    expect(picture).toHaveLength(2 * 13 * 13);
    const apart = (at: number[], i: number, j: number) =>
      Math.hypot((at[2 * i] ?? 0) - (at[2 * j] ?? 0), (at[2 * i + 1] ?? 0) - (at[2 * j + 1] ?? 0));
    for (const [i, j] of [
      [0, 12],
      [0, 156],
      [12, 156],
      [84, 168],
    ] as const)
      expect(Math.abs(apart(picture, i, j) - apart(practice, i, j)), `${i} to ${j}`).toBeLessThan(0.03);
    // The sheet takes the place of what was read.
    round.readings = round.readings.filter((r: { site: string }) => r.site !== "dots");
    const taken = path.join(folder, "grid-taken.json");
    writeFileSync(taken, JSON.stringify(document));
    await ustrina(["take", taken, "--sheet", sheet]);
    expect(JSON.parse(await said("solve", taken)).estimates[0].quantity.value).toBeCloseTo(
      JSON.parse(await said("solve", trial())).estimates[0].quantity.value,
      1,
    );
    expect(await fault("read", trial(), "--picture", "examples/field/grid.json")).toMatch(/grid\.json/);
    expect(
      await fault("burn", "examples/field/grid.json", ...PRACTICE, "--picture", scan, "--site", "length x"),
    ).toMatch(/no scan/);
  });

  it("writes the table in the form that is asked for, checks it, and is proved with it", async () => {
    const csv = path.join(folder, "table.csv");
    await ustrina(["table", trial(), "-o", csv]);
    expect(await said("check", csv)).toMatch(
      /^Correction table: 65 × 65 nodes over 110 mm, largest shift 2\.\d+ mm\.\n$/,
    );
    const json = path.join(folder, "table.json");
    const form = ["--nodes", "129", "--values", "take-off", "--order", "back-y", "--counts", "500", "--format", "json"];
    await ustrina(["table", trial(), ...form, "-o", json]);
    expect(await said("check", json)).toMatch(/^Correction table: 129 × 129 nodes/);
    const { nodes } = JSON.parse(readFileSync(json, "utf8"));
    // From the back left along Y; an error in counts, of the other sign.
    expect(nodes[0].slice(0, 2)).toEqual([-55, 55]);
    expect(nodes[1].slice(0, 2)).toEqual([-55, 55 - 110 / 128]);
    const backLeft =
      readFileSync(csv, "utf8")
        .split("\r\n")
        .at(64 * 65 + 1)
        ?.split(",")
        .map(Number) ?? [];
    expect(backLeft.slice(0, 2)).toEqual([-55, 55]);
    expect(nodes[0][2] / -500).toBeCloseTo(backLeft[2] ?? 0, 0);
    expect(Math.sign(nodes[0][2])).toBe(-Math.sign(backLeft[2] ?? 0));
    expect(await fault("table", trial(), "--nodes", "64")).toMatch(/--nodes: Choose one of 65, 129, 257/);
    expect(await fault("table", trial(), "--counts", "none")).toMatch(/--counts/);
    expect(await fault("table", "examples/field/trial.json")).toMatch(/makes no table/);

    const proof = path.join(folder, "grid-proof.json");
    await ustrina(["burn", trial(), ...PRACTICE, "--next", "-o", proof]);
    const { verdict } = JSON.parse(await said("solve", proof));
    expect(verdict.result).toBe("proved");
    expect(verdict.lines[0].after.value).toBeLessThan(0.03);
  });

  it("bends a drawing the other way, and names what is no place", async () => {
    const bent = path.join(folder, "bent.svg");
    await ustrina(["bend", "examples/rotary/label.svg", "--table", trial(), "--at", "5:-3", "-o", bent]);
    expect(await said("check", bent)).toMatch(/^SVG, /);
    expect(readFileSync(bent, "utf8")).not.toBe(readFileSync("examples/rotary/label.svg", "utf8"));
    expect(await fault("bend", "examples/rotary/label.svg", "--table", trial(), "--at", "five")).toMatch(/--at: /);
    expect(await fault("bend", "examples/field/grid.json", "--table", trial())).toMatch(/grid\.json/);
  });
});

describe("kerf from a terminal", () => {
  const example = "examples/kerf/trial.json";
  const drawing = "examples/kerf/holder.svg";

  it("goes from plan to proved, and holds a worked trial", async () => {
    const trial = path.join(folder, "kerf.json");
    const burn = (...more: string[]) =>
      ustrina(["burn", trial, "--practice", "examples/kerf/practice.json", "--seed", "3", ...more]);
    writeFileSync(trial, await said("plan", "kerf", "--machine", "examples/kerf/machine.json"));
    const before = JSON.parse(await said("forecast", trial));
    expect(before).toMatchObject({ label: "half the kerf along X", alone: [], help: null, tolerance: 0.02 });
    await burn();
    const { visible } = JSON.parse(await said("solve", trial));
    expect(visible.map((v: { alone: string[] }) => v.alone)).toContainEqual([]);
    expect(JSON.parse(await said("forecast", trial)).expanded).toBeCloseTo(before.expanded, 12);
    expect(await fault("forecast", "examples/orientation/trial.json")).toMatch(/This layout has no forecast/);
    expect(await said("solve", example)).toBe(await said("solve", trial));
    const solved = JSON.parse(await said("solve", trial));
    expect(solved.forStock.values.map((v: { id: string }) => v.id)).toContain("offset");
    await burn("--next");
    expect(JSON.parse(await said("solve", trial)).verdict.result).toMatch(/^(proved|cannot tell)$/);
  });

  it("checks cards of stock", async () => {
    const cards = path.join(folder, "stock.json");
    const card = { name: "Cork", nominalMm: 2, batches: [{ label: "1", begun: "2026-05-01T09:00:00Z" }] };
    writeFileSync(cards, JSON.stringify({ format: "ustrina stock", version: 1, cards: [card] }));
    expect(await said("check", cards)).toBe("Stock: 1 card, 0 results.\n");
    writeFileSync(cards, JSON.stringify({ format: "ustrina stock", version: 1, cards: [{ ...card, nominalMm: -2 }] }));
    expect(await fault("check", cards)).toMatch(/cards\[0\]\.nominalMm/);
  });

  it("says which slot to draw for a part", async () => {
    const words = ["fit", example, "--thickness", "2.96 3.01 2.98"];
    const snug = JSON.parse(await said(...words));
    expect(snug.drawnMm).toBeGreaterThan(2.8);
    expect(snug.arithmetic[0]).toMatch(/kerf = 2\.8\d\d mm/);
    const pressed = JSON.parse(await said(...words, "--fit", "press", "--interference", "0.1 mm", "--width", "20"));
    expect(pressed.drawnMm).toBeCloseTo(snug.drawnMm - 0.12, 6);
    expect(pressed.chanceThatItWillNotGo).toBeGreaterThan(snug.chanceThatItWillNotGo);
    expect(await fault("fit", example, "--thickness", "thin")).toMatch(/--thickness/);
    expect(await fault("fit", example, "--thickness", "3", "--fit", "tight")).toMatch(/--fit.*snug/);
    expect(await fault("fit", "examples/squareness/trial.json", "--thickness", "3")).toMatch(/tells no kerf/);
  });

  it("adapts a drawing, its slots too, and names what cannot be", async () => {
    const made = await said("adapt", drawing, "--offset", "0.06 mm", "--slots", "3:3.02");
    expect(made).toMatch(/^<\?xml.*\n<svg /);
    expect(await said("adapt", drawing, "--offset", "0.06 mm", "--format", "dxf")).toMatch(/LWPOLYLINE/);
    expect(await fault("adapt", drawing, "--offset", "9 mm")).toMatch(/nothing is left of it/);
    expect(await fault("adapt", drawing, "--offset", "0.06 mm", "--uncut", "words")).toMatch(/--uncut.*“words”.*cut/);
    expect(await fault("adapt", drawing, "--offset", "0.06 mm", "--uncut", "cut")).toMatch(/Nothing of it encloses/);
    expect(await fault("adapt", drawing, "--offset", "0.06 mm", "--slots", "3")).toMatch(/3:3\.05/);
    expect(await fault("adapt", drawing, "--offset", "0.06 mm", "--unit", "ell")).toMatch(/--unit/);
    expect(await fault("adapt", drawing, "--offset", "0.06 mm", "--format", "pdf")).toMatch(/svg or dxf/);
    expect(await fault("adapt", example, "--offset", "0.06 mm")).toMatch(/trial\.json/);
  });
});

describe("round parts from a terminal", () => {
  const drawing = "examples/rotary/label.svg";

  it("says what goes around a part, and how a drawing wraps it", async () => {
    const part = async (...words: string[]) => JSON.parse(await said("part", ...words));
    const neck = await part(
      "--marked",
      "40",
      "--turns-by",
      "80",
      "--steps",
      "6400",
      "--roller",
      "20",
      "--artwork",
      "100",
    );
    expect(neck).toMatchObject({ artworkFactor: 2, artwork: { kind: "gap" } });
    expect(neck.aroundMm).toBeCloseTo(125.664, 3);
    expect(neck.steps.stepMm).toBeCloseTo(0.0049087, 6);
    expect((await part("--taper", "60:80:75", "--turns-by", "80")).travelAtEnds).toEqual([0.75, 1]);
    expect(await fault("part")).toMatch(/--marked/);
    expect(await fault("part", "--marked", "flat")).toMatch(/--marked/);
    expect(await fault("part", "--marked", "60", "--drive", "belt")).toMatch(/roller or chuck/);
    expect(await fault("part", "--taper", "60:80", "--turns-by", "80")).toMatch(/60:75\.7:90/);
    expect(await fault("part", "--taper", "60:80:75")).toMatch(/--turns-by/);
  });

  it("unrolls artwork for a taper, which checks, and names what does not go onto it", async () => {
    const taper = ["--taper", "60:75.7:90", "--turns-by", "70", "--begins", "10"];
    const made = path.join(folder, "label-round.svg");
    await ustrina(["develop", drawing, ...taper, "-o", made]);
    expect((await said("check", made)).length).toBeGreaterThan(5);
    expect(await said("develop", drawing, ...taper, "--lay", "rim", "--format", "dxf")).toMatch(/LWPOLYLINE/);
    expect(await fault("develop", drawing, "--marked", "20")).toMatch(/runs over its own beginning/);
    expect(await fault("develop", drawing, "--taper", "60:75.7:30", "--turns-by", "70")).toMatch(
      /beyond the other end/,
    );
    expect(await fault("develop", drawing, ...taper, "--level", "bed")).toMatch(/side, axis/);
    expect(await fault("develop", "examples/rotary/machine.json", ...taper)).toMatch(/machine\.json/);
  });
});

describe.each(EXAMPLES)("%s from a terminal", (id, procedure) => {
  const machine = `examples/${id}/machine.json`;
  const practice = `examples/${id}/practice.json`;
  const example = `examples/${id}/trial.json`;
  const planned = async (name: string) => {
    const trial = path.join(folder, `${id}-${name}.json`);
    writeFileSync(trial, await said("plan", procedure, "--machine", machine));
    return trial;
  };

  it("goes from plan to proved without a browser", async () => {
    const trial = await planned("loop");
    expect(JSON.parse(await said("solve", trial)).status).toBe("open");
    await ustrina(["burn", trial, "--practice", practice, "--seed", "3"]);
    const measured = JSON.parse(await said("solve", trial));
    expect(measured).toMatchObject({ status: "solved", complete: true, next: { do: "round", purpose: "proof" } });
    expect(measured.corrections[0].rows[0].arithmetic.length).toBeGreaterThan(0);
    await ustrina(["burn", trial, "--practice", practice, "--seed", "3", "--next"]);
    expect(JSON.parse(await said("solve", trial)).verdict.result).toBe("proved");
    expect(await said("check", trial)).toMatch(/2 rounds/);
    expect(await said("results", trial)).toMatch(/^what,name,value,unit/);
  });

  it("says the same for the same seed, and something else for another", async () => {
    const run = async (seed: string) => {
      const trial = await planned(`seed-${seed}`);
      await ustrina(["burn", trial, "--practice", practice, "--seed", seed]);
      return readFileSync(trial, "utf8");
    };
    const five = await run("5");
    expect(await run("5")).toBe(five);
    // What lies there once and for all is the same for every hand.
    if (id === "orientation") return;
    // Coarse judgements may be alike once, not always.
    const others = await Promise.all(["6", "7", "8", "9", "10", "11"].map(run));
    expect(others.some((other) => other !== five)).toBe(true);
  });

  it("holds a worked trial among the examples, which solves", async () => {
    expect(JSON.parse(await said("solve", example))).toMatchObject({ status: "solved" });
  });

  it.each(["svg", "dxf", "gcode", "csv"])("writes its coupon as %s, which checks", async (format) => {
    const file = path.join(folder, `coupon.${format}`);
    expect(await said("coupon", example, "--format", format, "-o", file)).toBe(`${file}\n`);
    expect((await said("check", file)).length).toBeGreaterThan(5);
  });

  it("writes its run sheet as PDF, on either paper", async () => {
    const [a4, letter] = await Promise.all(
      ["a4", "letter"].map((paper) => ustrina(["coupon", example, "--format", "pdf", "--paper", paper])),
    );
    expect(String(a4?.slice(0, 5))).toBe("%PDF-");
    expect(letter?.length).toBeGreaterThan(5000);
    expect(letter).not.toEqual(a4);
  });

  it("lists its sites", async () => {
    expect(await said("sites", example)).toMatch(/^site,place,question/);
  });

  it("takes readings from a filled sheet, and says the same as a burn with them", async () => {
    const burned = await planned("burned");
    await ustrina(["burn", burned, "--practice", practice, "--seed", "4"]);
    const { rounds } = JSON.parse(readFileSync(burned, "utf8"));
    const header = "site;which;reading (mm)";
    const rows = rounds[0].readings.map(
      (r: { site: string; which: string; reading: string }) =>
        `${r.site};${r.which};${r.reading.replace(" mm", "").replace(".", ",")}`,
    );
    const sheet = path.join(folder, `${id}-sheet.csv`);
    writeFileSync(sheet, [header, ...rows].join("\n"));
    const taken = await planned("taken");
    // What the controller holds is read back with the burn.
    const known = JSON.parse(readFileSync(taken, "utf8"));
    known.rounds[0].inForce = rounds[0].inForce;
    writeFileSync(taken, JSON.stringify(known));
    await ustrina(["take", taken, "--sheet", sheet]);
    expect(await said("solve", taken)).toBe(await said("solve", burned));
    // A slip of units is asked about, and nothing is taken; sure of it, it is.
    const slip = path.join(folder, `${id}-slip.csv`);
    const first = rounds[0].readings.find((r: { reading: string }) => r.reading.endsWith(" mm"));
    if (!first) return;
    writeFileSync(slip, [header, ...rows, `${first.site};${first.which};9`].join("\n"));
    const asked = await planned("asked");
    expect(await fault("take", asked, "--sheet", slip)).toMatch(/-slip\.csv: line \d+: .*--sure/);
    expect(JSON.parse(readFileSync(asked, "utf8")).rounds[0].readings).toEqual([]);
    await ustrina(["take", asked, "--sheet", slip, "--sure"]);
    expect(JSON.parse(readFileSync(asked, "utf8")).rounds[0].readings).toHaveLength(rows.length + 1);
    expect(await fault("take", asked, "--sheet", "gone.csv")).toMatch(/gone\.csv: There is no such file/);
  });
});

describe("what belongs to one machine or one piece", () => {
  const example = "examples/scan-offset/trial.json";

  it("is asked for by name: G-code as that machine takes it", async () => {
    const machine = JSON.parse(readFileSync("examples/scan-offset/machine.json", "utf8"));
    const other = { ...machine.gcode, beamOn: "M106", beamOff: "M107", powerWith: "beam code", powerLetter: "P" };
    const machineFile = path.join(folder, "other-machine.json");
    writeFileSync(machineFile, JSON.stringify({ ...machine, gcode: other }));
    const trial = path.join(folder, "other.json");
    const document = JSON.parse(readFileSync(example, "utf8"));
    writeFileSync(trial, JSON.stringify({ ...document, machine: { ...document.machine, gcode: other } }));
    const file = path.join(folder, "other.nc");
    await ustrina(["coupon", trial, "--format", "gcode", "-o", file]);
    expect(readFileSync(file, "utf8")).toMatch(/^M106 P\d+/m);
    expect(await fault("check", file)).toMatch(/M107 is not understood here/);
    expect(await said("check", file, "--machine", machineFile)).toMatch(/burned paths/);
  });

  it("is refused where there is no such piece", async () => {
    expect(await said("coupon", example, "--format", "svg", "--piece", "1")).toMatch(/^<\?xml/);
    expect(await fault("coupon", example, "--format", "svg", "--piece", "2")).toMatch(
      /--piece: This round has no piece 2/,
    );
    expect(await fault("coupon", example, "--format", "dxf", "--piece", "0")).toMatch(/no piece 0/);
    expect(await fault("coupon", example, "--format", "dxf", "--piece", "one")).toMatch(/no whole number/);
  });

  it("reads drawings of other programs as such", async () => {
    const file = path.join(folder, "foreign.svg");
    writeFileSync(
      file,
      '<svg xmlns="http://www.w3.org/2000/svg" width="2in" height="1in" viewBox="0 0 2 1"><circle r=".4"/></svg>',
    );
    expect(await said("check", file)).toBe("SVG, 50.8 × 25.4 mm: 1 paths.\n");
  });
});

describe("a picture of what was burned", () => {
  const practice = "examples/scan-offset/practice.json";

  it("has the size of its stock at its resolution, dark where the marks are", async () => {
    const trial = path.join(folder, "pictured.json");
    writeFileSync(trial, await said("plan", "scan-offset", "--machine", "examples/scan-offset/machine.json"));
    const picture = path.join(folder, "pictured.png");
    await ustrina(["burn", trial, "--practice", practice, "--seed", "1", "--picture", picture, "--dpi", "300"]);
    const { widthMm, heightMm } = JSON.parse(readFileSync(trial, "utf8")).rounds[0].spec.pieces[0];
    const [width, height] = [Math.round((widthMm / 25.4) * 300), Math.round((heightMm / 25.4) * 300)];
    expect(await said("check", picture)).toBe(`PNG: ${width} × ${height} pixels, 300 dpi.\n`);
    const { channels } = await sharp(picture).stats();
    expect(channels).toHaveLength(1);
    expect(channels[0]?.min).toBeLessThan(80);
    expect(channels[0]?.mean).toBeGreaterThan(150);
  });

  it("is refused where it would be too large, or has no dots", async () => {
    const trial = path.join(folder, "unpictured.json");
    writeFileSync(trial, await said("plan", "scan-offset", "--machine", "examples/scan-offset/machine.json"));
    const burn = (dpi: string) =>
      fault(
        "burn",
        trial,
        "--practice",
        practice,
        "--seed",
        "1",
        "--picture",
        path.join(folder, "x.png"),
        "--dpi",
        dpi,
      );
    expect(await burn("90000")).toMatch(/^--dpi: /);
    expect(await burn("0")).toMatch(/^--dpi: /);
    expect(JSON.parse(readFileSync(trial, "utf8")).rounds[0].readings).toEqual([]);
  });
});

describe("what is wrong", () => {
  it("is said in one line with file and field", async () => {
    expect(await fault("solve", "gone.json")).toBe("gone.json: There is no such file, or it cannot be read.");
    expect(await fault("frobnicate")).toBe("frobnicate: There is no such verb. Without one, all are listed.");
    expect(await fault("coupon", "examples/scan-offset/trial.json")).toMatch(/^--format: Choose one of/);
    expect(await fault("coupon", "examples/scan-offset/trial.json", "--format", "pdf", "--paper", "a9")).toMatch(
      /^--paper: /,
    );
    expect(await fault("plan", "magic", "--machine", "examples/scan-offset/machine.json")).toMatch(
      /no procedure “magic”/,
    );
    expect(await fault("plan", "scan-offset")).toBe("--machine: This is missing.");
    expect(await fault("burn", "x.json", "--practice", "y", "--seed", "many")).toMatch(
      /--seed: “many” is no whole number/,
    );
    expect(await fault("check", "a.bmp")).toMatch(/Only json, svg/);
    expect(await fault("check", "a.png")).toMatch(/no picture/);
    const bad = path.join(folder, "bad.json");
    writeFileSync(bad, readFileSync("examples/scan-offset/trial.json", "utf8").replace('"v100-left"', '"v7-left"'));
    expect(await fault("solve", bad)).toMatch(
      /bad\.json: rounds\[0\]\.readings\[\d+\]\.site: This coupon has no place “v100-left”/,
    );
    const cut = path.join(folder, "cut.nc");
    writeFileSync(cut, "G21\nG1 X1 Y1 F100\n");
    expect(await fault("check", cut)).toMatch(/cut\.nc: line \d+, column \d+: /);
  });

  it("does not burn a round twice", async () => {
    const practice = "examples/scan-offset/practice.json";
    expect(await fault("burn", "examples/scan-offset/trial.json", "--practice", practice, "--seed", "1")).toMatch(
      /read already: --next lays out the one after it/,
    );
  });

  it("lists the verbs without one", async () => {
    expect(await said()).toMatch(/burn TRIAL --practice FILE --seed N/);
    const listed = (await said("procedures")).trim().split("\n");
    expect(listed.map((line) => line.split(" ")[0])).toEqual(PROCEDURES.map((p) => p.id));
  });
});

describe("the whole bench from a terminal", () => {
  let bench: string;
  const named = (name: string) => {
    const db = openDatabase(bench);
    addMachine(db, name.toLowerCase(), { ...SAMPLE_MACHINE, name }, [], 1000);
    return db;
  };
  const machines = () => {
    const db = openDatabase(bench);
    const slugs = allMachines(db).map((m) => m.slug);
    db.$client.close();
    return slugs;
  };
  beforeEach(() => {
    bench = path.join(mkdtempSync(path.join(folder, "bench-")), "bench.sqlite");
    vi.stubEnv("USTRINA_DATABASE", bench);
  });
  afterEach(() => vi.unstubAllEnvs());

  it("is backed up while it is in use, checked, and restored once it is not", async () => {
    const inUse = named("Alder");
    const copy = path.join(folder, "copy.sqlite");
    expect(await said("backup", copy)).toMatch(/copy\.sqlite: 1 machine, 0 trials, .* checked\.\n$/);
    expect(await said("check", copy)).toBe("Backup: 1 machine, 0 trials, 0 readings, 0 ledger entries, whole.\n");
    named("Bracken").$client.close();
    expect(await fault("restore", copy)).toMatch(/^.*copy\.sqlite: The bench is in use\. Stop Ustrina/);
    inUse.$client.close();
    expect(machines()).toEqual(["alder", "bracken"]);
    const words = await said("restore", copy);
    expect(words).toMatch(/^Restored: 1 machine/);
    expect(machines()).toEqual(["alder"]);
    const kept = /The bench as it was: (.*)\n/.exec(words)?.[1] ?? "";
    await said("restore", kept);
    expect(machines()).toEqual(["alder", "bracken"]);
  });

  it("goes into the folder of the backups where no name is given", async () => {
    named("Alder").$client.close();
    await said("backup");
    expect(backupFiles(bench).map((b) => b.reason)).toEqual(["by hand"]);
  });

  it("is not restored from what is none, and not backed up where there is none", async () => {
    expect(await fault("backup")).toMatch(/There is no bench here/);
    expect(await fault("restore")).toMatch(/missing/);
    expect(await fault("restore", path.join(folder, "nowhere.sqlite"))).toMatch(/no such file/);
    const text = path.join(folder, "text.sqlite");
    writeFileSync(text, "not a database ".repeat(99));
    expect(await fault("restore", text)).toMatch(/not the data of a bench/);
    expect(await fault("check", text)).toMatch(/not the data of a bench/);
  });
});
