/** What somebody is called, and which of those of that name it is: the first is 1. */
export interface Named {
  readonly name: string;
  readonly nameOrdinal: number;
}

/** A name as it is shown: two of one name are told apart. */
export function nameOf({ name, nameOrdinal }: Named): string {
  return nameOrdinal > 1 ? `${name} (${nameOrdinal})` : name;
}

/** Several names in one sentence: “Ana, Ben and Cleo”. */
export function listNames(names: readonly string[]): string {
  return names.length < 2
    ? (names[0] ?? '')
    : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
}

/** One or two letters that stand for a name: the first of its first and last word. */
export function initialsOf({ name, nameOrdinal }: Named): string {
  const words = name.split(/[\s-]+/u).filter(Boolean);
  const first = [...new Intl.Segmenter().segment(words[0] ?? '')][0]?.segment ?? '?';
  const last =
    words.length > 1 ? [...new Intl.Segmenter().segment(words[words.length - 1]!)][0]!.segment : '';
  return `${first}${last}`.toLocaleUpperCase() + (nameOrdinal > 1 ? String(nameOrdinal) : '');
}

/**
 * Whether a text names somebody. Only the whole name counts, written as it is written here: `Ida`, and `Ida’s`, but
 * neither `Idaho` nor `ida`.
 */
export function isNamedIn(text: string, name: string): boolean {
  return text.search(wholeName(name)) >= 0;
}

/** The text with another name in place of that one. */
export function renamedIn(text: string, name: string, to: string): string {
  return text.replace(wholeName(name), () => to);
}

/** Scripts in which words stand side by side. */
const NO_SPACES = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;

function wholeName(name: string): RegExp {
  const literally = name.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
  const [before, after] = NO_SPACES.test(name)
    ? ['', '']
    : ['(?<![\\p{L}\\p{M}\\p{N}])', '(?![\\p{L}\\p{M}\\p{N}])'];
  return new RegExp(`${before}${literally}${after}`, 'gu');
}
