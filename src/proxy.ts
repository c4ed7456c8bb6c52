/** Guards every request: only known hosts, and pages that run no script but their own. */
import { type NextRequest, NextResponse } from "next/server";

const HOSTS = new Set(["127.0.0.1", "localhost", "[::1]"]);

export function proxy(request: NextRequest): NextResponse {
  const host = (request.headers.get("host") ?? "").replace(/:\d+$/, "");
  if (!HOSTS.has(host))
    return new NextResponse("This address is not served here. Open the address that the terminal shows.", {
      status: 421,
    });
  const nonce = Buffer.from(crypto.randomUUID()).toString("base64");
  const policy = policyFor(nonce);
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("Content-Security-Policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("Content-Security-Policy", policy);
  response.headers.set("X-Content-Type-Options", "nosniff");
  response.headers.set("Referrer-Policy", "no-referrer");
  return response;
}

/** Development needs eval for its reloading; nothing else differs. */
function policyFor(nonce: string): string {
  const development = process.env.NODE_ENV === "development" ? " 'unsafe-eval'" : "";
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${development}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    `connect-src 'self'${development ? " ws:" : ""}`,
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

export const config = { matcher: ["/((?!_next/static|icon.svg).*)"] };
