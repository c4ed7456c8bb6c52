/** Runs the built app behind the front door: `tsx scripts/serve.ts HOST PORT`. Prints Ready when it answers. */
import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import next from "next";
import { accessKeys, FROM_HEADER } from "../src/server/guard/access";
import { refusedAtDoor } from "../src/server/guard/front-door";

/** Time for the headers, and for a large picture over a slow network. */
const [HEADERS_MS, REQUEST_MS] = [15_000, 600_000];

async function serve(host: string, port: number): Promise<void> {
  const keys = accessKeys();
  const app = next({ dev: false, hostname: host, port: port });
  await app.prepare();
  const handle = app.getRequestHandler();

  const server = createServer({ headersTimeout: HEADERS_MS, requestTimeout: REQUEST_MS }, (request, response) => {
    request.headers[FROM_HEADER] = request.socket.remoteAddress ?? "";
    const refused = refusedAtDoor(
      { method: request.method ?? "", url: request.url ?? "", headers: request.headers },
      keys,
      Date.now(),
    );
    if (refused) return turnAway(request, response, refused.status, refused.message);
    void handle(request, response);
  });
  // The app uses no other protocol. An upgraded connection would stay open without the access code.
  server.on("upgrade", (_, socket) => socket.destroy());
  server.on("connect", (_, socket) => socket.destroy());
  server.on("error", (error) => {
    console.error(error.message);
    process.exit(1);
  });
  server.listen(port, host, () => console.log("Ready"));
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => process.exit(0));
}

/** Answers without reading the body. */
function turnAway(request: IncomingMessage, response: ServerResponse, status: number, message: string): void {
  response.writeHead(status, {
    "Content-Type": "text/plain; charset=utf-8",
    "Cache-Control": "no-store",
    Connection: "close",
    "X-Content-Type-Options": "nosniff",
    "Cross-Origin-Resource-Policy": "same-origin",
  });
  response.end(message, () => request.socket.destroySoon());
}

const [host = "127.0.0.1", port = "4820"] = process.argv.slice(2);
serve(host, Number(port)).catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
