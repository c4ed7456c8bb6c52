/** Every file of a round, as it is asked for over the wire. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { GET } from "../../app/api/trials/[id]/rounds/[n]/[file]/route";
import { UNKNOWN_AXES } from "../../core/machine/machine-spec";
import { machineBySlug } from "../../data/machines";
import { database } from "../../data/server-database";
import { trialsOfMachine } from "../../data/trials";
import { parseCsv } from "../../formats/csv";
import { parseDxf } from "../../formats/dxf-parser";
import { parseGcode } from "../../formats/gcode-parser";
import { parseSvg } from "../../formats/svg-parser";
import { parseTrialDocument } from "../../formats/trial-document";
import { NOW } from "../../testing/test-bench";
import { addDemoBench } from "../demo/demo-bench";
import { keepMachine } from "../machine/machine-steps";
import { beginTrial } from "./trial-steps";

let folder: string;
let proved: number;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-files-"));
  process.env.USTRINA_DATABASE = path.join(folder, "bench.sqlite");
  addDemoBench(database(), NOW);
  const bracken = machineBySlug(database(), "bracken")?.id ?? 0;
  proved = trialsOfMachine(database(), bracken).find((t) => t.end === "proved")?.id ?? 0;
});
afterAll(() => {
  database().$client.close();
  rmSync(folder, { recursive: true });
});

async function ask(file: string, { trial = proved, n = "1" }: { trial?: number | string; n?: string } = {}) {
  const [name = "", query = ""] = file.split("?");
  const url = `http://127.0.0.1/api/trials/${trial}/rounds/${n}/${name}?${query}`;
  const response = await GET(new Request(url), { params: Promise.resolve({ id: String(trial), n, file: name }) });
  return { status: response.status, headers: response.headers, bytes: Buffer.from(await response.arrayBuffer()) };
}

describe("a file over the wire", () => {
  const parsers: Record<string, (text: string) => { ok: boolean }> = {
    "coupon.svg": parseSvg,
    "coupon.dxf": parseDxf,
    "coupon.nc": parseGcode,
    "sites.csv": parseCsv,
    "sheet.csv": parseCsv,
    "readings.csv": parseCsv,
    "results.csv": parseCsv,
    "trial.json": parseTrialDocument,
  };

  it.each(Object.keys(parsers))("%s can be read by its reader, of every round", async (file) => {
    for (const n of ["1", "2"]) {
      const { status, headers, bytes } = await ask(file, { n });
      expect(status).toBe(200);
      expect(headers.get("content-type")).toMatch(/charset=utf-8$/);
      expect(headers.get("cache-control")).toBe("no-store");
      expect(headers.get("content-disposition")).toMatch(/^attachment; filename="bracken-b-1/);
      expect(parsers[file]?.(bytes.toString()).ok).toBe(true);
    }
  });

  it("of pages is a PDF, on the paper that is asked for", async () => {
    const [a4, letter] = [await ask("run-sheet.pdf"), await ask("run-sheet.pdf?paper=letter")];
    expect(a4.headers.get("content-type")).toBe("application/pdf");
    const box = (bytes: Buffer) => /\/MediaBox\s*\[([^\]]*)\]/.exec(bytes.toString("latin1"))?.[1]?.trim();
    expect(box(a4.bytes)).toMatch(/^0 0 595\.\d+ 841\.\d+$/);
    expect(box(letter.bytes)).toMatch(/^0 0 612 792$/);
  });

  it.each([
    ["run-sheet.pdf?paper=a0", {}, /no paper “a0”/],
    ["coupon.svg?piece=2", {}, /no piece 2/],
    ["coupon.svg?piece=x", {}, /no piece/],
    ["coupon.png", {}, /no file “coupon\.png”/],
    ["constructor", {}, /no file/],
    ["__proto__", {}, /no file/],
    ["coupon.svg", { n: "9" }, /no round 9/],
    ["coupon.svg", { n: "x" }, /no round/],
    ["coupon.svg", { trial: 4711 }, /no such trial/],
    ["coupon.svg", { trial: "1; drop table trial" }, /no such trial/],
  ])("is refused in words: %s %j", async (file, where, message) => {
    const { status, bytes } = await ask(file, where);
    expect(status).toBe(422);
    expect(bytes.toString()).toMatch(message);
  });

  it.each(["Ölmühle", "激光 №1", 'quo"te; x', "half \ud83d"])(
    "has a name whatever its machine is called: %j",
    async (name) => {
      const slug = keepMachine(
        database(),
        {
          slug: null,
          kind: "CO2 gantry",
          name,
          width: "900",
          depth: "600",
          topSpeed: "500",
          acceleration: "",
          wavelength: "10600",
          workingSpeeds: "",
          scansBlocks: true,
          practice: false,
          held: {},
          axes: UNKNOWN_AXES,
        },
        NOW,
      );
      const trial = beginTrial(database(), slug, "scan-offset", NOW);
      const { status, headers } = await ask("coupon.svg", { trial });
      expect(status).toBe(200);
      const disposition = headers.get("content-disposition") ?? "";
      expect(disposition).toMatch(/^attachment; filename="[\w.-]+"; filename\*=UTF-8''[\w.%!#$&+^`|~-]+$/);
      const encoded = /UTF-8''(.*)$/.exec(disposition)?.[1] ?? "";
      expect(decodeURIComponent(encoded)).toContain(name.toLowerCase().replace("\ud83d", "_"));
      const run = await ask("run-sheet.pdf", { trial });
      expect(run.bytes.subarray(0, 5).toString()).toBe("%PDF-");
    },
  );
});
