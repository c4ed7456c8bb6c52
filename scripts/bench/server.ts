/** The built server on a bench of its own, for what is measured from outside; asked as a page would ask it. */
import { type ChildProcess, spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import { z } from "zod";

export type BenchServer = {
  origin: string;
  pid: number;
  /** Their ids in this build, by their names. */
  actions: ReadonlyMap<string, string>;
  stop: (signal?: NodeJS.Signals) => void;
  /** Once it has ended. */
  ended: Promise<void>;
};

const resultSchema = z.union([
  z.object({ ok: z.literal(true), value: z.unknown().optional() }),
  z.object({ ok: z.literal(false), message: z.string() }),
]);

/**
 * @param heapMb what its heap may grow to; the engine's own choice where left out
 * @returns once it answers. Needs a build.
 */
export async function startServer(database: string, port: number, heapMb?: number): Promise<BenchServer> {
  const heap = heapMb === undefined ? {} : { NODE_OPTIONS: `--max-old-space-size=${heapMb}` };
  const server: ChildProcess = spawn(
    process.execPath,
    ["--import", "tsx", "scripts/serve.ts", "127.0.0.1", String(port)],
    {
      env: {
        ...process.env,
        NODE_ENV: "production" as const,
        USTRINA_DATABASE: database,
        NEXT_TELEMETRY_DISABLED: "1",
        ...heap,
      },
    },
  );
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on("data", (data) => String(data).includes("Ready") && resolve());
    server.on("exit", () => reject(new Error("the server did not start: run the build first")));
  });
  return {
    origin: `http://127.0.0.1:${port}`,
    pid: server.pid ?? 0,
    actions: actionIds(),
    stop: (signal) => server.kill(signal),
    ended: new Promise((resolve) => server.on("exit", () => resolve())),
  };
}

/** Ids of the actions in this build, by their names. */
function actionIds(): Map<string, string> {
  const manifest = JSON.parse(readFileSync(".next/server/server-reference-manifest.json", "utf8")) as {
    node: Record<string, { exportedName: string }>;
  };
  return new Map(Object.entries(manifest.node).map(([id, { exportedName }]) => [exportedName, id]));
}

/** Asks for an action by its name, as the page at `path` does. @returns what it gave @throws Error with what was refused */
export async function act(
  { origin, actions }: BenchServer,
  path: string,
  name: string,
  input: unknown,
): Promise<unknown> {
  const answer = await fetch(origin + path, {
    method: "POST",
    headers: {
      "Next-Action": actions.get(name) ?? "",
      "Content-Type": "text/plain;charset=UTF-8",
      Accept: "text/x-component",
      Origin: origin,
    },
    body: JSON.stringify([input]),
  });
  const text = await answer.text();
  // Row 0 names the row of what the action gave; the others are the page as it is afterwards.
  const row = /^0:\{"a":"\$@(\w+)"/m.exec(text)?.[1];
  const given = new RegExp(`^${row}:(\\{.*\\})$`, "m").exec(text)?.[1];
  const result = resultSchema.safeParse(JSON.parse(given ?? "null"));
  if (!result.success) throw new Error(`${name} at ${path}: ${answer.status} ${text.slice(0, 200)}`);
  if (!result.data.ok) throw new Error(`${name} at ${path}: ${result.data.message}`);
  return result.data.value;
}
