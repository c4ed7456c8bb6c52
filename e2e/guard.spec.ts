/** What is turned away: other names of this server, other pages, what is too large; and a bench that is open to the network only with its code. */
import { hostname } from "node:os";
import type { Page } from "@playwright/test";
import { expect, test } from "./bench";
import { CHROMIUM } from "./chromium";
import { openConcern } from "./concern";
import type { OwnServer } from "./own-server";
import { accessible, beginReading, beginTrial, watch } from "./watch";

const CODE = "K7QF2MXA";
const KEYS = { USTRINA_ACCESS_CODE: CODE, USTRINA_ACCESS_SECRET: "0123456789abcdef0123456789abcdef0123456789a" };

type Sent = { method?: string; headers?: Record<string, string>; body?: string };

/** Without a browser: any header can be set. */
async function asked({ origin }: OwnServer, path: string, { method = "GET", headers = {}, body }: Sent = {}) {
  const { request } = await import("node:http");
  return new Promise<{ status: number; headers: Record<string, unknown>; text: string }>((resolve, reject) => {
    const sent = request(`${origin}${path}`, { method, headers }, (answer) => {
      let text = "";
      answer.on("data", (data) => {
        text += data;
      });
      answer.on("end", () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, text }));
    });
    sent.on("error", reject);
    sent.end(body);
  });
}

/** The request of an action as the page sent it, to be sent again in other ways. */
async function anAction(page: Page): Promise<{ path: string; headers: Record<string, string>; body: string }> {
  await page.goto("/machine/alder");
  await openConcern(page, "To put back");
  const [request] = await Promise.all([
    page.waitForRequest((r) => r.method() === "POST"),
    page
      .getByLabel("Set for a while")
      .fill("soft limits off")
      .then(() => page.getByLabel("Set for a while").press("Enter")),
  ]);
  await expect(page.getByRole("button", { name: "Put back soft limits off" })).toBeVisible();
  const { pathname } = new URL(request.url());
  const { "next-action": action = "", "content-type": type = "", accept = "" } = request.headers();
  return {
    path: pathname,
    headers: { "next-action": action, "content-type": type, accept },
    body: request.postData() ?? "",
  };
}

test("an action is taken from a page of this bench alone", async ({ page, server }) => {
  const { path, headers, body } = await anAction(page);
  const count = async () => {
    await page.reload();
    return page.getByRole("button", { name: "Put back soft limits off" }).count();
  };
  const send = (more: Record<string, string>) =>
    asked(server, path, { method: "POST", body, headers: { ...headers, origin: server.origin, ...more } });
  expect(await count()).toBe(1);
  expect((await send({})).status).toBe(200);
  expect(await count()).toBe(2);
  const turned = [
    await send({ origin: "http://elsewhere.example" }),
    await send({ origin: "null" }),
    await send({ origin: "" }),
    await send({ "sec-fetch-site": "cross-site" }),
    await send({ "content-type": "application/x-www-form-urlencoded" }),
    await send({ "content-encoding": "gzip" }),
    await send({ host: "rebound.example", origin: "http://rebound.example" }),
    await asked(server, path, { method: "PUT", body, headers: { origin: server.origin } }),
    await asked(server, "/api/places", { method: "POST", body, headers: { origin: server.origin } }),
  ];
  expect(turned.map((t) => t.status)).toEqual([403, 403, 403, 403, 415, 415, 421, 405, 415]);
  expect(await count()).toBe(2);
});

