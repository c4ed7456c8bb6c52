import { describe, expect, it } from "vitest";
import { type Door, doorOf, LARGEST_BODY, turnedAway } from "./turned-away";

const HOST = { host: "127.0.0.1:4820" };
const FROM_HERE = { ...HOST, origin: "http://127.0.0.1:4820" };
const ACTION = { ...FROM_HERE, "next-action": "60ab", "content-type": "text/plain;charset=UTF-8" };

const status = (method: string, headers: Record<string, string>, door: Door = "action") =>
  turnedAway(method, new Headers(headers), door)?.status ?? "passes";

describe("what a page of this bench sends", () => {
  it.each([
    ["a page", "GET", HOST],
    ["a page from a link elsewhere", "GET", { ...HOST, "sec-fetch-site": "cross-site", "sec-fetch-mode": "navigate" }],
    ["an action", "POST", ACTION],
    ["an action as browsers send it", "POST", { ...ACTION, "sec-fetch-site": "same-origin", "content-length": "200" }],
    ["an action with a file", "POST", { ...ACTION, "content-type": "multipart/form-data; boundary=x" }],
    ["the largest body", "POST", { ...ACTION, "content-length": String(LARGEST_BODY) }],
  ])("passes: %s", (_, method, headers) => {
    expect(status(method, headers)).toBe("passes");
  });

  it("passes as the form of the access code, and as nothing else", () => {
    const form = { ...FROM_HERE, "content-type": "application/x-www-form-urlencoded", "content-length": "20" };
    expect(status("POST", form, "code form")).toBe("passes");
    // Before anybody is let in, little is listened to
    expect(status("POST", { ...form, "content-length": "4001" }, "code form")).toBe(413);
    const { "content-length": _, ...endless } = form;
    expect(status("POST", endless, "code form")).toBe(413);
    expect(status("POST", form)).toBe(415);
    expect(status("POST", ACTION, "code form")).toBe(415);
  });
});

describe("a picture", () => {
  const PICTURE = { ...FROM_HERE, "content-type": "application/octet-stream", "content-length": "40000000" };

  it("passes where pictures are taken, up to 112 MB, and nowhere else", () => {
    expect(doorOf("/api/trials/12/rounds/1/pictures", false)).toBe("picture");
    expect(doorOf("/api/trials/12/rounds/1/pictures/x", false)).toBe("action");
    expect(status("POST", PICTURE, "picture")).toBe("passes");
    expect(status("POST", PICTURE)).toBe(415);
    expect(status("POST", { ...PICTURE, "content-length": String(113 * 1024 * 1024) }, "picture")).toBe(413);
    const { "content-length": _, ...endless } = PICTURE;
    expect(status("POST", endless, "picture")).toBe(413);
    expect(status("POST", { ...PICTURE, origin: "http://elsewhere.example" }, "picture")).toBe(403);
    expect(status("POST", ACTION, "picture")).toBe(415);
  });
});

describe("what another page or program sends", () => {
  it.each([
    ["nothing of where it comes from", 403, { ...ACTION, origin: "" }],
    ["an address elsewhere", 403, { ...ACTION, origin: "http://elsewhere.example" }],
    ["another port of this computer", 403, { ...ACTION, origin: "http://127.0.0.1:3000" }],
    ["another name of this computer", 403, { ...ACTION, origin: "http://localhost:4820" }],
    ["a page without an address", 403, { ...ACTION, origin: "null" }],
    ["an extension", 403, { ...ACTION, origin: "moz-extension://127.0.0.1:4820" }],
    ["a page elsewhere, by the browser's word", 403, { ...ACTION, "sec-fetch-site": "cross-site" }],
    ["a form", 415, { ...ACTION, "content-type": "application/x-www-form-urlencoded" }],
    ["no kind", 415, { ...ACTION, "content-type": "" }],
    ["JSON", 415, { ...ACTION, "content-type": "application/json" }],
    ["no action", 415, { ...FROM_HERE, "content-type": "text/plain" }],
    ["something packed", 415, { ...ACTION, "content-encoding": "gzip" }],
    ["one byte too many", 413, { ...ACTION, "content-length": String(LARGEST_BODY + 1) }],
    ["no length that can be read", 413, { ...ACTION, "content-length": "many" }],
  ])("is turned away: %s", (_, expected, headers) => {
    expect(status("POST", headers)).toBe(expected);
  });

  it.each(["PUT", "DELETE", "PATCH", "OPTIONS", "TRACE"])("is turned away: %s", (method) => {
    expect(status(method, ACTION)).toBe(405);
  });

  it("cannot be part of a page elsewhere", () => {
    const part = { ...HOST, "sec-fetch-mode": "no-cors" };
    expect(status("GET", { ...part, "sec-fetch-site": "cross-site" })).toBe(403);
    expect(status("GET", { ...part, "sec-fetch-site": "same-site" })).toBe(403);
    expect(status("GET", { ...part, "sec-fetch-site": "same-origin" })).toBe("passes");
  });
});
