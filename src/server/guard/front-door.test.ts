import { describe, expect, it } from "vitest";
import { SESSION_COOKIE } from "./access";
import { newSession } from "./access-code";
import { type AtDoor, refusedAtDoor } from "./front-door";

const KEYS = { code: "K7QF2MXA", secret: "s".repeat(43) };
const NOW = Date.UTC(2026, 10, 25, 12);
const asked = (request: Partial<AtDoor>, keys: typeof KEYS | null = KEYS) =>
  refusedAtDoor({ method: "POST", url: "/", headers: {}, ...request }, keys, NOW)?.status ?? "on";

describe("the front door of a bench that is open to the network", () => {
  it("takes in no body from whoever has not given the code, however it is sent", () => {
    for (const url of ["/", "/api/trials/1/rounds/1/pictures", "/access/else", "/trial/1/read"]) {
      expect(asked({ url, headers: { "content-length": "100000000" } }), url).toBe(401);
      expect(asked({ url, headers: { "content-length": "1" } }), url).toBe(401);
      expect(asked({ url, headers: { "transfer-encoding": "chunked" } }), url).toBe(401);
    }
    expect(asked({ method: "GET", headers: { "content-length": "5" } })).toBe(401);
    expect(asked({ method: "PUT", headers: { "content-length": "nonsense" } })).toBe(401);
  });

  it("lets the code itself in, by its page alone and no longer than a code", () => {
    expect(asked({ url: "/access", headers: { "content-length": "60" } })).toBe("on");
    expect(asked({ url: "/access?x=1", headers: { "content-length": "60" } })).toBe("on");
    expect(asked({ url: "/access", headers: { "content-length": "5000" } })).toBe(413);
    expect(asked({ url: "/access", headers: { "transfer-encoding": "chunked" } })).toBe(413);
    expect(asked({ method: "GET", url: "/trial/1/read" })).toBe("on");
  });

  it("stands open with a session, and where no code is set", () => {
    const cookie = `other=1; ${SESSION_COOKIE}=${newSession(KEYS.secret, NOW)}`;
    const large = { "content-length": "100000000" };
    expect(asked({ headers: { ...large, cookie } })).toBe("on");
    expect(asked({ headers: { ...large, cookie: `${SESSION_COOKIE}=${NOW}.x.${"a".repeat(43)}` } })).toBe(401);
    expect(asked({ headers: large }, null)).toBe("on");
  });
});
