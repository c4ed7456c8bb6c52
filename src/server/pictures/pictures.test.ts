import { inflateSync } from "node:zlib";
import sharp from "sharp";
import { beforeEach, describe, expect, it } from "vitest";
import { scaleFromDpi } from "../../core/picture/picture-scale";
import { readPicture } from "../../core/picture/read-picture";
import { quantitiesAt, sitesLeft } from "../../core/trial/answer";
import type { Database } from "../../data/database";
import { picturesOf } from "../../data/pictures";
import { trialOfDocument } from "../../formats/document-history";
import { documentText } from "../../formats/json-document";
import { decodePicture, PictureFault } from "../../formats/picture-decoder";
import { dpiOf } from "../../formats/picture-dpi";
import { parseTrialDocument } from "../../formats/trial-document";
import { demoCopy } from "../../testing/test-bench";
import { burnOnPractice } from "../trial/burn-on-practice";
import { practiceScan } from "../trial/practice-scan";
import { trialDocument } from "../trial/trial-document";
import { fullTrial, roundOf } from "../trial/trial-record";
import { beginTrial, keepDraft } from "../trial/trial-steps";
import { acceptPicture, dropPicture, givePictureScale, pictureBytes, takePicture } from "./picture-steps";

const NOW = Date.UTC(2026, 10, 26, 9);
const grey = (width: number, height: number) => Buffer.from(Array.from({ length: width * height }, (_, i) => i % 251));
const drawn = (width = 200, height = 120) => sharp(grey(width, height), { raw: { width, height, channels: 1 } });
const why = (file: Buffer) =>
  decodePicture(file).then(
    () => "taken",
    (error: unknown) => (error instanceof PictureFault ? error.message : `crash: ${error}`),
  );

describe("a picture file", () => {
  it("comes out as the same grey bytes, whatever loses nothing it came as", async () => {
    const files = {
      png: await drawn().toColourspace("b-w").png().toBuffer(),
      colour: await drawn().toColourspace("srgb").png().toBuffer(),
      deep: await drawn().toColourspace("grey16").png().toBuffer(),
      tiff: await drawn().tiff({ compression: "lzw" }).toBuffer(),
      webp: await drawn().webp({ lossless: true }).toBuffer(),
    };
    for (const [kind, file] of Object.entries(files)) {
      const { width, height, grey: read } = await decodePicture(file);
      expect([width, height], kind).toEqual([200, 120]);
      const worst = read.reduce((most, value, i) => Math.max(most, Math.abs(value - ((i % 251) as number))), 0);
      expect(worst, kind).toBeLessThanOrEqual(1);
    }
  });

  it("is read from JPEG, also in the inks of printers, and turned as the camera says", async () => {
    const jpeg = await decodePicture(await drawn().jpeg({ quality: 100 }).toBuffer());
    expect(Math.abs((jpeg.grey[1000] as number) - (1000 % 251))).toBeLessThan(12);
    const cmyk = await decodePicture(await drawn().toColourspace("cmyk").jpeg({ quality: 100 }).toBuffer());
    expect(Math.abs((cmyk.grey[1000] as number) - (jpeg.grey[1000] as number))).toBeLessThan(25);
    const turned = await decodePicture(await drawn().withMetadata({ orientation: 6 }).jpeg().toBuffer());
    expect([turned.width, turned.height]).toEqual([120, 200]);
  });

  it("says its dots per inch, X and Y apart, in four kinds of file", async () => {
    expect(dpiOf(await drawn().withDensity(600).png().toBuffer())?.x).toBeCloseTo(600, 1);
    expect(dpiOf(await drawn().withDensity(1200).jpeg().toBuffer())).toEqual({ x: 1200, y: 1200 });
    const tiff = await drawn()
      .tiff({ xres: 1200 / 25.4, yres: 600 / 25.4 })
      .toBuffer();
    expect(dpiOf(tiff)?.x).toBeCloseTo(1200, 3);
    expect(dpiOf(tiff)?.y).toBeCloseTo(600, 3);
    expect(dpiOf(await drawn().withMetadata({ density: 800 }).webp().toBuffer())?.x).toBeCloseTo(800, 1);
    expect(dpiOf(await drawn().png().toBuffer())).toBeNull();
    expect(dpiOf(Buffer.from("II*\0\xff\xff\xff\xff", "latin1"))).toBeNull();
  });

  it("is refused in words where it is none, damaged, too large or packed to burst", async () => {
    const png = await drawn().png().toBuffer();
    expect(await why(Buffer.from("<svg xmlns='http://www.w3.org/2000/svg' width='900' height='900'/>"))).toMatch(
      /This is SVG, whatever its name says/,
    );
    expect(await why(Buffer.from("<!doctype html><p>scan.png"))).toMatch(/no picture that can be read/);
    expect(await why(Buffer.alloc(0))).toMatch(/empty/);
    expect(await why(await drawn().gif().toBuffer())).toMatch(/This is GIF/);
    expect(await why(png.subarray(0, Math.floor(png.length * 0.6)))).toMatch(/damaged or not whole/);
    expect(await why(await drawn(40, 400).png().toBuffer())).toMatch(/too few to measure in/);
    // 400 megapixels of one grey in some hundred kilobytes
    const create = { width: 20_000, height: 20_000, channels: 3, background: "white" } as const;
    const bomb = sharp({ create, limitInputPixels: false });
    const file = await bomb.toColourspace("b-w").png({ compressionLevel: 9 }).toBuffer();
    expect(file.length).toBeLessThan(2_000_000);
    expect(await why(file)).toMatch(/400 megapixels; 100 are taken/);
  });
});