test("every answer has its headers, and none is given to another name", async ({ server }) => {
  const paths = ["/", "/backup", "/api/places", "/icon.svg", "/nothing-here", "/api/trials/1/rounds/1/coupon.svg"];
  for (const path of paths) {
    const { headers } = await asked(server, path);
    expect(headers["content-security-policy"], path).toMatch(
      /^default-src 'none'; script-src 'self' 'nonce-[\w+/=]+' 'strict-dynamic';/,
    );
    expect(headers["content-security-policy"], path).not.toMatch(/unsafe-eval|\*|https?:/);
    expect(headers, path).toMatchObject({
      "x-content-type-options": "nosniff",
      "x-frame-options": "DENY",
      "referrer-policy": "same-origin",
      "cross-origin-resource-policy": "same-origin",
      "cross-origin-opener-policy": "same-origin",
    });
    expect(headers["x-powered-by"], path).toBeUndefined();
    expect((await asked(server, path, { headers: { host: "rebound.example" } })).status, path).toBe(421);
    const part = { "sec-fetch-site": "cross-site", "sec-fetch-mode": "no-cors" };
    expect((await asked(server, path, { headers: part })).status, path).toBe(403);
  }
  const [once, again] = [await asked(server, "/"), await asked(server, "/")];
  expect(once.headers["content-security-policy"]).not.toBe(again.headers["content-security-policy"]);
  const file = await asked(server, "/api/trials/1/rounds/1/coupon.svg");
  expect(file.headers["content-disposition"]).toMatch(/^attachment; /);
});

