/** Cards of stock as their pages show them. */
import type { Gauge } from "../../core/metrology/gauge";
import type { Thickness } from "../../core/stock/stock-at-hand";
import type { StockSpec } from "../../core/stock/stock-spec";
import type { StockResult } from "../../core/trial/outcome";
import type { Db } from "../../data/database";
import { gaugesAtHand } from "../../data/gauges";
import { soundOrNull } from "../../data/json-column";
import { allMachines, everyMachine } from "../../data/machines";
import { picturesOf } from "../../data/pictures";
import { roundsOf } from "../../data/rounds";
import {
  type Batch,
  batchesOf,
  batchKey,
  everyStock,
  type KeptResult,
  resultsOfBatch,
  type Stock,
  stockBySlug,
  type ThicknessReading,
  thicknessOfBatch,
  thicknessReadings,
} from "../../data/stocks";
import { type Trial, trialById, trialsOfMachine } from "../../data/trials";
import { machineRecord } from "../procedures/machine-record";
import { procedureState, type StockState } from "../procedures/procedure-state";
import { offeredProcedures } from "../procedures/procedures";
import { stocksOfTrials } from "../procedures/stocks-of-trials";
import { progressOf } from "../trial/trial-progress";
import { hasCellPicture } from "./cell-picture";

export type ResultView = {
  id: number;
  result: StockResult;
  keptAt: number;
  note: string;
  /** Label of the batch that it is of. */
  batch: string;
  isOldBatch: boolean;
  /** How it stands on its machine; `null` where it came from elsewhere. */
  standing: Pick<StockState, "state" | "reasons"> | null;
  machine: string | null;
  trial: { id: number; code: string; end: Trial["end"] } | null;
  /** Whether a picture may show its cell. */
  pictured: boolean;
};

export type StockRow = {
  slug: string;
  spec: StockSpec;
  archived: boolean;
  batch: string;
  begunAt: number | null;
  thickness: Thickness | null;
  results: ResultView[];
};

export type BatchView = Batch & { key: string; thickness: Thickness | null; readings: ThicknessReading[] };

export type StockTrial = {
  id: number;
  code: string;
  title: string;
  machine: string;
  batch: string;
  begunAt: number;
  end: Trial["end"];
  /** How many pictures of it there are. */
  pictures: number;
};

export type StockView = {
  slug: string;
  spec: StockSpec;
  archived: boolean;
  /** Newest first. */
  batches: BatchView[];
  results: ResultView[];
  trials: StockTrial[];
  gauges: Gauge[];
  /** What can be measured of it, and on which machines. */
  offered: { procedure: string; title: string; machines: { slug: string; name: string }[] }[];
};

/** Those in use first, by name. */
export function stockList(db: Db, now: number): StockRow[] {
  const standingOf = standings(db, now);
  const rows = everyStock(db).map((stock): StockRow => {
    const batches = batchesOf(db, stock.id);
    const [newest] = batches;
    return {
      slug: stock.slug,
      spec: stock.spec,
      archived: stock.archivedAt !== null,
      batch: newest?.label ?? "",
      begunAt: newest?.begunAt ?? null,
      thickness: newest ? thicknessOfBatch(db, newest.id) : null,
      results: resultsOf(db, stock, batches, standingOf),
    };
  });
  return rows.sort((a, b) => Number(a.archived) - Number(b.archived) || a.spec.name.localeCompare(b.spec.name));
}

/** `undefined` where there is no such card. */
export function stockName(db: Db, slug: string): string | undefined {
  return stockBySlug(db, slug)?.spec.name;
}

/** `null` where there is no such card. */
export function stockView(db: Db, slug: string, now: number): StockView | null {
  const stock = stockBySlug(db, slug);
  if (!stock) return null;
  const batches = batchesOf(db, stock.id);
  return {
    slug,
    spec: stock.spec,
    archived: stock.archivedAt !== null,
    batches: batches.map((b) => ({
      ...b,
      key: batchKey(slug, b.label),
      thickness: thicknessOfBatch(db, b.id),
      readings: thicknessReadings(db, b.id),
    })),
    results: resultsOf(db, stock, batches, standings(db, now)),
    trials: trialsOn(db, stock, batches),
    gauges: gaugesAtHand(db),
    offered: offeredOn(db),
  };
}

