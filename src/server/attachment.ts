/** Files that the pages give away. */
import { Refusal } from "./refusal";

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

/** A file of words to take away; what is refused is said in words. */
export function textFile(make: () => { name: string; mime: string; text: string }): Response {
  try {
    const { name, mime, text } = make();
    return new Response(text, {
      headers: {
        "Content-Type": `${mime}; charset=utf-8`,
        "Content-Disposition": attachment(name),
        "Cache-Control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Refusal) return new Response(error.message, { status: 422 });
    throw error;
  }
}
