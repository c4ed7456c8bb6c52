/** By which names this server may be called: a page elsewhere that makes its own name point here is not answered. */
import { hostname, networkInterfaces } from "node:os";

const OWN = ["127.0.0.1", "localhost", "[::1]"];

/** Host names without port. On the local network also the machine's own addresses and its name there. */
export function allowedHosts(onNetwork: boolean): ReadonlySet<string> {
  if (!onNetwork) return new Set(OWN);
  const name = hostname().toLowerCase();
  return new Set([...OWN, ...addresses(), name, `${name}.local`]);
}

/** @param header the Host header of a request, with or without a port */
export function isAllowedHost(header: string | null, allowed: ReadonlySet<string>): boolean {
  const name = /^(\[[0-9a-f:]+\]|[a-z0-9.-]+)(:\d{1,5})?$/i.exec(header ?? "")?.[1];
  return name !== undefined && allowed.has(name.toLowerCase());
}

/** Whether a Host header names this very computer, which browsers trust without encryption. */
export function isOwnHost(header: string | null): boolean {
  return isAllowedHost(header, new Set(OWN));
}

/** Where other devices reach this machine: its IPv4 addresses, on which it listens. */
export function addresses(): string[] {
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  return all.filter((a) => !a.internal && a.family === "IPv4").map((a) => a.address);
}
