/** `part` and `develop`: a round part, and artwork made for it. */
import { develop, type PartShape } from "../artwork/develop";
import { SVG_UNITS, type SvgUnit } from "../artwork/read-drawing";
import { rotaryDriveSchema } from "../core/machine/part-spec";
import { parseReading } from "../core/metrology/reading-text";
import type { Dimension, UnitId } from "../core/metrology/units";
import { artworkFactor, circumferenceMm, partSteps, wrapsOf } from "../core/round-part/round-part";
import { LAYS, type Lay, LEVELS, type Level, sideAngleRad, slantMm, travelAtEnds } from "../core/round-part/taper";
import { dxfOf } from "../formats/dxf-writer";
import { documentText } from "../formats/json-document";
import { svgOf } from "../formats/svg-writer";
import { CliFault } from "./cli-fault";
import { fileText } from "./document-file";

export type PartWords = Partial<
  Record<
    | ("marked" | "turnsBy" | "taper" | "begins" | "lay" | "level" | "around" | "drive" | "steps" | "roller")
    | ("mostSteps" | "artwork" | "chord" | "unit" | "format"),
    string
  >
>;

const USUAL_CHORD = "0.01 mm";
const FORMATS = { svg: (piece: Parameters<typeof dxfOf>[0]) => svgOf(piece, false), dxf: dxfOf } as const;

/** What goes around a part, a step of its drive, how fast it may go: as JSON. */
export function roundPart(words: PartWords): string {
  const shape = shapeIn(words);
  const artworkMm = words.artwork === undefined ? null : length(words.artwork, "--artwork");
  if (shape.kind === "taper")
    return documentText({
      aroundEndsMm: [circumferenceMm(shape.firstMm), circumferenceMm(shape.lastMm)],
      sideMm: slantMm(shape),
      sideAngleDeg: (180 / Math.PI) * sideAngleRad(shape),
      travelAtEnds: travelAtEnds(shape),
      ...(artworkMm === null ? {} : { artwork: wrapsOf(artworkMm, Math.min(shape.firstMm, shape.lastMm)) }),
    });
  const drive = rotaryDriveSchema.safeParse(words.drive ?? "roller");
  if (!drive.success) throw new CliFault("", "--drive", "Choose roller or chuck.");
  const steps = words.steps === undefined ? null : number(words.steps, "--steps");
  const numbers = steps && {
    stepsPerRevolution: steps,
    rollerDiameterMm: words.roller === undefined ? null : length(words.roller, "--roller"),
    mostStepsPerS: words.mostSteps === undefined ? null : number(words.mostSteps, "--most-steps"),
  };
  return documentText({
    aroundMm: circumferenceMm(shape.markedMm),
    artworkFactor: artworkFactor(shape),
    steps: numbers ? partSteps({ drive: drive.data, ...shape }, numbers) : null,
    ...(artworkMm === null ? {} : { artwork: wrapsOf(artworkMm, shape.markedMm) }),
  });
}

/** A drawing made for a round part. @throws CliFault where it does not go onto it */
export function developed(file: string, words: PartWords): string {
  const { format = "svg", unit, around = "y" } = words;
  oneOf(format, FORMATS, "--format");
  if (unit !== undefined) oneOf(unit, SVG_UNITS, "--unit");
  oneOf(around, { x: 1, y: 1 }, "--around");
  const chordErrorMm = length(words.chord ?? USUAL_CHORD, "--chord");
  const made = develop({
    text: fileText(file),
    unit: (unit as SvgUnit | undefined) ?? null,
    chordErrorMm,
    around: around as "x" | "y",
    shape: shapeIn(words),
  });
  if (!made.ok) throw new CliFault(file, "", made.asksUnit ? `${made.message} Use --unit.` : made.message);
  if (made.faults.length > 0) throw new CliFault(file, "", made.faults.join(" "));
  return FORMATS[format as keyof typeof FORMATS](made.piece);
}

/** `--taper FIRST:LAST:LENGTH` and what belongs to it, or `--marked`. */
function shapeIn(words: PartWords): PartShape {
  const turnsBy = words.turnsBy === undefined ? null : length(words.turnsBy, "--turns-by");
  if (words.taper === undefined) {
    if (words.marked === undefined) throw new CliFault("", "--marked", "Say how thick the part is, or give a --taper.");
    const markedMm = length(words.marked, "--marked");
    return { kind: "straight", markedMm, turnsByMm: turnsBy ?? markedMm };
  }
  const sizes = words.taper.split(":");
  if (sizes.length !== 3)
    throw new CliFault("", "--taper", "Say how thick both ends are and how far apart, for example 60:75.7:90.");
  const [firstMm, lastMm, lengthMm] = sizes.map((text) => length(text, "--taper")) as [number, number, number];
  if (turnsBy === null) throw new CliFault("", "--turns-by", "Say by which diameter the machine turns it.");
  const { lay = "label", level = "side" } = words;
  oneOf(lay, LAYS, "--lay");
  oneOf(level, LEVELS, "--level");
  const beginsMm = words.begins === undefined ? 0 : length(words.begins, "--begins", 0);
  return {
    kind: "taper",
    firstMm,
    lastMm,
    lengthMm,
    turnsByMm: turnsBy,
    beginsMm,
    lay: lay as Lay,
    level: level as Level,
  };
}

function oneOf(word: string, of: object, name: string): void {
  if (!Object.hasOwn(of, word)) throw new CliFault("", name, `Choose one of ${Object.keys(of).join(", ")}.`);
}

const length = (text: string, name: string, least?: 0) => quantity(text, name, "length", "mm", least);
const number = (text: string, name: string) => quantity(text, name, "ratio", "one");

function quantity(text: string, name: string, dimension: Dimension, unit: UnitId, least?: 0): number {
  const read = parseReading(text, dimension, unit);
  if (!read.ok) throw new CliFault("", name, read.message);
  if (least === undefined && !(read.value > 0)) throw new CliFault("", name, "It must be larger than 0.");
  return read.value;
}
