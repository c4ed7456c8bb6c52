/** The same core from a terminal: `npm run -s ustrina -- VERB …`. Status 0, or 2 with one line on what is wrong where. */
import { parseArgs } from "node:util";
import { PROCEDURES } from "../core/course/registry";
import { TABLE_SIZES } from "../core/procedures/field/table-form";
import { PAPERS, type Paper } from "../formats/paper/sheet-page";
import { adapted } from "./adapt";
import { backup, restore } from "./backup";
import { burn, pictureOf } from "./burn";
import { check } from "./check";
import { CliFault } from "./cli-fault";
import { COUPON_FORMATS, type CouponFormat, coupon, sites } from "./coupon";
import { loadDocument, saveDocument, saveFile } from "./document-file";
import { bentFile, tableFile } from "./field-table";
import { slotToDraw } from "./fit";
import { forecast } from "./forecast";
import { developed, type PartWords, roundPart } from "./part";
import { plan } from "./plan";
import { readFrom } from "./read-picture";
import { results, solve } from "./solve";
import { take } from "./take";

const USAGE = `Ustrina: laser machine corrections from burned and measured test pieces.

  procedures                                             what can be calibrated
  plan PROCEDURE --machine FILE                          a trial document to start from
  sites TRIAL                                            where to measure, as CSV
  coupon TRIAL --format ${COUPON_FORMATS.join("|")} [--round N] [--piece N] [--paper a4|letter] [-o FILE]
                                                         the piece to burn; csv: a sheet for its readings; pdf: its run sheet
  burn TRIAL --practice FILE --seed N [--next] [--picture FILE --dpi N [--site ID]] [-o FILE]
                                                         burn and read it on a practice machine; picture: a scan as PNG;
                                                         site: which of the scans of a grid
  take TRIAL --sheet FILE [--sure] [-o FILE]             readings of the last round from a filled sheet (CSV)
  read TRIAL --picture FILE [--dpi N] [--brighter] [--site ID]
       [--white X,Y --grey X,Y] [-o FILE]
                                                         what a scan of the last round shows, as CSV; site: it shows that one alone;
                                                         of a grid of dots or an array: a sheet to take; white, grey:
                                                         the cards of a colour scan, pixels
  forecast TRIAL                                         what the last layout will be able to tell, before its readings: as JSON
  solve TRIAL                                            results, corrections, findings, verdict, next: as JSON
  results TRIAL                                          the same as CSV
  fit TRIAL --thickness "2.96 3.01" [--fit loose|sliding|snug|press] [--width W] [--interference I] [--compensated]
                                                         the slot to draw for a part, by the kerf of a trial: as JSON
  adapt DRAWING --offset LENGTH [--slots FROM:TO] [--uncut LAYERS] [--chord LENGTH] [--unit UNIT]
                [--format svg|dxf] [-o FILE]             an SVG or DXF whose outlines make up for the kerf
  table TRIAL [--nodes ${TABLE_SIZES.join("|")}] [--values add|command|take-off] [--order front-x|front-y|back-x|back-y]
        [--counts N] [--format csv|json] [-o FILE]       the correction table that a trial of a field makes
  bend DRAWING --table TRIAL [--at X:Y] [-o FILE]        an SVG or DXF bent the other way, by the field of a trial
  part --marked D [--turns-by D] | --taper D:D:LENGTH --turns-by D  [--drive roller|chuck] [--steps N] [--roller D]
       [--most-steps N] [--artwork LENGTH]               around a round part, a step of its drive, how fast: as JSON
  develop DRAWING --marked D [--turns-by D] | --taper D:D:LENGTH --turns-by D [--begins LENGTH] [--lay label|rim]
          [--level side|axis]  [--around x|y] [--chord LENGTH] [--unit UNIT] [--format svg|dxf] [-o FILE]
                                                         an SVG or DXF made for a round part
  check FILE [--machine FILE]                            whether a file can be read; G-code as that machine takes it
  backup [FILE]                                          the whole bench as one file, checked, also while it is in use
  restore FILE                                           a backup in the place of the bench, which is kept as a backup

TRIAL and FILE are described in docs/formats.md; examples/ holds some.
`;

