/** Who may come in from the local network: a browser with a session, or one that types the access code. */

import { isCode, isSession, newSession, SESSION_DAYS } from "./access-code";
import { Attempts } from "./attempts";
import { type CodePage, codePage } from "./code-page";

export type AccessKeys = { code: string; secret: string };

/** Header with the address of the connection. The front door overwrites any value that the request has. */
export const FROM_HEADER = "x-ustrina-from";
/** Where the code is typed. */
export const ACCESS_PATH = "/access";
export const SESSION_COOKIE = "ustrina-session";

/** What the terminal handed over; `null` = the bench is open to this computer alone, and asks for no code. */
export function accessKeys(env: Record<string, string | undefined> = process.env): AccessKeys | null {
  const { USTRINA_ACCESS_CODE: code, USTRINA_ACCESS_SECRET: secret } = env;
  return code && secret ? { code, secret } : null;
}

const held = globalThis as typeof globalThis & { ustrinaAttempts?: Attempts };

/** The page on which the code is typed, in place of whatever was asked for. */
export function askForCode(
  to: string,
  nonce: string,
  fault: Pick<CodePage, "fault" | "status"> | null = null,
): Response {
  const { status, fault: words } = fault ?? { status: 401, fault: null };
  return new Response(codePage({ to, nonce, fault: words, status }), {
    status,
    headers: { "Content-Type": "text/html; charset=utf-8", "Cache-Control": "no-store" },
  });
}

/** Takes the form of the code page: a session, or the page again with what is wrong. */
export async function takeCode(request: Request, keys: AccessKeys, nonce: string, now: number): Promise<Response> {
  held.ustrinaAttempts ??= new Attempts();
  const form = new URLSearchParams(await request.text());
  const to = ownPath(form.get("to"));
  const from = request.headers.get(FROM_HEADER) ?? "";
  const wait = held.ustrinaAttempts.waitS(from, now);
  if (wait > 0) {
    const again = askForCode(to, nonce, { status: 429, fault: `Too many wrong codes. Try again in ${wait} s.` });
    again.headers.set("Retry-After", String(wait));
    return again;
  }
  if (!isCode(form.get("code") ?? "", keys.code)) {
    held.ustrinaAttempts.wrong(from, now);
    const fault = "This is not the code. It is shown in the terminal in which Ustrina runs, and on the bench.";
    return askForCode(to, nonce, { status: 403, fault });
  }
  const cookie = [
    `${SESSION_COOKIE}=${newSession(keys.secret, now)}`,
    ...["Path=/", `Max-Age=${SESSION_DAYS * 86_400}`, "HttpOnly", "SameSite=Strict"],
  ];
  const on = goOn(request, to);
  on.headers.set("Set-Cookie", cookie.join("; "));
  return on;
}

/** On to another page of this server, at the name by which it was called. */
function goOn(request: Request, to: string): Response {
  const { protocol } = new URL(request.url);
  return new Response(null, { status: 303, headers: { Location: `${protocol}//${request.headers.get("host")}${to}` } });
}

export function hasSession(token: string | undefined, keys: AccessKeys, now: number): boolean {
  return isSession(token, keys.secret, now);
}

/** Where to go on after the code: a path of this server, never an address elsewhere. */
export function ownPath(to: string | null): string {
  const isOwn = to !== null && /^\/(?![/\\])[\w\-./?=&%]*$/.test(to) && !to.startsWith(ACCESS_PATH);
  return isOwn ? to : "/";
}
