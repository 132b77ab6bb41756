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
