import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { openDatabase } from "../data/database";
import { addDemoBench } from "./demo-bench";
import { burnOnPractice } from "./practice-machine";
import { beginTrial, openSession } from "./trial-steps";

const KILLS = 5;
let folder: string;
let file: string;
let trialId: number;

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-kill-"));
  file = path.join(folder, "bench.sqlite");
  const db = openDatabase(file);
  addDemoBench(db, Date.now());
  trialId = beginTrial(db, "alder", "scan-offset", Date.now());
  burnOnPractice(db, trialId, 1, null, Date.now());
  openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, Date.now());
  db.$client.close();
});

afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Lets a server process take readings, kills it after some, and returns those it had said were on disk. */
function killedAfter(readings: number): Promise<string[]> {
  const child = spawn(
    process.execPath,
    ["node_modules/tsx/dist/cli.mjs", "src/server/kill-child.ts", file, String(trialId)],
    {
      detached: true,
    },
  );
  let said = "";
  return new Promise((resolve, reject) => {
    child.stderr.on("data", (data) => reject(new Error(String(data))));
    child.stdout.on("data", (data) => {
      said += data;
      if (said.split("\n").length > readings && child.pid) process.kill(-child.pid, "SIGKILL");
    });
    child.on("exit", () => resolve(said.split("\n").slice(0, -1)));
  });
}

describe("killing the server in the middle of a reading", () => {
  it("loses no reading that was said to be taken, and leaves no half-done one", async () => {
    const acknowledged: string[] = [];
    for (let i = 0; i < KILLS; i++) acknowledged.push(...(await killedAfter(20 + 13 * i)));
    const db = openDatabase(file);
    const keys = new Set(
      (db.$client.prepare("select client_key as k from reading").all() as { k: string }[]).map((r) => r.k),
    );
    expect(acknowledged.length).toBeGreaterThan(KILLS * 20);
    expect(acknowledged.filter((k) => !keys.has(k))).toEqual([]);
    expect(db.$client.pragma("integrity_check", { simple: true })).toBe("ok");
    expect(
      db.$client.prepare("select count(*) as n from reading where answer is null or json_valid(answer) = 0").get(),
    ).toEqual({ n: 0 });
    db.$client.close();
  });
});
