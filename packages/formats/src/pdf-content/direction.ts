import bidiFactory from 'bidi-js';

// Its types describe the module, its default being the maker; Node gives the maker itself.
const bidi = (bidiFactory as unknown as typeof bidiFactory.default)();

/** Letters that run one way, from left to right on paper. */
export interface Span {
  /** In the order in which they are read, brackets turned as they are seen. */
  readonly words: string;
  readonly rtl: boolean;
}

/**
 * A line of words in the order in which its spans stand on paper, from left to right: Unicode
 * Standard Annex 9, as bidi-js has it.
 * @param rtl whether the line as a whole runs from right to left
 * @param kind what else divides spans: letters of another kind begin a new one
 */
export function spansOf(text: string, rtl: boolean, kind: (letter: string) => unknown): Span[] {
  const { levels } = bidi.getEmbeddingLevels(text, rtl ? 'rtl' : 'ltr');
  const mirrored = bidi.getMirroredCharactersMap(text, levels);
  const spans: { words: string; level: number; kind: unknown }[] = [];
  let at = 0;
  for (const letter of text) {
    const level = levels[at]!;
    const seen = mirrored.get(at) ?? letter;
    const what = kind(letter);
    const last = spans.at(-1);
    if (last && last.level === level && last.kind === what) last.words += seen;
    else spans.push({ words: seen, level, kind: what });
    at += letter.length;
  }
  // Rule L2: from the highest level down, runs of spans at that level or above are turned round.
  const highest = Math.max(0, ...spans.map(({ level }) => level));
  for (let level = highest; level >= 1; level--)
    for (let from = 0; from < spans.length; from++) {
      let to = from;
      while (to < spans.length && spans[to]!.level >= level) to++;
      if (to > from) spans.splice(from, to - from, ...spans.slice(from, to).reverse());
      from = Math.max(from, to);
    }
  return spans.map(({ words, level }) => ({ words, rtl: level % 2 === 1 }));
}
