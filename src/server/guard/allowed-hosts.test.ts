import { hostname } from "node:os";
import { describe, expect, it } from "vitest";
import { addresses, allowedHosts, isAllowedHost, isOwnHost } from "./allowed-hosts";

describe("names by which the bench may be called", () => {
  it.each(["127.0.0.1", "127.0.0.1:4820", "localhost:4820", "LOCALHOST", "[::1]:4820"])("has %s", (host) => {
    expect(isAllowedHost(host, allowedHosts(false))).toBe(true);
    expect(isOwnHost(host)).toBe(true);
  });

  it.each([
    ["none", null],
    ["an empty one", ""],
    ["a name that was made to point here", "rebound.example:4820"],
    ["one that only begins right", "127.0.0.1.example"],
    ["one that only ends right", "x127.0.0.1"],
    ["one with a name before it", "user@127.0.0.1"],
    ["one with a path", "127.0.0.1/x"],
    ["two", "127.0.0.1, rebound.example"],
    ["a port that is none", "127.0.0.1:x"],
    ["a port without a name", ":4820"],
    ["this computer's address in the network, while it is not open to it", addresses()[0] ?? "192.0.2.7"],
  ])("has not %s", (_, host) => {
    expect(isAllowedHost(host, allowedHosts(false))).toBe(false);
  });

  it("has its addresses and its name on the network once it is open to it, and nothing more", () => {
    const open = allowedHosts(true);
    for (const address of addresses()) expect(isAllowedHost(`${address}:4820`, open)).toBe(true);
    expect(isAllowedHost(`${hostname()}.local:4820`, open)).toBe(true);
    expect(isAllowedHost("rebound.example:4820", open)).toBe(false);
    expect(isAllowedHost("203.0.113.9", open)).toBe(false);
  });
});
