/** A server of a test's own, on a bench of its own, to be killed and started again. */
import { type ChildProcess, spawn } from "node:child_process";
import { copyFileSync, mkdirSync, rmSync } from "node:fs";
import path from "node:path";
import { DEMO_BENCH } from "./lay-out-demo";

export type OwnServer = {
  origin: string;
  database: string;
  /** Everything it has printed. */
  printed: () => string;
  start: (env?: Record<string, string>) => Promise<void>;
  kill: () => Promise<void>;
};

/** @param bench what is on it at first */
export function ownServer(port: number, folder: string, bench: "demo" | "empty"): OwnServer {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const database = path.join(folder, "bench.sqlite");
  if (bench === "demo") copyFileSync(DEMO_BENCH, database);
  let child: ChildProcess | null = null;
  let printed = "";
  return {
    origin: `http://127.0.0.1:${port}`,
    database,
    printed: () => printed,
    async start(env = {}) {
      const { USTRINA_HOST: host = "127.0.0.1", ...rest } = env;
      const started = spawn(process.execPath, ["--import", "tsx", "scripts/serve.ts", host, String(port)], {
        env: {
          ...process.env,
          NODE_ENV: "production" as const,
          NEXT_TELEMETRY_DISABLED: "1",
          USTRINA_DATABASE: database,
          USTRINA_MADE_UP: "1",
          ...rest,
        },
      });
      child = started;
      started.stderr.on("data", (data) => {
        printed += data;
      });
      await new Promise<void>((done, failed) => {
        started.stdout.on("data", (data) => {
          printed += data;
          if (String(data).includes("Ready")) done();
        });
        started.on("exit", () => failed(new Error(`the server did not start: ${printed}`)));
      });
    },
    async kill() {
      const running = child;
      child = null;
      if (!running || running.exitCode !== null) return;
      const gone = new Promise((done) => running.once("exit", done));
      running.kill("SIGKILL");
      await gone;
    },
  };
}