const USUAL_DPI = 600;

const PART_OPTIONS = {
  marked: { type: "string" },
  "turns-by": { type: "string" },
  taper: { type: "string" },
  begins: { type: "string" },
  lay: { type: "string" },
  level: { type: "string" },
  around: { type: "string" },
  drive: { type: "string" },
  steps: { type: "string" },
  roller: { type: "string" },
  "most-steps": { type: "string" },
  artwork: { type: "string" },
} as const;

const OPTIONS = {
  machine: { type: "string" },
  format: { type: "string" },
  output: { type: "string", short: "o" },
  practice: { type: "string" },
  seed: { type: "string" },
  round: { type: "string" },
  piece: { type: "string" },
  next: { type: "boolean" },
  paper: { type: "string" },
  sheet: { type: "string" },
  sure: { type: "boolean" },
  picture: { type: "string" },
  dpi: { type: "string" },
  brighter: { type: "boolean" },
  white: { type: "string" },
  grey: { type: "string" },
  site: { type: "string" },
  thickness: { type: "string" },
  fit: { type: "string" },
  width: { type: "string" },
  interference: { type: "string" },
  compensated: { type: "boolean" },
  offset: { type: "string" },
  slots: { type: "string" },
  uncut: { type: "string" },
  chord: { type: "string" },
  unit: { type: "string" },
  nodes: { type: "string" },
  values: { type: "string" },
  order: { type: "string" },
  counts: { type: "string" },
  table: { type: "string" },
  at: { type: "string" },
  ...PART_OPTIONS,
} as const;

/** @returns what goes to standard output */
export async function ustrina(args: readonly string[]): Promise<string | Buffer> {
  const { verb, file, values } = read(args);
  switch (verb) {
    case "procedures":
      return PROCEDURES.map((p) => `${p.id.padEnd(16)} ${p.title}: ${p.summary} (${p.machineKinds.join(", ")})\n`).join(
        "",
      );
    case "plan":
      return plan(needed(file, "procedure"), needed(values.machine, "--machine"));
    case "sites":
      return sites(needed(file, "trial"), loadDocument(needed(file, "trial")));
    case "coupon": {
      const trial = needed(file, "trial");
      const round = whole(values.round, "--round", 0);
      const made = await coupon(trial, loadDocument(trial), format(values.format), round, {
        paper: paper(values.paper),
        piece: whole(values.piece, "--piece", 1),
      });
      return values.output ? saved(values.output, () => saveFile(values.output ?? "", made)) : made;
    }
    case "burn": {
      const trial = needed(file, "trial");
      const seed = whole(needed(values.seed, "--seed"), "--seed", 0);
      const burned = burn(
        trial,
        loadDocument(trial),
        needed(values.practice, "--practice"),
        seed,
        values.next ?? false,
      );
      if (values.picture) {
        const dpi = whole(values.dpi, "--dpi", USUAL_DPI);
        saveFile(values.picture, await pictureOf(burned, dpi, values.site ?? ""));
      }
      const to = values.output ?? trial;
      return saved(to, () => saveDocument(to, burned.document));
    }
    case "take": {
      const trial = needed(file, "trial");
      const taken = take(trial, loadDocument(trial), needed(values.sheet, "--sheet"), values.sure ?? false);
      const to = values.output ?? trial;
      return saved(to, () => saveDocument(to, taken));
    }
    case "read": {
      const trial = needed(file, "trial");
      const made = await readFrom(trial, loadDocument(trial), needed(values.picture, "--picture"), {
        dpi: whole(values.dpi, "--dpi", 0),
        brighter: values.brighter ?? false,
        cards: { white: values.white ?? "", grey: values.grey ?? "" },
        site: values.site ?? null,
      });
      return values.output ? saved(values.output, () => saveFile(values.output ?? "", made)) : made;
    }
    case "results":
      return results(needed(file, "trial"), loadDocument(needed(file, "trial")));
    case "forecast":
      return forecast(needed(file, "trial"), loadDocument(needed(file, "trial")));
    case "solve":
      return solve(needed(file, "trial"), loadDocument(needed(file, "trial")));
    case "fit": {
      const trial = needed(file, "trial");
      const { fit: kind, width, interference, compensated = false } = values;
      const thickness = needed(values.thickness, "--thickness");
      return slotToDraw(trial, loadDocument(trial), {
        thickness,
        compensated,
        ...(kind === undefined ? {} : { kind }),
        ...(width === undefined ? {} : { width }),
        ...(interference === undefined ? {} : { interference }),
      });
    }
    case "adapt": {
      const { chord, slots, uncut, unit, format: as, output } = values;
      const made = adapted(needed(file, "drawing"), {
        offset: needed(values.offset, "--offset"),
        ...(chord === undefined ? {} : { chord }),
        ...(slots === undefined ? {} : { slots }),
        ...(uncut === undefined ? {} : { uncut }),
        ...(unit === undefined ? {} : { unit }),
        ...(as === undefined ? {} : { format: as }),
      });
      return output ? saved(output, () => saveFile(output, made)) : made;
    }
    case "table": {
      const trial = needed(file, "trial");
      const { nodes, values: kind, order, counts, format: as, output } = values;
      const made = tableFile(trial, loadDocument(trial), { nodes, values: kind, order, counts, format: as });
      return output ? saved(output, () => saveFile(output, made)) : made;
    }
    case "bend": {
      const trial = needed(values.table, "--table");
      const made = bentFile(needed(file, "drawing"), trial, loadDocument(trial), values.at ?? "0:0");
      return values.output ? saved(values.output, () => saveFile(values.output ?? "", made)) : made;
    }
    case "part":
      return roundPart(partWords(values));
    case "develop": {
      const made = developed(needed(file, "drawing"), partWords(values));
      return values.output ? saved(values.output, () => saveFile(values.output ?? "", made)) : made;
    }
    case "check":
      return check(needed(file, "file"), values.machine);
    case "backup":
      return backup(file, Date.now());
    case "restore":
      return restore(needed(file, "backup"), Date.now());
    case "":
    case "help":
      return USAGE;
    default:
      throw new CliFault("", verb, "There is no such verb. Without one, all are listed.");
  }
}

