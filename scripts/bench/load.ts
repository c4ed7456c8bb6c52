/** Eight who read and solve at once for a minute, and what the server holds in memory over ten thousand requests. */
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Database, openDatabase } from "../../src/data/database";
import { documentText } from "../../src/formats/json-document";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { loadDocument } from "../../src/server/trial/load-document";
import { trialDocument } from "../../src/server/trial/trial-document";
import { fullTrial, historyOf } from "../../src/server/trial/trial-record";
import { beginTrial, markBurned, openSession } from "../../src/server/trial/trial-steps";
import { below, exactly, type Line } from "./line";
import { act, actionIds, type BenchServer, startServer } from "./server";

const PORT = 4884;
const READERS = 8;
const MINUTE_MS = 60_000;
/** Four readings a second each: faster than anybody types. */
const PACE_MS = 250;
const [WARM, REQUESTS] = [3000, 10_000];

type Reader = { trialId: number; sites: string[]; solve: () => void };

export async function load(): Promise<Line[]> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-load-"));
  const file = path.join(folder, "bench.sqlite");
  const db = openDatabase(file);
  const readers = layOut(db);
  db.$client.close();
  const server = await startServer(file, PORT);
  try {
    return [...(await minute(server, readers)), ...(await memory(server, readers))];
  } finally {
    server.stop();
    rmSync(folder, { recursive: true, force: true });
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
    const solved = fullTrial(db, 1);
    const history = historyOf(solved, 1);
    return {
      trialId,
      sites: full.rounds[0]?.spec?.sites.map((s) => s.id) ?? [],
      solve: () => void solved.procedure.solve(history),
    };
  });
}

/** @returns how long the answer took, ms */
async function take(server: BenchServer, { trialId, sites }: Reader, id: string, count: number): Promise<number> {
  const input = {
    ...{ trialId, n: 1, site: sites[count % sites.length], from: "typed", clientKey: `load-${trialId}-${count}` },
    input: { kind: "quantity", text: `0.${100 + ((count * 7) % 400)}`, words: "positive", unit: "mm" },
  };
  const began = performance.now();
  const said = await act(server, `/trial/${trialId}/read`, id, input);
  if (!said.includes('"ok":true')) throw new Error(`a reading was not taken: ${said.slice(0, 200)}`);
  return performance.now() - began;
}

async function asked({ origin }: BenchServer, address: string): Promise<void> {
  const answer = await fetch(origin + address);
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${address}: ${answer.status}`);
}

async function minute(server: BenchServer, readers: readonly Reader[]): Promise<Line[]> {
  const id = actionIds().get("takeReading") ?? "";
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
        const ms = await tried(() => take(server, reader, id, k));
        if (ms !== undefined) taken.push(ms);
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

/** In the order in which people go about: the bench, a trial, its stamp, a file, now and then a reading. */
async function memory(server: BenchServer, readers: readonly Reader[]): Promise<Line[]> {
  const id = actionIds().get("takeReading") ?? "";
  const resident: number[] = [];
  let count = 0;
  const one = async (reader: Reader) => {
    const k = count++;
    if (k % 20 === 0) await take(server, reader, id, 100_000 + k);
    else if (k % 20 === 1) await asked(server, "/");
    else if (k % 20 === 2) await asked(server, `/trial/${reader.trialId}/read`);
    else if (k % 20 === 3) await asked(server, "/ledger");
    else if (k % 20 === 4) await asked(server, "/api/trials/1/rounds/1/coupon.nc");
    else await asked(server, `/api/trials/${reader.trialId}/stamp`);
    if (k % 100 === 0) resident.push(residentMb(server.pid));
  };
  await Promise.all(
    readers.map(async (reader) => {
      while (count < WARM + REQUESTS) await one(reader);
    }),
  );
  // Each window of a quarter of the requests: the least is what is left after the garbage was taken out.
  const least = (from: number, to: number) => Math.min(...resident.slice(from / 100, to / 100));
  const first = least(WARM, WARM + REQUESTS / 4);
  const last = least(WARM + (3 * REQUESTS) / 4, WARM + REQUESTS);
  return [
    {
      what: `memory of the server over ${REQUESTS.toLocaleString("en")} requests: last quarter by first (${first.toFixed(0)} MB)`,
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
