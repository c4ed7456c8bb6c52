/** The case of the first letter, by where a text stands. */

/** For the beginning of a sentence: `Zero of the jaws`. */
export function atBeginning(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Names of axes and abbreviations keep their capitals everywhere. */
const KEEPS_CAPITAL = /^([XYZ]\b|\p{Lu}{2})/u;

/** For use within a sentence: `axis scale X`. */
export function withinSentence(text: string): string {
  return KEEPS_CAPITAL.test(text) ? text : text.charAt(0).toLowerCase() + text.slice(1);
}