function resultsOf(db: Db, { slug }: Stock, batches: readonly Batch[], standingOf: StandingOf): ResultView[] {
  const names = new Map(everyMachine(db).map((m) => [m.id, m.spec.name]));
  return batches.flatMap((batch, i) =>
    resultsOfBatch(db, batch.id).map((kept): ResultView => {
      const trial = kept.trialId === null ? undefined : trialById(db, kept.trialId);
      return {
        id: kept.id,
        result: kept.result,
        keptAt: kept.keptAt,
        note: kept.note,
        batch: batch.label,
        isOldBatch: i > 0,
        machine: machineOf(kept, names),
        standing:
          kept.machineId === null
            ? null
            : standingOf(kept.machineId, trial?.procedure ?? PROCEDURE_OF[kept.result.kind], slug),
        trial: trial ? { id: trial.id, code: trial.code, end: trial.end } : null,
        pictured: hasCellPicture(db, kept),
      };
    }),
  );
}

/** For results from another bench. */
const PROCEDURE_OF = { kerf: "kerf", marking: "test-array" } as const;

type StandingOf = (machineId: number, procedure: string, card: string) => ResultView["standing"];

/** How a result stands: as the procedure that it comes from. Each machine is worked out once, for all of its stocks. */
function standings(db: Db, now: number): StandingOf {
  const known = new Map<string, readonly StockState[]>();
  return (machineId, kind, card) => {
    const key = `${machineId} ${kind}`;
    const states = known.get(key) ?? stockStatesOn(db, machineId, kind, now);
    known.set(key, states);
    const own = states.find((s) => s.card === card);
    return own ? { state: own.state, reasons: own.reasons } : null;
  };
}

function stockStatesOn(db: Db, machineId: number, kind: string, now: number): readonly StockState[] {
  const machine = everyMachine(db).find((m) => m.id === machineId);
  const procedure = machine && offeredProcedures(machine.spec.kind).find((p) => p.id === kind);
  if (!machine || !procedure) return [];
  const seen = { now, length: "mm" } as const;
  // A machine with damaged data has no state.
  const state = soundOrNull(() =>
    procedureState(machineRecord(db, machine), procedure, (id) => progressOf(db, id), seen),
  );
  return state?.stocks ?? [];
}

/** What came from elsewhere names its machine in its conditions. */
function machineOf({ machineId, result }: KeptResult, names: ReadonlyMap<number, string>): string | null {
  const own = machineId === null ? undefined : names.get(machineId);
  return own ?? result.conditions.find((c) => c.label === "Machine")?.text ?? null;
}

function trialsOn(db: Db, stock: Stock, batches: readonly Batch[]): StockTrial[] {
  const labels = new Map(batches.map((b) => [batchKey(stock.slug, b.label), b.label]));
  return everyMachine(db)
    .flatMap((machine) => {
      const procedures = offeredProcedures(machine.spec.kind).filter((p) => p.stock);
      const trials = procedures.length > 0 ? trialsOfMachine(db, machine.id) : [];
      return procedures.flatMap((procedure) => {
        const stockOf = stocksOfTrials(db, machine.id, procedure);
        return trials.flatMap((t): StockTrial[] => {
          const batch = t.procedure === procedure.id ? labels.get(stockOf(t.id)) : undefined;
          if (batch === undefined) return [];
          const pictures = roundsOf(db, t.id).reduce((sum, r) => sum + picturesOf(db, r.id).length, 0);
          return [
            {
              id: t.id,
              code: t.code,
              title: procedure.title,
              machine: machine.spec.name,
              batch,
              begunAt: t.begunAt,
              end: t.end,
              pictures,
            },
          ];
        });
      });
    })
    .sort((a, b) => b.begunAt - a.begunAt);
}

function offeredOn(db: Db): StockView["offered"] {
  const machines = allMachines(db);
  const procedures = machines.flatMap((m) => offeredProcedures(m.spec.kind).filter((p) => p.stock));
  return procedures
    .filter((p, i) => procedures.findIndex((other) => other.id === p.id) === i)
    .map(({ id, title, machineKinds }) => ({
      procedure: id,
      title,
      machines: machines
        .filter((m) => machineKinds.includes(m.spec.kind))
        .map((m) => ({ slug: m.slug, name: m.spec.name })),
    }));
}
