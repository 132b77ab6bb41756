/** Languages in which lessons are written, as BCP 47 has them; which, that is the tutor's to say. */
const CODES = (
  'ar be bg bn ca cs cy da de el en en-GB es et eu fa fi fr ga gl he hi hr hu hy id is it ja ka kk ko lt lv mk mn ' +
  'mr ms mt nb ne nl nn pl pt ro ru se sk sl sq sr sv sw ta te th tr uk ur uz vi zh'
).split(' ');

export interface Language {
  readonly code: string;
  readonly label: string;
}

/** The languages by name, in the order of the alphabet. */
export function languages(): Language[] {
  const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'code' });
  return CODES.map((code) => ({ code, label: names.of(code) ?? code })).sort((a, b) =>
    a.label.localeCompare(b.label),
  );
}

/** The one of them that this browser asks for. */
export function ownLanguage(): string {
  const [full, short] = [navigator.language, navigator.language.split('-')[0]!];
  return CODES.includes(full) ? full : CODES.includes(short) ? short : 'en';
}
