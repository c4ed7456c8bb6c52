/**
 * The access code of a bench that is open to the local network, and the sessions it opens.
 *
 * A session is a signed moment: nothing is kept of it, and it outlives a restart. The key that signs is not made from the
 * code, so that a code cannot be found by forging sessions, where nobody counts the attempts.
 */
import { createHash, createHmac, randomBytes, randomInt, timingSafeEqual } from "node:crypto";

/** Without letters and digits that look alike: 8 of 31 are 40 bits. */
const LETTERS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ";
const LENGTH = 8;
const DAY_MS = 86_400_000;
export const SESSION_DAYS = 30;

export function newCode(): string {
  return Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join("");
}

/** As it is read aloud: in two halves. */
export function codeWords(code: string): string {
  return `${code.slice(0, LENGTH / 2)} ${code.slice(LENGTH / 2)}`;
}

/** Whether what was typed is the code; small letters, blanks and hyphens do not matter. */
export function isCode(typed: string, code: string): boolean {
  const digest = (text: string) => createHash("sha256").update(text).digest();
  return timingSafeEqual(digest(typed.toUpperCase().replace(/[\s-]/g, "")), digest(code));
}

export function newSession(secret: string, now: number): string {
  const body = `${now}.${randomBytes(9).toString("base64url")}`;
  return `${body}.${signed(secret, body)}`;
}

export function isSession(token: string | undefined, secret: string, now: number): boolean {
  const [, body, at, signature] = /^((\d{1,15})\.[\w-]{1,40})\.([\w-]{43})$/.exec(token ?? "") ?? [];
  if (body === undefined || at === undefined || signature === undefined) return false;
  if (!timingSafeEqual(Buffer.from(signature), Buffer.from(signed(secret, body)))) return false;
  // A clock that was set back ends no session.
  return now - Number(at) < SESSION_DAYS * DAY_MS;
}

function signed(secret: string, body: string): string {
  return createHmac("sha256", secret).update(body).digest("base64url");
}