test("no error tells a path, a place in the code or a query", async ({ page, server }) => {
  const { path, headers, body } = await anAction(page);
  const answers = await Promise.all([
    asked(server, "/api/trials/99/stamp"),
    asked(server, "/api/trials/%2e%2e%2f%2e%2e/stamp"),
    asked(server, "/api/trials/1/rounds/1/..%2f..%2fpackage.json"),
    asked(server, "/api/trials/x/rounds/1/coupon.svg"),
    asked(server, "/api/ledger/alder/..%2f..%2fdata"),
    asked(server, "/api/backups/..%2fbench.sqlite"),
    asked(server, "/machine/%00"),
    asked(server, path, { method: "POST", body: "[", headers: { ...headers, origin: server.origin } }),
    asked(server, path, {
      method: "POST",
      body: body.replace("alder", "a'; drop table trial; --"),
      headers: { ...headers, origin: server.origin },
    }),
    asked(server, path, { method: "POST", body, headers: { ...headers, "next-action": "00", origin: server.origin } }),
  ]);
  for (const { status, text } of answers) {
    expect(status === 200 || status >= 400).toBe(true);
    expect(text).not.toMatch(/\/work\/|node_modules|\.next\/server|SqliteError|SQLITE_|at \w+ \(|select .* from/i);
  }
  await page.reload();
  await expect(page.getByRole("heading", { name: "Alder", level: 1 })).toBeVisible();
});

test("without the code nothing but its page answers; with it a trial is read from another device", async ({
  browser,
  server,
}) => {
  await server.kill();
  await server.start({ ...KEYS, USTRINA_HOST: "0.0.0.0" });
  const html = { accept: "text/html" };
  for (const path of ["/", "/trial/1/prove", "/access"]) {
    const { status, text } = await asked(server, path, { headers: html });
    expect(status, path).toBe(401);
    expect(text, path).toContain("<h1>Access code</h1>");
    expect(text, path).not.toMatch(/Alder|_next|<link rel="stylesheet"/);
  }
  for (const path of [
    "/api/places",
    "/icon.svg",
    "/favicon.ico",
    "/_next/static/chunks/main.js",
    "/api/backups/x",
    "/api/trouble",
  ])
    expect(await asked(server, path), path).toMatchObject({
      status: 401,
      text: "This bench asks for its access code.",
    });
  const forged = { cookie: `ustrina-session=${Date.now()}.x.${"a".repeat(43)}` };
  expect((await asked(server, "/api/places", { headers: forged })).status).toBe(401);

  // By its name on the network, as another device would: browsers trust it less than this computer's own
  const host = `${hostname().toLowerCase()}.local`;
  const args = [...CHROMIUM.args, `--host-resolver-rules=MAP ${host} 127.0.0.1`];
  const other = await browser.browserType().launch({ ...CHROMIUM, args });
  const origin = server.origin.replace("127.0.0.1", host);
  const context = await other.newContext({ baseURL: origin, viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  const faults = watch(page, host);
  await page.goto("/trial/1/prove");
  await accessible(page);
  const field = page.getByLabel("Access code, 8 letters and digits");
  await field.fill("nonsense");
  await field.press("Enter");
  await expect(page.getByRole("alert")).toContainText("This is not the code.");
  await accessible(page);
  await field.fill("k7qf 2mxa");
  await field.press("Enter");
  await expect(page).toHaveURL(/\/trial\/1\/prove$/);
  const [cookie] = (await context.cookies()).filter((c) => c.name === "ustrina-session");
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: "Strict", path: "/" });
  // The three answers that were not yet let in
  faults.forget(/the server responded with a status of (401|403)/);

  await page.goto("/");
  await page.getByRole("button", { name: "On another device" }).click();
  await expect(page.getByRole("dialog")).toContainText("K7QF 2MXA");
  await accessible(page);
  await page.keyboard.press("Escape");
  await beginTrial(page, "Alder", "Scan offset");
  await page.getByRole("link", { name: "To the burn" }).click();
  await page.getByRole("button", { name: "Burn on the practice machine" }).click();
  await beginReading(page);
  await page.locator("#reading").fill("0.301");
  await page.locator("#reading").press("Enter");
  await expect(page.getByText("reading 2 of 3").first()).toBeVisible();

  // The server starts again: who is in stays in. Scanned, the code goes out of the address at once.
  await server.kill();
  await server.start({ ...KEYS, USTRINA_HOST: "0.0.0.0" });
  await page.goto(`/access#${CODE}`);
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
  expect(page.url()).toBe(`${origin}/`);
  faults.forget(/status of 401|ERR_CONNECTION_RE|ERR_INCOMPLETE_CHUNKED/);
  faults.none();
  await other.close();

  // Wrong codes are few, whoever tries
  const wrong = () =>
    asked(server, "/access", {
      method: "POST",
      body: "code=WRONG",
      headers: { origin: server.origin, "content-type": "application/x-www-form-urlencoded" },
    });
  const statuses: number[] = [];
  for (let i = 0; i < 7; i++) statuses.push((await wrong()).status);
  expect(statuses).toEqual([403, 403, 403, 403, 403, 429, 429]);
});

/** What a bare connection gets for a head that promises more than it sends. */
async function bare({ origin }: OwnServer, head: string[]): Promise<{ said: string; closed: boolean }> {
  const { connect } = await import("node:net");
  const { port } = new URL(origin);
  return new Promise((resolve) => {
    const socket = connect(Number(port), "127.0.0.1", () => socket.write(`${head.join("\r\n")}\r\n\r\n`));
    let said = "";
    const done = (closed: boolean) => {
      socket.destroy();
      resolve({ said, closed });
    };
    socket.on("data", (data) => {
      said += data;
    });
    socket.on("error", () => done(true));
    socket.on("close", () => done(true));
    socket.setTimeout(4000, () => done(false));
  });
}

test("a body is refused before it is sent where the code is missing, and no other protocol stays open", async ({
  server,
}) => {
  await server.kill();
  await server.start({ ...KEYS, USTRINA_HOST: "0.0.0.0" });
  const { host } = new URL(server.origin);
  const large = ["POST /api/trials/1/rounds/1/pictures HTTP/1.1", `Host: ${host}`, `Origin: ${server.origin}`];
  const refused = await bare(server, [...large, "Content-Type: application/octet-stream", "Content-Length: 104857600"]);
  expect(refused.said).toMatch(/^HTTP\/1\.1 401 /);
  expect(refused.closed).toBe(true);
  const chunked = await bare(server, [...large, "Transfer-Encoding: chunked"]);
  expect(chunked).toMatchObject({ said: expect.stringMatching(/^HTTP\/1\.1 401 /), closed: true });
  const upgrade = ["GET / HTTP/1.1", `Host: ${host}`, "Connection: Upgrade", "Upgrade: websocket"];
  const key = ["Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==", "Sec-WebSocket-Version: 13"];
  expect(await bare(server, [...upgrade, ...key])).toEqual({ said: "", closed: true });
  expect((await asked(server, "/", { headers: { accept: "text/html" } })).status).toBe(401);
});

test("without the code mode the bench is not open to the network", async ({ page, server }) => {
  expect((await asked(server, "/", { headers: { host: "192.0.2.7:4870" } })).status).toBe(421);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
  await expect(page.getByRole("button", { name: "On another device" })).toBeHidden();
});
