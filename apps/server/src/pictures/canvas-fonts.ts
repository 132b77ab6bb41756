import { eastAsianIn } from '@cuaderno/core';
import { GlobalFonts } from '@napi-rs/canvas';
import { createHash } from 'node:crypto';
import { eastAsianFiles } from '../fonts/east-asian-files.js';
import { fontFiles } from '../fonts/font-files.js';

/** Names that files of fonts have been given, by what is in them: a name has room for one file. */
const given = new Map<string, string>();

function nameOf(file: Uint8Array): string {
  const hash = createHash('sha256').update(file).digest('hex');
  const name = given.get(hash) ?? `Cuaderno ${given.size}`;
  if (!given.has(hash)) GlobalFonts.register(Buffer.from(file), name);
  given.set(hash, name);
  return name;
}

const lettersOf = (words: string): ReadonlySet<number> =>
  new Set([...words].map((letter) => letter.codePointAt(0)!));

/** By the words, a student's name mostly: it is written across every page that they look at. */
const ours = new Map<string, Promise<string[]>>();

/** Families of our own font, in bold, for these words: the first that has a letter is to be taken. */
export function ourFamilies(words: string): Promise<string[]> {
  const style = { font: 'plain', bold: true, slant: false, eastAsian: eastAsianIn(words) } as const;
  const known =
    ours.get(words) ?? fontFiles(style, lettersOf(words)).then((all) => all.map(nameOf));
  ours.set(words, known);
  return known;
}

/** Families for the Chinese, Japanese and Korean in these words; none where there is none. */
export async function eastAsianFamilies(words: string): Promise<string[]> {
  return (await eastAsianFiles(eastAsianIn(words), lettersOf(words), 400)).map(nameOf);
}
