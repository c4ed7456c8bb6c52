/**
 * The tables. Times are milliseconds since 1970 (UTC). JSON columns are parsed by the schema of their type on reading.
 *
 * Readings, solutions, verdicts and ledger entries are only ever added: what was true then stays readable.
 */
import { sql } from "drizzle-orm";
import { blob, check, index, integer, real, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";
import { TRIAL_ENDS } from "../core/trial/trial-end";

const jsonNames = new Set<string>();
/** Names of the columns that hold JSON. */
export const JSON_COLUMNS: ReadonlySet<string> = jsonNames;

/** A column of JSON, parsed by the schema of its type on reading. */
function json(name: string) {
  jsonNames.add(name);
  return text(name);
}

const id = () => integer("id").primaryKey({ autoIncrement: true });
const at = (name: string) => integer(name).notNull();

export const machine = sqliteTable("machine", {
  id: id(),
  /** Address part and stable key. */
  slug: text("slug").notNull().unique(),
  createdAt: at("created_at"),
  archivedAt: integer("archived_at"),
});

export const machineRevision = sqliteTable(
  "machine_revision",
  {
    id: id(),
    machineId: integer("machine_id")
      .notNull()
      .references(() => machine.id),
    /** machineSpecSchema */
    spec: json("spec").notNull(),
    from: at("valid_from"),
  },
  (t) => [index("machine_revision_of").on(t.machineId, t.from)],
);

/** What can be fitted to a machine: an optic or a rotary. */
export const part = sqliteTable("part", {
  id: id(),
  kind: text("kind", { enum: ["optic", "rotary"] })
    .notNull()
    .default("optic"),
  label: text("label").notNull().unique(),
  archivedAt: integer("archived_at"),
});

export const partRevision = sqliteTable("part_revision", {
  id: id(),
  partId: integer("part_id")
    .notNull()
    .references(() => part.id),
  /** opticSpecSchema or rotarySpecSchema */
  spec: json("spec").notNull(),
  from: at("valid_from"),
});

/** What is fitted to a machine, from when to when. */
export const fitting = sqliteTable(
  "fitting",
  {
    id: id(),
    machineId: integer("machine_id")
      .notNull()
      .references(() => machine.id),
    partId: integer("part_id")
      .notNull()
      .references(() => part.id),
    from: at("fitted_from"),
    to: integer("fitted_to"),
  },
  (t) => [index("fitting_of").on(t.machineId, t.from)],
);

/** A place that keeps a copy of the settings of a machine. */
export const holder = sqliteTable(
  "holder",
  {
    id: id(),
    machineId: integer("machine_id")
      .notNull()
      .references(() => machine.id),
    name: text("name").notNull(),
    /** `controller` acts on burns; `copy` must be kept in step by hand; `ustrina` is the table in Ustrina's own G-code. */
    role: text("role", { enum: ["controller", "copy", "ustrina"] }).notNull(),
    /** No longer kept in step; what it held stays in the ledger. */
    archivedAt: integer("archived_at"),
  },
  (t) => [uniqueIndex("holder_name").on(t.machineId, t.name)],
);

export const gauge = sqliteTable("gauge", {
  id: id(),
  key: text("key").notNull().unique(),
  archivedAt: integer("archived_at"),
});

/** A gauge was found wrong: what was read with it since it was last known to be right means nothing. */
export const gaugeFault = sqliteTable("gauge_fault", {
  id: id(),
  gaugeId: integer("gauge_id")
    .notNull()
    .references(() => gauge.id),
  note: text("note").notNull(),
  /** Readings from this moment up to the finding may be wrong; `null` = all readings up to the finding. */
  since: integer("wrong_since"),
  at: at("found_at"),
  takenBackAt: integer("taken_back_at"),
});

export const gaugeRevision = sqliteTable("gauge_revision", {
  id: id(),
  gaugeId: integer("gauge_id")
    .notNull()
    .references(() => gauge.id),
  /** gaugeSchema */
  spec: json("spec").notNull(),
  from: at("valid_from"),
});

export const event = sqliteTable("event", {
  id: id(),
  machineId: integer("machine_id")
    .notNull()
    .references(() => machine.id),
  /** changeKindSchema */
  kind: text("kind").notNull(),
  note: text("note").notNull(),
  at: at("happened_at"),
  /** Noted by mistake; the row stays. */
  takenBackAt: integer("taken_back_at"),
});

/** Something set on purpose for a while, such as limits that are off, until it is put back. */
export const putBack = sqliteTable("put_back", {
  id: id(),
  machineId: integer("machine_id")
    .notNull()
    .references(() => machine.id),
  what: text("what").notNull(),
  openedAt: at("opened_at"),
  closedAt: integer("closed_at"),
  /** The burn for which it was set; null where a person noted it. */
  roundId: integer("round_id").references(() => round.id),
  /** The setting that was set otherwise, by its key, and what was in force before: null where it is none, or was not known. */
  setting: text("setting"),
  ledgerEntryId: integer("ledger_entry_id").references(() => ledgerEntry.id),
});

export const trial = sqliteTable(
  "trial",
  {
    id: id(),
    machineId: integer("machine_id")
      .notNull()
      .references(() => machine.id),
    procedure: text("procedure").notNull(),
    procedureVersion: integer("procedure_version").notNull(),
    machineRevisionId: integer("machine_revision_id")
      .notNull()
      .references(() => machineRevision.id),
    /** Burned on the coupon. */
    code: text("code").notNull().unique(),
    tolerance: real("tolerance").notNull(),
    /** Choices made while correcting, JSON of texts by key. */
    decisions: json("decisions").notNull(),
    begunAt: at("begun_at"),
    /** Set when the trial ended: proved, found holding by a check, or given up. */
    endedAt: integer("ended_at"),
    end: text("end", { enum: TRIAL_ENDS }),
  },
  (t) => [index("trial_of").on(t.machineId, t.procedure), check("trial_tolerance", sql`${t.tolerance} > 0`)],
);

export const round = sqliteTable(
  "round",
  {
    id: id(),
    trialId: integer("trial_id")
      .notNull()
      .references(() => trial.id),
    n: integer("n").notNull(),
    purpose: text("purpose", { enum: ["measure", "tune", "refine", "proof", "check"] }).notNull(),
    /** The plan as typed, JSON of texts by field: kept even while it cannot be parsed. */
    draft: json("draft").notNull(),
    /** The parsed plan, frozen with the spec at the burn. */
    plan: json("plan"),
    /** roundSpecSchema */
    spec: json("spec"),
    /** Settings in force during the burn, as the ledger had them, then as read back. */
    inForce: json("in_force"),
    readBackAt: integer("read_back_at"),
    burnedAt: integer("burned_at"),
    /** More readings asked for at some sites after the burn, JSON of counts by site. */
    more: json("more").notNull().default("{}"),
  },
  (t) => [uniqueIndex("round_n").on(t.trialId, t.n)],
);

/** One sitting with one gauge. */
export const session = sqliteTable("session", {
  id: id(),
  roundId: integer("round_id")
    .notNull()
    .references(() => round.id),
  gaugeRevisionId: integer("gauge_revision_id")
    .notNull()
    .references(() => gaugeRevision.id),
  /** What the closed jaws read, mm. */
  zeroOutsideMm: real("zero_outside_mm").notNull(),
  /** null = the inside jaws were not checked. */
  zeroInsideMm: real("zero_inside_mm"),
  begunAt: at("begun_at"),
});

export const reading = sqliteTable(
  "reading",
  {
    id: id(),
    roundId: integer("round_id")
      .notNull()
      .references(() => round.id),
    sessionId: integer("session_id")
      .notNull()
      .references(() => session.id),
    site: text("site").notNull(),
    /** As typed, with its unit. */
    raw: text("raw").notNull(),
    /** answerSchema */
    answer: json("answer").notNull(),
    /** Made by the page for each taking, so that sending twice takes once. */
    clientKey: text("client_key").notNull().unique(),
    /** The taking-back of this reading; the row itself stays. */
    takenBackAt: integer("taken_back_at"),
    takenAt: at("taken_at"),
  },
  // The newest moment of the bench is asked for with every reading.
  (t) => [index("reading_of").on(t.roundId, t.site), index("reading_taken").on(t.takenAt)],
);

/** A scan or a microscope shot of a burned coupon, decoded once: every reader receives the same bytes. */
export const picture = sqliteTable(
  "picture",
  {
    id: id(),
    roundId: integer("round_id")
      .notNull()
      .references(() => round.id),
    /** As the file was called; shown, never opened by it. */
    name: text("name").notNull(),
    /** Of the file as it came. */
    sha256: text("sha256").notNull(),
    width: integer("width").notNull(),
    height: integer("height").notNull(),
    /** Dots per inch that the file names; null where it names none. */
    xDpi: real("x_dpi"),
    yDpi: real("y_dpi"),
    /** pictureScaleSchema; null while it is not known. */
    scale: json("scale"),
    /** One byte a pixel, row by row from the top, deflated (zlib). */
    grey: blob("grey", { mode: "buffer" }).notNull(),
    /** The same in colour, reduced: three bytes a pixel, deflated; null where no colours are read. */
    rgb: blob("rgb", { mode: "buffer" }),
    rgbWidth: integer("rgb_width"),
    rgbHeight: integer("rgb_height"),
    addedAt: at("added_at"),
    takenBackAt: integer("taken_back_at"),
  },
  (t) => [index("picture_of").on(t.roundId)],
);

export const solution = sqliteTable("solution", {
  id: id(),
  roundId: integer("round_id")
    .notNull()
    .references(() => round.id),
  engineVersion: text("engine_version").notNull(),
  inputHash: text("input_hash").notNull(),
  /** outcomeSchema */
  result: json("result").notNull(),
  at: at("solved_at"),
});

export const verdict = sqliteTable("verdict", {
  id: id(),
  trialId: integer("trial_id")
    .notNull()
    .references(() => trial.id),
  roundId: integer("round_id")
    .notNull()
    .references(() => round.id),
  /** verdictSchema */
  result: json("result").notNull(),
  acceptedAt: at("accepted_at"),
});

export const ledgerEntry = sqliteTable(
  "ledger_entry",
  {
    id: id(),
    /** `machine:3`, `optic:1`, … */
    owner: text("owner").notNull(),
    setting: text("setting").notNull(),
    holderId: integer("holder_id").references(() => holder.id),
    /** settingValueSchema; null = not known. */
    value: json("value"),
    unit: text("unit").notNull(),
    /** Standard uncertainty, or of the worst row of a table; null where none is known. */
    u: real("u"),
    origin: text("origin", { enum: ["found", "trial", "hand", "restored"] }).notNull(),
    solutionId: integer("solution_id").references(() => solution.id),
    trialId: integer("trial_id").references(() => trial.id),
    readBack: integer("read_back", { mode: "boolean" }).notNull(),
    note: text("note").notNull(),
    at: at("entered_at"),
    /** Taken back within the undo; the row stays. */
    undoneAt: integer("undone_at"),
  },
  (t) => [index("ledger_by_setting").on(t.owner, t.setting, t.holderId, t.at)],
);

export const learned = sqliteTable("learned", {
  id: id(),
  owner: text("owner").notNull(),
  key: text("key").notNull(),
  value: real("value").notNull(),
  trialId: integer("trial_id")
    .notNull()
    .references(() => trial.id),
  at: at("learned_at"),
});

/** The simulated stand-in for a machine. */
export const practiceMachine = sqliteTable("practice_machine", {
  id: id(),
  machineId: integer("machine_id")
    .notNull()
    .unique()
    .references(() => machine.id),
  /** gantryTruthSchema: hidden until revealed. */
  truth: json("truth").notNull(),
  /** practiceControllerSchema */
  controller: json("controller").notNull(),
  revealedAt: integer("revealed_at"),
});

/** A file that was burned on a practice machine, and the marks it left. */
export const practiceBurn = sqliteTable("practice_burn", {
  id: id(),
  roundId: integer("round_id")
    .notNull()
    .references(() => round.id),
  file: text("file").notNull(),
  marks: json("marks").notNull(),
  at: at("burned_at"),
});

/** A kind of stock, on a card of its own. */
export const stock = sqliteTable("stock", {
  id: id(),
  /** Address part and stable key. */
  slug: text("slug").notNull().unique(),
  createdAt: at("created_at"),
  archivedAt: integer("archived_at"),
});

export const stockRevision = sqliteTable(
  "stock_revision",
  {
    id: id(),
    stockId: integer("stock_id")
      .notNull()
      .references(() => stock.id),
    /** stockSpecSchema */
    spec: json("spec").notNull(),
    from: at("valid_from"),
  },
  (t) => [index("stock_revision_of").on(t.stockId, t.from)],
);

/** One delivery of a stock: what was measured on another may not hold. */
export const batch = sqliteTable(
  "batch",
  {
    id: id(),
    stockId: integer("stock_id")
      .notNull()
      .references(() => stock.id),
    label: text("label").notNull(),
    begunAt: at("begun_at"),
  },
  (t) => [uniqueIndex("batch_label").on(t.stockId, t.label)],
);

/** How thick a batch is at one place, squeezed. */
export const thicknessReading = sqliteTable(
  "thickness_reading",
  {
    id: id(),
    batchId: integer("batch_id")
      .notNull()
      .references(() => batch.id),
    /** The line that it was typed in. */
    raw: text("raw").notNull(),
    valueMm: real("value_mm").notNull(),
    /** null = with what is not known. */
    gaugeRevisionId: integer("gauge_revision_id").references(() => gaugeRevision.id),
    /** Made by the page for each taking, so that sending twice takes once. */
    clientKey: text("client_key").notNull().unique(),
    takenAt: at("taken_at"),
    takenBackAt: integer("taken_back_at"),
  },
  (t) => [index("thickness_of").on(t.batchId)],
);

/** What a trial told of a batch, kept on its card. */
export const stockResult = sqliteTable(
  "stock_result",
  {
    id: id(),
    batchId: integer("batch_id")
      .notNull()
      .references(() => batch.id),
    /** null where it came with a file from another bench. */
    machineId: integer("machine_id").references(() => machine.id),
    trialId: integer("trial_id").references(() => trial.id),
    roundId: integer("round_id").references(() => round.id),
    solutionId: integer("solution_id").references(() => solution.id),
    /** stockResultSchema */
    result: json("result").notNull(),
    note: text("note").notNull(),
    keptAt: at("kept_at"),
    takenBackAt: integer("taken_back_at"),
  },
  (t) => [index("stock_result_of").on(t.batchId), index("stock_result_trial").on(t.trialId)],
);
