/** Hands a file that was made on this page to the browser, to be kept where it keeps downloads. */
export function giveFile(name: string, text: string, mime: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: mime }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), BEGUN_BY_MS);
}

/** By then every browser has begun to read it. */
const BEGUN_BY_MS = 10_000;
