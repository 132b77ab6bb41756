/** What somebody is called, and which of those of that name it is: the first is 1. */
export interface Named {
  readonly name: string;
  readonly nth: number;
}

/** A name as it is shown: two of one name are told apart. */
export function nameOf({ name, nth }: Named): string {
  return nth > 1 ? `${name} (${nth})` : name;
}

/** One or two letters that stand for a name: the first of its first and last word. */
export function initialsOf({ name, nth }: Named): string {
  const words = name.split(/[\s-]+/u).filter(Boolean);
  const first = [...new Intl.Segmenter().segment(words[0] ?? '')][0]?.segment ?? '?';
  const last =
    words.length > 1 ? [...new Intl.Segmenter().segment(words[words.length - 1]!)][0]!.segment : '';
  return `${first}${last}`.toLocaleUpperCase() + (nth > 1 ? String(nth) : '');
}
