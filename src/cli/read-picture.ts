/** `read TRIAL --picture FILE`: what a scan of the last round shows, by the same reader as the screen. */
import { readFileSync } from "node:fs";
import Papa from "papaparse";
import { LAB_KEYS } from "../core/colour/lab";
import type { Measurand, Site } from "../core/coupon/site";
import { findArray } from "../core/picture/array/find-array";
import { type ArrayLook, readArray } from "../core/picture/array/read-array";
import { readColours } from "../core/picture/array/read-colours";
import { readGrid } from "../core/picture/dots/read-grid";
import type { GreyPicture } from "../core/picture/grey-picture";
import { type PictureScale, scaleFromDpi } from "../core/picture/picture-scale";
import { readPart } from "../core/picture/read-part";
import { readPicture } from "../core/picture/read-picture";
import { decodeColours, decodePicture, PictureFault } from "../formats/picture-decoder";
import type { TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";
import { trialIn } from "./document-file";

export type HowToRead = {
  /** Instead of what the file says; 0 = as it says. */
  dpi: number;
  /** Marks are brighter than the stock. */
  brighter: boolean;
  /** The one place that the whole picture shows; `null` where it shows the coupon. */
  site: string | null;
  /** Places of the cards of a colour scan, `240,1180` in pixels; empty where none are named. */
  cards: Record<"white" | "grey", string>;
};

/**
 * @returns CSV: site, value and standard uncertainty in mm, what it stands on
 */
export async function readFrom(
  file: string,
  document: TrialDocument,
  pictureFile: string,
  { dpi, brighter, site: id, cards }: HowToRead,
): Promise<string> {
  const { history } = trialIn(file, document);
  const round = history.rounds.at(-1);
  const [piece] = round?.spec.pieces ?? [];
  if (!round || !piece) throw new CliFault(file, "rounds", "The trial has no burned piece that a picture could show.");
  const picture = await decodePicture(bytesOf(pictureFile)).catch((error: unknown) => {
    throw error instanceof PictureFault ? new CliFault(pictureFile, "", error.message) : error;
  });
  const { sites } = round.spec;
  const array = sites.find((s) => s.measurand.kind === "cell look");
  // Its dots give the scale: nothing needs to say how large the pixels are.
  if (array?.measurand.kind === "cell look" && (id === null || id === array.id))
    return scoresSheet(pictureFile, picture, array.id, array.measurand, brighter);
  const coloured = sites.filter((s) => s.measurand.kind === "cell colour");
  if (coloured.length > 0 && id === null) return coloursSheet(pictureFile, picture, coloured, cards, brighter);
  const known = dpi > 0 ? { x: dpi, y: dpi } : picture.dpi;
  if (!known) throw new CliFault(pictureFile, "", "It does not say how large its pixels are: give --dpi.");
  const scale = scaleFromDpi(known.x, known.y, dpi > 0 ? "typed" : "file");
  const site = sites.find((s) => s.id === id);
  if (id !== null && !site) throw new CliFault(file, "--site", `The last round has no site "${id}": sites lists them.`);
  const dots = (site ?? sites.find((s) => s.measurand.kind === "dots"))?.measurand;
  if (dots?.kind === "dots") {
    const into = site ?? sites.find((s) => s.measurand.kind === "dots");
    return dotsSheet(pictureFile, picture, into?.id ?? "", dots, scale, brighter);
  }
  const box = { x0: 0, y0: 0, x1: picture.width, y1: picture.height };
  const read = site
    ? { ok: true as const, sites: [readPart(picture, piece, site, box, scale, brighter).read] }
    : readPicture(picture, piece, sites, scale, brighter);
  if (!read.ok) throw new CliFault(pictureFile, "", read.why);
  const rows = read.sites.map((s) =>
    s.ok ? [s.site, s.value.toFixed(5), s.u.toFixed(5), s.note] : [s.site, "", "", s.why],
  );
  return `${Papa.unparse({ fields: ["site", "value mm", "u mm", "from"], data: rows }, { newline: "\n" })}\n`;
}

/** A filled sheet for `take`: one reading, all dots of a scan, mm from the lower left corner. */
function dotsSheet(
  file: string,
  picture: GreyPicture,
  site: string,
  { across, part }: Extract<Measurand, { kind: "dots" }>,
  scale: PictureScale,
  brighter: boolean,
): string {
  const read = readGrid(picture, across, brighter, [], part !== undefined);
  if (!read.ok) throw new CliFault(file, "", read.why);
  const points = Array.from({ length: across * across }, () => "? | ?");
  for (const { index, x, y } of read.dots)
    points[index] =
      `${(x / scale.xPixelsPerMm).toFixed(5)} | ${((picture.height - y) / scale.yPixelsPerMm).toFixed(5)}`;
  return `${Papa.unparse({ fields: ["site", "reading (mm)"], data: [[site, points.join(" | ")]] }, { newline: "\n" })}\n`;
}

/** A filled sheet for `take`: one reading, the scores of all cells in their order. */
function scoresSheet(file: string, picture: GreyPicture, site: string, look: ArrayLook, brighter: boolean): string {
  const read = readArray(picture, look, brighter);
  if (!read.ok) throw new CliFault(file, "", read.why);
  const scores = read.scores.map((s) => (s === null ? "?" : s.toFixed(5)));
  return `${Papa.unparse({ fields: ["site", "reading (mm)"], data: [[site, scores.join(" | ")]] }, { newline: "\n" })}\n`;
}

/** A filled sheet for `take`: L*, a* and b* of all cells, a reading each. */
async function coloursSheet(
  file: string,
  picture: GreyPicture,
  sites: readonly Site[],
  cards: HowToRead["cards"],
  brighter: boolean,
): Promise<string> {
  const look = sites[0]?.measurand;
  if (look?.kind !== "cell colour") throw new CliFault(file, "", "No colours are read in this round.");
  const found = findArray(picture, look.dots, look.radiusMm, brighter);
  if (!found.ok) throw new CliFault(file, "", "The five dots around this array are not visible.");
  const colours = await decodeColours(bytesOf(file));
  const card = (name: "white" | "grey") => ({ at: placeOf(name, cards[name]), l: look[name] });
  const scale = colours.width / picture.width;
  const both = { white: card("white"), grey: card("grey") };
  const read = readColours(colours, found.toPicture, scale, look.cells, both);
  if (!read.ok) throw new CliFault(file, `--${read.card}`, read.why);
  const data = sites.flatMap(({ id, measurand }) =>
    measurand.kind === "cell colour"
      ? [[id, read.colours.map((c) => (c === null ? "?" : c[LAB_KEYS[measurand.of]].toFixed(5))).join(" | ")]]
      : [],
  );
  return `${Papa.unparse({ fields: ["site", "reading (mm)"], data }, { newline: "\n" })}\n`;
}

function placeOf(card: "white" | "grey", text: string): { x: number; y: number } {
  const match = /^(\d+(?:\.\d+)?),(\d+(?:\.\d+)?)$/.exec(text);
  if (!match)
    throw new CliFault(
      "",
      `--${card}`,
      `Name the middle of the ${card} card in pixels, for example --${card} 240,1180.`,
    );
  return { x: Number(match[1]), y: Number(match[2]) };
}

function bytesOf(file: string): Buffer {
  try {
    return readFileSync(file);
  } catch {
    throw new CliFault(file, "", "There is no such file, or it cannot be read.");
  }
}
