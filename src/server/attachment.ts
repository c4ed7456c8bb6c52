/** Files that the pages give away. */

/** A name of any letters. [RFC 6266, 4.3; RFC 8187, 3.2] */
export function attachment(name: string): string {
  const plain = name.replace(/[^\w.-]/g, "_");
  // Half of a pair of surrogates is no letter.
  const encoded = encodeURIComponent(name.replace(/\p{Cs}/gu, "_")).replace(
    /['()*]/g,
    (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`,
  );
  return `attachment; filename="${plain}"; filename*=UTF-8''${encoded}`;
}
