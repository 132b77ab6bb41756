/** Whether two names mean one font: spaces, hyphens and case tell them apart in no program. */
export function isSameFont(a: string, b: string): boolean {
  const plain = (name: string): string =>
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]/gu, '')
      .replace(/(ps)?(mt)?$/, '');
  return plain(a) === plain(b);
}
