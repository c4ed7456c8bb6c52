/**
 * What is turned away before a byte of its body is taken in: on the local network whoever has not given the access code sends nothing but
 * the code.
 */
import { ACCESS_PATH, type AccessKeys, hasSession, SESSION_COOKIE } from "./access";
import { LARGEST_FORM, type Turned } from "./turned-away";

export type AtDoor = {
  method: string;
  /** Path with its query. */
  url: string;
  headers: Readonly<Record<string, string | string[] | undefined>>;
};

/** @returns `null` where it may go on to what answers it */
export function refusedAtDoor({ method, url, headers }: AtDoor, keys: AccessKeys | null, now: number): Turned | null {
  if (keys === null || hasSession(cookieIn(headers), keys, now)) return null;
  const bytes = bodyOf(headers);
  if (bytes === 0) return null;
  const isForm = method === "POST" && url.split("?")[0] === ACCESS_PATH;
  if (!isForm) return { status: 401, message: "This bench asks for its access code." };
  return bytes > LARGEST_FORM ? { status: 413, message: "This is too large for an access code." } : null;
}

/** Bytes that are to come; Infinity where that is not said beforehand. */
function bodyOf(headers: AtDoor["headers"]): number {
  if (headers["transfer-encoding"] !== undefined) return Infinity;
  const length = headers["content-length"];
  if (length === undefined) return 0;
  const bytes = Number(length);
  return Number.isSafeInteger(bytes) && bytes >= 0 ? bytes : Infinity;
}

function cookieIn(headers: AtDoor["headers"]): string | undefined {
  const cookies = String(headers.cookie ?? "").split(/;\s*/);
  const own = cookies.find((c) => c.startsWith(`${SESSION_COOKIE}=`));
  return own?.slice(SESSION_COOKIE.length + 1);
}
