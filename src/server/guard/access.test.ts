import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import jsqr from "jsqr";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { accessKeys, askForCode, hasSession, ownPath, SESSION_COOKIE, takeCode } from "./access";
import { codeWords, isCode, isSession, newCode, newSession, SESSION_DAYS } from "./access-code";
import { keysOf } from "./access-file";
import { Attempts } from "./attempts";
import { joinView } from "./join-view";

vi.mock("node:os", async (original) => ({
  ...(await original<typeof import("node:os")>()),
  networkInterfaces: () => ({ eth0: [{ address: "192.0.2.2", family: "IPv4", internal: false }] }),
}));

const KEYS = { code: "K7QF2MXA", secret: "s".repeat(43) };
const NOW = Date.UTC(2026, 10, 25, 12);
const DAY_MS = 86_400_000;

describe("the access code", () => {
  it("has eight letters and digits that do not look alike, new each time", () => {
    const codes = Array.from({ length: 500 }, newCode);
    expect(new Set(codes).size).toBe(500);
    for (const code of codes) expect(code).toMatch(/^[2-9A-HJKMNP-Z]{8}$/);
  });

  it("is taken as it is read aloud, and not otherwise", () => {
    expect(codeWords(KEYS.code)).toBe("K7QF 2MXA");
    for (const typed of ["K7QF2MXA", "k7qf 2mxa", " K7QF-2MXA "]) expect(isCode(typed, KEYS.code)).toBe(true);
    for (const typed of ["", "K7QF2MX", "K7QF2MXAA", "K7QF2MXB"]) expect(isCode(typed, KEYS.code)).toBe(false);
  });
});

describe("a session", () => {
  it("is one for thirty days, over a clock that is set back too", () => {
    const token = newSession(KEYS.secret, NOW);
    expect(isSession(token, KEYS.secret, NOW)).toBe(true);
    expect(isSession(token, KEYS.secret, NOW - 400 * DAY_MS)).toBe(true);
    expect(isSession(token, KEYS.secret, NOW + SESSION_DAYS * DAY_MS - 1)).toBe(true);
    expect(isSession(token, KEYS.secret, NOW + SESSION_DAYS * DAY_MS)).toBe(false);
  });

  it("cannot be made longer, signed with the code, or be of another bench", () => {
    const token = newSession(KEYS.secret, NOW);
    const later = token.replace(/^\d+/, String(NOW + 99 * DAY_MS));
    expect(isSession(later, KEYS.secret, NOW)).toBe(false);
    expect(isSession(newSession(KEYS.code, NOW), KEYS.secret, NOW)).toBe(false);
    expect(isSession(newSession("t".repeat(43), NOW), KEYS.secret, NOW)).toBe(false);
    for (const token of [undefined, "", "..", `${NOW}.x.`, `${NOW}.x.${"a".repeat(43)}`])
      expect(isSession(token, KEYS.secret, NOW)).toBe(false);
  });
});

describe("wrong codes", () => {
  it("are five at once, then one in half a minute", () => {
    const attempts = new Attempts();
    for (let i = 0; i < 5; i++) {
      expect(attempts.waitS("192.0.2.9", NOW)).toBe(0);
      attempts.wrong("192.0.2.9", NOW);
    }
    expect(attempts.waitS("192.0.2.9", NOW)).toBe(30);
    expect(attempts.waitS("192.0.2.9", NOW + 29_500)).toBe(1);
    expect(attempts.waitS("192.0.2.9", NOW + 30_000)).toBe(0);
    attempts.wrong("192.0.2.9", NOW + 30_000);
    expect(attempts.waitS("192.0.2.9", NOW + 30_000)).toBe(30);
    // In a day nobody tries more than this of 850 thousand million codes
    let tried = 0;
    for (let now = NOW + 60_000; now < NOW + DAY_MS; now += 1000)
      if (attempts.waitS("192.0.2.9", now) === 0) {
        attempts.wrong("192.0.2.9", now);
        tried++;
      }
    expect(tried).toBeLessThanOrEqual(2880);
  });

  it("of one device keep no other out", () => {
    const attempts = new Attempts();
    for (let i = 0; i < 50; i++) attempts.wrong("192.0.2.9", NOW);
    expect(attempts.waitS("192.0.2.9", NOW)).toBeGreaterThan(0);
    expect(attempts.waitS("192.0.2.10", NOW)).toBe(0);
  });

  it("of very many addresses together are few enough for 40 bits", () => {
    const attempts = new Attempts();
    let tried = 0;
    // An address of its own for each try, as fast as they are let.
    for (let now = NOW; now < NOW + 60_000; now += 10)
      for (let k = 0; k < 50 && attempts.waitS(`a${tried}`, now) === 0; k++) attempts.wrong(`a${tried++}`, now);
    expect(tried).toBeLessThanOrEqual(400 + 60 * 20);
    // At that pace half of all codes take centuries.
    expect(31 ** 8 / 2 / (tried / 60) / (365 * 86_400)).toBeGreaterThan(400);
  });

  it("do not lock the bench for years when the clock is set back", () => {
    const attempts = new Attempts();
    for (let i = 0; i < 5; i++) attempts.wrong("192.0.2.9", NOW);
    expect(attempts.waitS("192.0.2.9", NOW - 3650 * DAY_MS)).toBe(0);
  });
});

