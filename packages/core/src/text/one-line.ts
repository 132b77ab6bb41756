/** Controls, and what turns or hides other text. Joiners stay: scripts need them. */
const UNSEEN = /[\p{Cc}\u2028\u2029\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]/gu;

/** Text as it is kept where it is one line: composed (Unicode NFC), trimmed, without characters nobody sees. */
export function oneLine(text: string): string {
  return text
    .normalize('NFC')
    .replace(/[\t\n\r]/g, ' ')
    .replace(UNSEEN, '')
    .replace(/\s+/g, ' ')
    .trim();
}
