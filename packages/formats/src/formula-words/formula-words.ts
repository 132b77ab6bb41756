import './node-global.js';
import { MAX_FORMULA_WORDS } from '@cuaderno/core';
import { setupEngine } from 'speech-rule-engine/js/api/control.js';
import { toSpeech } from 'speech-rule-engine/js/api/string.js';

/** Its rules, which it would fetch by an address: each is told by itself, so that it becomes a file of its own. */
const RULES: Readonly<Record<string, () => Promise<{ readonly default: unknown }>>> = {
  base: () => import('speech-rule-engine/lib/mathmaps/base.json', { with: { type: 'json' } }),
  en: () => import('speech-rule-engine/lib/mathmaps/en.json', { with: { type: 'json' } }),
};

/** As teachers say formulas in class: ClearSpeak (Educational Testing Service), not a transcript of every brace. */
const MANNER = { locale: 'en', domain: 'clearspeak', modality: 'speech', markup: 'none' };

let ready: Promise<unknown> | undefined;

/**
 * How a formula is read aloud, in English: “x squared plus 1”. Empty where it can’t be put into words, or not in as many
 * as are kept with a formula.
 * @param mathml see `mathMlOf`
 */
export async function formulaWords(mathml: string): Promise<string> {
  await (ready ??= learn());
  const words = spoken(asMeant(mathml)).replace(/\s+/g, ' ').trim();
  return words.length > MAX_FORMULA_WORDS ? '' : words;
}

/** It tells what it can't read by an error, or by nothing. */
function spoken(mathml: string): string {
  try {
    return toSpeech(mathml);
  } catch {
    return '';
  }
}

/** Its types leave out that rules may be found by a function. */
const setUp = setupEngine as (manner: object) => Promise<unknown>;

/** Its first set-up only says how rules are found; the second reads them. */
async function learn(): Promise<void> {
  const custom = async (name: string): Promise<unknown> => (await RULES[name]?.())?.default;
  await setUp({ ...MANNER, custom });
  await setUp({ ...MANNER, custom });
}

/** A number with a small ring above it. */
const DEGREES =
  /<msup>\s*(<mn>[^<]*<\/mn>)\s*(?:<mrow>\s*)?<mo>&#x2218;<\/mo>\s*(?:<\/mrow>\s*)?<\/msup>/g;
const DELTA = /<mi mathvariant="normal">&#x394;<\/mi>/g;
/** A letter before a fraction. */
const FACTOR = /(<mi[^>]*>[^<]*<\/mi>)(\s*<mfrac>)/g;

/** What LaTeX can only write by its looks, as what it is meant as. */
function asMeant(mathml: string): string {
  return (
    mathml
      // Read as “normal triangle”; it is a change of what follows, or a letter.
      .replace(DELTA, '<mi>delta</mi>')
      .replace(DEGREES, '$1<mo>°</mo>')
      // It is a factor; it would be read as the name of a function.
      .replace(FACTOR, '$1<mo>&#x2062;</mo>$2')
  );
}
