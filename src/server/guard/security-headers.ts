/** What every answer says to the browser: no script but its own, nothing from elsewhere, in no frame. */

/** @param isTrusted whether the browser trusts this address without encryption; others only complain about some headers */
export function securityHeaders(nonce: string, isTrusted: boolean): Record<string, string> {
  return {
    "Content-Security-Policy": policyFor(nonce),
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=()",
    ...(isTrusted && { "Cross-Origin-Opener-Policy": "same-origin" }),
  };
}

/** Development needs eval for its reloading; nothing else differs. */
function policyFor(nonce: string): string {
  const development = process.env.NODE_ENV === "development";
  return [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${development ? " 'unsafe-eval'" : ""}`,
    "script-src-attr 'none'",
    // Drawings and charts are placed with style attributes, and two of the parts bring a style of their own.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    `connect-src 'self'${development ? " ws:" : ""}`,
    "worker-src 'self'",
    "frame-src 'none'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}