function read(args: readonly string[]) {
  try {
    const { positionals, values } = parseArgs({ args: [...args], options: OPTIONS, allowPositionals: true });
    const [verb = "", file, ...more] = positionals;
    if (more.length > 0) throw new CliFault("", more[0] ?? "", "This is one word too many.");
    return { verb, file, values };
  } catch (error) {
    if (error instanceof CliFault) throw error;
    throw new CliFault("", "", error instanceof Error ? error.message : "The words cannot be read.");
  }
}

function needed(value: string | undefined, name: string): string {
  if (value === undefined || value === "") throw new CliFault("", name, "This is missing.");
  return value;
}

/** What was said of a round part. */
function partWords({ "turns-by": turnsBy, "most-steps": mostSteps, ...values }: Record<string, unknown>): PartWords {
  const words: Record<string, unknown> = { ...values, turnsBy, mostSteps };
  return Object.fromEntries(Object.entries(words).filter(([, word]) => typeof word === "string"));
}

function whole(text: string | undefined, name: string, missing: number): number {
  if (text === undefined) return missing;
  if (!/^\d{1,9}$/.test(text)) throw new CliFault("", name, `“${text}” is no whole number.`);
  return Number(text);
}

function format(text: string | undefined): CouponFormat {
  const found = COUPON_FORMATS.find((f) => f === text);
  if (!found) throw new CliFault("", "--format", `Choose one of ${COUPON_FORMATS.join(", ")}.`);
  return found;
}

function paper(text = "a4"): Paper {
  if (!Object.hasOwn(PAPERS, text))
    throw new CliFault("", "--paper", `Choose one of ${Object.keys(PAPERS).join(", ")}.`);
  return text as Paper;
}

function saved(file: string, save: () => void): string {
  save();
  return `${file}\n`;
}

if (import.meta.url === `file://${process.argv[1]}`) {
  ustrina(process.argv.slice(2)).then(
    (out) => process.stdout.write(out),
    (error) => {
      if (!(error instanceof CliFault)) throw error;
      process.stderr.write(`${error.line}\n`);
      process.exitCode = 2;
    },
  );
}
