/**
 * Reads a range of letters as CSS writes it, `U+0000-00FF, U+0131` (CSS Fonts 4, 4.5; without wildcards).
 * @returns whether a code point is in it
 */
export function readUnicodeRange(range: string): (code: number) => boolean {
  const parts = [...range.matchAll(/U\+([0-9a-f]+)(?:-([0-9a-f]+))?/gi)].map(
    ([, from, to]) => [parseInt(from!, 16), parseInt(to ?? from!, 16)] as const,
  );
  return (code) => parts.some(([from, to]) => code >= from && code <= to);
}

/**
 * A font in numbered files, as its package lists them (`unicode.json` of a Fontsource package): the number of each file,
 * in brackets, and the letters in it. Entries without a number are alphabets, which are left out.
 */
export function numberedFiles(
  list: Readonly<Record<string, string>>,
): readonly { readonly number: string; readonly range: string }[] {
  return Object.entries(list).flatMap(([key, range]) => {
    const [, number] = /^\[(\d+)\]$/.exec(key) ?? [];
    return number === undefined ? [] : [{ number, range }];
  });
}
