/** A server of a test's own, to be killed and started again. */
import { type ChildProcess, spawn } from "node:child_process";
import { rmSync } from "node:fs";

export type OwnServer = { origin: string; database: string; start: () => Promise<void>; kill: () => Promise<void> };

export function ownServer(port: number, folder: string): OwnServer {
  rmSync(folder, { recursive: true, force: true });
  const database = `${folder}/bench.sqlite`;
  let child: ChildProcess | null = null;
  return {
    origin: `http://127.0.0.1:${port}`,
    database,
    async start() {
      const started = spawn(
        process.execPath,
        ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(port)],
        { env: { ...process.env, USTRINA_DATABASE: database, NEXT_TELEMETRY_DISABLED: "1" } },
      );
      child = started;
      await new Promise<void>((done) => started.stdout.on("data", (d) => String(d).includes("Ready") && done()));
    },
    async kill() {
      const running = child;
      child = null;
      if (!running) return;
      const gone = new Promise((done) => running.once("exit", done));
      running.kill("SIGKILL");
      await gone;
    },
  };
}
