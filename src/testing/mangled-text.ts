/** Broken files for tests of readers: a good one with parts cut out, doubled, moved, turned, or put in from elsewhere. */

/** Numbers and words that readers stumble over. */
const SCRAPS = [
  "-",
  "..",
  "1e999",
  "NaN",
  "\u0000",
  "�",
  "9".repeat(40),
  "(",
  ")",
  "<",
  ">",
  "&",
  '"',
  "'",
  "\n",
  "\r",
  "\t",
  "  ",
  "0",
  "-0",
  "{",
  "}",
  "[",
  "]",
  ",",
  ";",
  "é",
  "𝟙",
  "M",
  "G2",
  "Z",
  "null",
  "\\u0000",
  "A1 1 0 0 0",
];

/**
 * @param seed the same seed, the same texts
 * @returns `count` texts, one after the other
 */
export function* mangled(text: string, count: number, seed: number): Generator<string> {
  let state = seed >>> 0 || 1;
  const upTo = (n: number) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * n);
  };
  for (let i = 0; i < count; i++) {
    let broken = text;
    for (let k = upTo(3); k >= 0; k--) broken = once(broken, upTo);
    yield broken;
  }
}

function once(text: string, upTo: (n: number) => number): string {
  const at = upTo(text.length + 1);
  const length = upTo(2) === 0 ? upTo(8) : upTo(Math.max(1, text.length >> 2));
  const part = text.slice(at, at + length);
  switch (upTo(6)) {
    case 0:
      return text.slice(0, at);
    case 1:
      return text.slice(0, at) + text.slice(at + length);
    case 2:
      return text.slice(0, at) + part + text.slice(at);
    case 3:
      return text.slice(0, at) + SCRAPS[upTo(SCRAPS.length)] + text.slice(at);
    case 4:
      return text.slice(0, at) + String.fromCharCode(upTo(0xd800)) + text.slice(at + 1);
    default:
      return text.slice(0, at) + [...part].reverse().join("") + text.slice(at + length);
  }
}
