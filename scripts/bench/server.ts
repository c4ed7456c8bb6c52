/** The built server on a bench of its own, for what is measured from outside; asked as a page would ask it. */
import { type ChildProcess, spawn } from "node:child_process";
import { readFileSync } from "node:fs";

export type BenchServer = { origin: string; pid: number; stop: () => void };

/** @returns once it answers. Needs a build. */
export async function startServer(database: string, port: number): Promise<BenchServer> {
  const server: ChildProcess = spawn(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(port)],
    { env: { ...process.env, USTRINA_DATABASE: database, NEXT_TELEMETRY_DISABLED: "1" } },
  );
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on("data", (data) => String(data).includes("Ready") && resolve());
    server.on("exit", () => reject(new Error("the server did not start: run the build first")));
  });
  return { origin: `http://127.0.0.1:${port}`, pid: server.pid ?? 0, stop: () => server.kill() };
}

/** Ids of the actions in this build, by their names. */
export function actionIds(): Map<string, string> {
  const manifest = JSON.parse(readFileSync(".next/server/server-reference-manifest.json", "utf8")) as {
    node: Record<string, { exportedName: string }>;
  };
  return new Map(Object.entries(manifest.node).map(([id, { exportedName }]) => [exportedName, id]));
}

/** Sends an action as the page at `path` does. @returns what the server said, as text */
export async function act({ origin }: BenchServer, path: string, id: string, input: unknown): Promise<string> {
  const answer = await fetch(origin + path, {
    method: "POST",
    headers: {
      "Next-Action": id,
      "Content-Type": "text/plain;charset=UTF-8",
      Accept: "text/x-component",
      Origin: origin,
    },
    body: JSON.stringify([input]),
  });
  const text = await answer.text();
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${text.slice(0, 200)}`);
  return text;
}