describe("a scan of a practice piece", () => {
  let db: Database;
  let trialId: number;
  beforeEach(() => {
    db = demoCopy();
    trialId = beginTrial(db, "alder", "scan-offset", NOW);
    const { draft } = roundOf(fullTrial(db, trialId), 1);
    keepDraft(db, trialId, 1, { ...draft, speedsMmPerS: "200 400", rowLengthMm: "20", stockHeightMm: "70" });
    burnOnPractice(db, trialId, 1, null, NOW + 1000);
  });

  const round = () => roundOf(fullTrial(db, trialId), 1);

  it("is taken once, read, and gives readings once, with where they came from", async () => {
    const file = await practiceScan(db, fullTrial(db, trialId), 1, 600);
    const facts = await takePicture(db, trialId, 1, "../../scan.png", file, NOW + 2000);
    expect((await takePicture(db, trialId, 1, "again.png", file, NOW + 3000)).id).toBe(facts.id);
    expect(facts.xDpi).toBeCloseTo(600, 0);
    const spec = round().spec;
    const [piece] = spec?.pieces ?? [];
    if (!spec || !piece || !facts.scale) throw new Error("nothing to read");
    const bytes = inflateSync(pictureBytes(db, trialId, 1, facts.id));
    const read = readPicture({ ...facts, grey: bytes }, piece, spec.sites, facts.scale);
    if (!read.ok) throw new Error(read.why);
    const readings = read.sites.flatMap((s) =>
      s.ok ? [{ site: s.site, mm: s.value, uMm: s.u, degreesOfFreedom: s.degreesOfFreedom, edited: false }] : [],
    );
    expect(readings.length).toBe(spec.sites.length);
    const input = { trialId, n: 1, picture: facts.id, readings, key: "0123456789abcdef" };
    expect(acceptPicture(db, input, NOW + 4000)).toBe(readings.length);
    expect(acceptPicture(db, input, NOW + 5000)).toBe(readings.length);
    const answers = round().readings.map((r) => r.answer);
    expect(answers).toHaveLength(readings.length);
    expect(sitesLeft(spec.sites, answers)).toEqual([]);
    const [first] = readings;
    expect(quantitiesAt(answers, first?.site ?? "")[0]).toBeCloseTo(first?.mm ?? 0, 5);
    expect(answers[0]).toMatchObject({ from: "picture", picture: { sha256: facts.sha256, edited: false } });
    const outcome = fullTrial(db, trialId).procedure.solve({
      rounds: [{ n: 1, purpose: "measure", plan: round().plan, spec, inForce: {}, answers }],
      gauges: round().sessions.map((s) => s.gauge),
      available: [],
      decisions: {},
      machine: fullTrial(db, trialId).machine,
      tolerance: 0.05,
    });
    expect(outcome.status).toBe("solved");
    // It is handed on with where it came from
    const written = trialDocument(db, trialId);
    const parsed = parseTrialDocument(documentText(written));
    if (!parsed.ok) throw new Error(JSON.stringify(parsed));
    const again = trialOfDocument(parsed.document);
    if (!again.ok) throw new Error(again.fault.message);
    expect(again.trial.history.rounds[0]?.answers[0]).toMatchObject({ u: first?.uMm, picture: { edited: false } });
  });

  it("is refused where nothing can come of it, and taken back", async () => {
    const file = await drawn().withDensity(96).png().toBuffer();
    const facts = await takePicture(db, trialId, 1, "plain.png", file, NOW + 2000);
    const accept = (readings: Parameters<typeof acceptPicture>[1]["readings"]) => () =>
      acceptPicture(db, { trialId, n: 1, picture: facts.id, readings, key: "0123456789abcdef" }, NOW + 4000);
    expect(accept([])).toThrow(/no scale yet/);
    givePictureScale(db, trialId, 1, facts.id, scaleFromDpi(600, 600, "typed"));
    expect(accept([])).toThrow(/Nothing is read/);
    expect(accept([{ site: "nowhere", mm: 1, uMm: 0.1, degreesOfFreedom: 5, edited: false }])).toThrow(/no such place/);
    expect(round().readings).toEqual([]);
    expect(round().sessions).toEqual([]);
    dropPicture(db, trialId, 1, facts.id, NOW + 5000);
    expect(picturesOf(db, round().id)).toEqual([]);
    expect(() => pictureBytes(db, trialId, 1, facts.id)).toThrow(/no such picture/);
  });
});
