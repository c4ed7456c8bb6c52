/** Refuses requests before their body is read. On the local network, a device without the access code may send only the code. */
import { ACCESS_PATH, type AccessKeys, hasSession, SESSION_COOKIE } from "./access";
import { LARGEST_FORM, type Turned } from "./turned-away";

export type AtDoor = {
  method: string;
  /** Path with its query. */
  url: string;
  headers: Readonly<Record<string, string | string[] | undefined>>;
};

/** @returns `null` if the request may continue */
export function refusedAtDoor({ method, url, headers }: AtDoor, keys: AccessKeys | null, now: number): Turned | null {
  if (keys === null || hasSession(cookieIn(headers), keys, now)) return null;
  const bytes = bodyOf(headers);
  if (bytes === 0) return null;
  const isForm = method === "POST" && url.split("?")[0] === ACCESS_PATH;
  if (!isForm) return { status: 401, message: "This bench asks for its access code." };
  return bytes > LARGEST_FORM ? { status: 413, message: "This is too large for an access code." } : null;
}

/** Length of the body in bytes; Infinity if the request does not say it. */
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
