/** Eight who read and solve at once for a minute, and what the server holds in memory over ten thousand requests. */
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { z } from "zod";
import { type Database, openDatabase } from "../../src/data/database";
import { documentText } from "../../src/formats/json-document";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { loadDocument } from "../../src/server/trial/load-document";
import { trialDocument } from "../../src/server/trial/trial-document";
import { fullTrial, historyOf } from "../../src/server/trial/trial-record";
import { beginTrial, markBurned, openSession } from "../../src/server/trial/trial-steps";
import { below, exactly, type Line } from "./line";
import { act, type BenchServer, startServer } from "./server";

const PORT = 4884;
const READERS = 8;
const MINUTE_MS = 60_000;
/** Four readings a second each: faster than anybody types. */
const PACE_MS = 250;
const [WARM, REQUESTS] = [3000, 10_000];
const ROUND = 20;
/** A small heap is cleared often: what grows in it is held, not merely left for later. */
const HEAP_MB = 170;

type Reader = { trialId: number; sites: string[]; solve: () => void };

export async function load(): Promise<Line[]> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-load-"));
  const file = path.join(folder, "bench.sqlite");
  const db = openDatabase(file);
  const readers = layOut(db);
  db.$client.close();
  try {
    return [
      ...(await served(await startServer(file, PORT), (server) => minute(server, readers))),
      ...(await served(await startServer(file, PORT, HEAP_MB), (server) => memory(server, readers))),
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function served(server: BenchServer, measure: (server: BenchServer) => Promise<Line[]>): Promise<Line[]> {
  try {
    return await measure(server);
  } finally {
    server.stop();
    await server.ended;
  }
}

/** Each reads a trial of its own, on a machine of its own. */
function layOut(db: Database): Reader[] {
  const now = Date.now();
  addDemoBench(db, now);
  const document = trialDocument(db, 1);
  return Array.from({ length: READERS }, (_, i) => {
    const machine = { ...document.machine, name: `Machine ${i + 1}` };
    loadDocument(db, documentText({ ...document, code: `M-${i + 1}`, machine }), now);
    const trialId = beginTrial(db, `machine-${i + 1}`, "scan-offset", now);
    markBurned(db, trialId, 1, now);
    openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, now);
    const full = fullTrial(db, trialId);
    // As the page does beside the readings: what has been read till then.
    const solved = fullTrial(db, 2);
    const history = historyOf(solved, 1);
    return {
      trialId,
      sites: full.rounds[0]?.spec?.sites.map((s) => s.id) ?? [],
      solve: () => void solved.procedure.solve(history),
    };
  });
}

/** @returns how long the answer took, ms, and the id of the reading */
async function take(
  server: BenchServer,
  { trialId, sites }: Reader,
  count: number,
): Promise<{ ms: number; id: number }> {
  const input = {
    trialId,
    n: 1,
    site: sites[count % sites.length],
    from: "typed",
    clientKey: `load-${trialId}-${count}`,
    input: { kind: "quantity", text: `0.${100 + ((count * 7) % 400)}`, words: "positive", unit: "mm" },
  };
  const began = performance.now();
  const taken = z.object({ id: z.number() }).parse(await act(server, `/trial/${trialId}/read`, "takeReading", input));
  return { ms: performance.now() - began, id: taken.id };
}

async function asked({ origin }: BenchServer, address: string): Promise<void> {
  const answer = await fetch(origin + address);
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${address}: ${answer.status}`);
}

async function minute(server: BenchServer, readers: readonly Reader[]): Promise<Line[]> {
  const end = performance.now() + MINUTE_MS;
  const taken: number[] = [];
  let errors = 0;
  const tried = async <T>(ask: () => Promise<T>): Promise<T | undefined> => {
    try {
      return await ask();
    } catch (error) {
      errors++;
      console.error(error);
    }
  };
  await Promise.all(
    readers.map(async (reader, i) => {
      await until(performance.now() + (i * PACE_MS) / READERS);
      for (let k = 0; performance.now() < end; k++) {
        const next = performance.now() + PACE_MS;
        const reading = await tried(() => take(server, reader, k));
        if (reading) taken.push(reading.ms);
        reader.solve();
        if (k % 6 === 0) await tried(() => asked(server, `/api/trials/${reader.trialId}/stamp`));
        if (k % 40 === 39) await tried(() => asked(server, `/trial/${reader.trialId}/correct`));
        await until(next);
      }
    }),
  );
  taken.sort((a, b) => a - b);
  const what = `${READERS} who read, solve and look at once for a minute, a reading every ${PACE_MS} ms each`;
  return [
    { what: `${what}: 95 % of ${taken.length} readings are taken within`, ...below(quantile(taken, 0.95), 150, "ms") },
    { what: "the same, half of them within", ...below(quantile(taken, 0.5), 75, "ms") },
    { what: "the same, errors", ...exactly(errors, 0) },
  ];
}

/** Twenty requests as people make them: a reading, taken back at the end, so that the bench does not grow; pages, a file, stamps. */
async function round(server: BenchServer, reader: Reader, count: number): Promise<void> {
  const { trialId } = reader;
  const page = `/trial/${trialId}/read`;
  const { id } = await take(server, reader, 100_000 + count);
  for (const address of ["/", page, "/ledger", "/api/trials/1/rounds/1/coupon.nc"]) await asked(server, address);
  for (let i = 0; i < ROUND - 6; i++) await asked(server, `/api/trials/${trialId}/stamp`);
  await act(server, page, "undoReading", { trialId, n: 1, readingId: id });
}

async function memory(server: BenchServer, readers: readonly Reader[]): Promise<Line[]> {
  /** After so many requests, in MB. */
  const resident: { count: number; mb: number }[] = [];
  let count = 0;
  await Promise.all(
    readers.map(async (reader) => {
      while (count < WARM + REQUESTS) {
        count += ROUND;
        await round(server, reader, count);
        resident.push({ count, mb: residentMb(server.pid) });
      }
    }),
  );
  // Each window of a quarter of the requests: the least is what is left after the garbage was taken out.
  const least = (from: number, to: number) =>
    Math.min(...resident.filter((r) => r.count > from && r.count <= to).map((r) => r.mb));
  const first = least(WARM, WARM + REQUESTS / 4);
  const last = least(WARM + (3 * REQUESTS) / 4, WARM + REQUESTS);
  return [
    {
      what: `memory of the server over ${REQUESTS.toLocaleString("en")} requests, its heap held to ${HEAP_MB} MB: last quarter by first (${first.toFixed(0)} MB)`,
      ...below(last / first, 1.1, "times"),
    },
  ];
}

function residentMb(pid: number): number {
  return Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? Number.NaN) / 1000;
}

function until(moment: number): Promise<void> {
  return new Promise((done) => setTimeout(done, Math.max(0, moment - performance.now())));
}

function quantile(sorted: readonly number[], q: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? Number.NaN;
}
