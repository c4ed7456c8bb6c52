/** Guards every request: only known hosts, only its own pages, only with the access code where one is set. */
import { type NextRequest, NextResponse } from "next/server";
import {
  ACCESS_PATH,
  accessKeys,
  askForCode,
  hasSession,
  ownPath,
  SESSION_COOKIE,
  takeCode,
} from "./server/guard/access";
import { allowedHosts, isAllowedHost, isOwnHost } from "./server/guard/allowed-hosts";
import { securityHeaders } from "./server/guard/security-headers";
import { doorOf, turnedAway } from "./server/guard/turned-away";

export async function proxy(request: NextRequest): Promise<Response> {
  const nonce = Buffer.from(crypto.randomUUID()).toString("base64");
  const headers = securityHeaders(nonce, isOwnHost(request.headers.get("host")));
  const response = (await refused(request, nonce)) ?? passed(request, headers);
  for (const [name, value] of Object.entries(headers)) response.headers.set(name, value);
  return response;
}

/** The answer to what may not pass; `null` = it may. */
async function refused(request: NextRequest, nonce: string): Promise<Response | null> {
  const keys = accessKeys();
  if (!isAllowedHost(request.headers.get("host"), allowedHosts(keys !== null)))
    return said(421, "This address is not served here. Open the address that the terminal shows.");
  const { pathname, search } = request.nextUrl;
  const isCodeForm = keys !== null && pathname === ACCESS_PATH;
  const turned = turnedAway(request.method, request.headers, doorOf(pathname, isCodeForm));
  if (turned) return said(turned.status, turned.message);
  if (keys === null) return null;
  const now = Date.now();
  if (isCodeForm && request.method === "POST") return takeCode(request, keys, nonce, now);
  if (!hasSession(request.cookies.get(SESSION_COOKIE)?.value, keys, now)) {
    const isPage = request.method === "GET" && (request.headers.get("accept") ?? "").includes("text/html");
    return isPage ? askForCode(ownPath(pathname + search), nonce) : said(401, "This bench asks for its access code.");
  }
  // Also for who is in already: the page takes the code out of the address, and nothing else would.
  return isCodeForm ? askForCode("/", nonce) : null;
}

/** The policy goes along with the request as well: the pages take the nonce for their scripts from there. */
function passed(request: NextRequest, policy: Record<string, string>): Response {
  const headers = new Headers(request.headers);
  headers.set("Content-Security-Policy", policy["Content-Security-Policy"] ?? "");
  return NextResponse.next({ request: { headers } });
}

function said(status: number, message: string): Response {
  return new Response(message, {
    status,
    headers: { "Content-Type": "text/plain; charset=utf-8", "Cache-Control": "no-store" },
  });
}