describe("the page of the code", () => {
  beforeEach(() => vi.stubGlobal("ustrinaAttempts", undefined));
  afterEach(() => vi.unstubAllGlobals());
  const send = (code: string, to = "/trial/3/read") =>
    takeCode(
      new Request("http://192.0.2.7:4820/access", {
        method: "POST",
        headers: { host: "192.0.2.7:4820" },
        body: new URLSearchParams({ code, to }),
      }),
      KEYS,
      "nonce",
      NOW,
    );

  it("lets in with the code, to where one wanted to go, with a cookie that no script and no other page gets", async () => {
    const answer = await send("k7qf 2mxa");
    expect(answer.status).toBe(303);
    expect(answer.headers.get("location")).toBe("http://192.0.2.7:4820/trial/3/read");
    const cookie = answer.headers.get("set-cookie") ?? "";
    expect(cookie).toMatch(/; Path=\/; Max-Age=2592000; HttpOnly; SameSite=Strict$/);
    const token = cookie.slice(SESSION_COOKIE.length + 1, cookie.indexOf(";"));
    expect(hasSession(token, KEYS, NOW)).toBe(true);
  });

  it("says what is wrong, keeps where one wanted to go, and after five times says how long to wait", async () => {
    for (let i = 0; i < 5; i++) {
      const answer = await send("WRONG");
      expect(answer.status).toBe(403);
      expect(answer.headers.get("set-cookie")).toBeNull();
      const text = await answer.text();
      expect(text).toContain("This is not the code.");
      expect(text).toContain('value="/trial/3/read"');
    }
    // Also with the right one
    const answer = await send(KEYS.code);
    expect(answer.status).toBe(429);
    expect(answer.headers.get("retry-after")).toBe("30");
    expect(await answer.text()).toContain("Try again in 30 s.");
  });

  it("writes nothing of what was asked for as it is", async () => {
    const text = await askForCode('/x"><script>alert(1)</script>', "nonce").text();
    expect(text).not.toContain("<script>alert");
    expect(text).toContain("&#34;&#62;&#60;script&#62;");
  });

  it("is in the inks of the app", async () => {
    const inks = (text: string) => [...text.matchAll(/--(?:color-)?([a-z0-9-]+): (light-dark\([^)]*\))/g)];
    const own = new Map(inks(readFileSync("src/app/globals.css", "utf8")).map(([, name, ink]) => [name, ink]));
    const shown = inks(await askForCode("/", "nonce").text());
    expect(shown.length).toBeGreaterThan(8);
    for (const [, name = "", ink] of shown) expect(own.get(name), name).toBe(ink);
  });

  it.each([
    "//elsewhere.example",
    "/\\elsewhere.example",
    "http://elsewhere.example",
    "javascript:alert(1)",
    "",
    null,
    "/access#x",
    "/a\r\nb",
  ])("goes to the bench, not to %j", (to) => {
    expect(ownPath(to)).toBe("/");
  });

  it("goes to any page of the bench", () => {
    for (const to of ["/", "/trial/3/read?site=v300-left", "/ledger?machine=alder&setting=scan-offset"])
      expect(ownPath(to)).toBe(to);
  });
});

describe("the keys of a bench", () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(path.join(tmpdir(), "ustrina-access-"));
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  it("stay over a start, are made anew on request, and can be read by nobody else", () => {
    const keys = keysOf(path.join(folder, "data"), false);
    expect(keysOf(path.join(folder, "data"), false)).toEqual(keys);
    const file = path.join(folder, "data", "access.json");
    expect(statSync(file).mode & 0o077).toBe(0);
    const anew = keysOf(path.join(folder, "data"), true);
    expect(anew.code).not.toBe(keys.code);
    expect(anew.secret).not.toBe(keys.secret);
    expect(JSON.parse(readFileSync(file, "utf8"))).toEqual(anew);
  });

  it("are made anew where they cannot be read", () => {
    writeFileSync(path.join(folder, "access.json"), "{");
    expect(keysOf(folder, false).code).toHaveLength(8);
    expect(existsSync(path.join(folder, "access.json"))).toBe(true);
  });

  it("are asked for only where both were handed over", () => {
    expect(accessKeys({})).toBeNull();
    expect(accessKeys({ USTRINA_ACCESS_CODE: "", USTRINA_ACCESS_SECRET: "" })).toBeNull();
    expect(accessKeys({ USTRINA_ACCESS_CODE: "a", USTRINA_ACCESS_SECRET: "b" })).toEqual({ code: "a", secret: "b" });
  });
});

describe("what is scanned on the bench", () => {
  afterEach(() => vi.unstubAllEnvs());

  it("is read by an independent reader as the address with the code behind its #", () => {
    vi.stubEnv("USTRINA_ACCESS_CODE", KEYS.code);
    vi.stubEnv("USTRINA_ACCESS_SECRET", KEYS.secret);
    const join = joinView("127.0.0.1:4820");
    expect(join?.code).toBe("K7QF 2MXA");
    const way = join?.ways[0];
    if (!way) throw new Error("no way");
    const scale = 4;
    const size = way.qr.length * scale;
    const pixels = new Uint8ClampedArray(size * size * 4).fill(255);
    way.qr.forEach((row, y) => {
      row.forEach((dark, x) => {
        for (let i = 0; dark && i < scale * scale; i++) {
          const at = ((y * scale + Math.floor(i / scale)) * size + x * scale + (i % scale)) * 4;
          pixels.fill(0, at, at + 3);
        }
      });
    });
    expect(jsqr(pixels, size, size)?.data).toBe(`${way.address}/access#${KEYS.code}`);
    expect(way.address).toBe("http://192.0.2.2:4820");
  });

  it("is not there on a bench that is open to this computer alone", () => {
    vi.stubEnv("USTRINA_ACCESS_CODE", "");
    expect(joinView("127.0.0.1:4820")).toBeNull();
  });
});
