/** Why a formula can't be set. */
export type FormulaFault = 'empty' | 'too-long' | 'syntax' | 'letters';

/** Thrown for what isn't a formula; `message` says in plain words what to do about it. */
export class FormulaError extends Error {
  override readonly name = 'FormulaError';
  constructor(
    readonly fault: FormulaFault,
    message: string,
  ) {
    super(message);
  }
}

/** What MathJax calls mistakes, and what to do about them. */
const WORDS: Readonly<Record<string, string>> = {
  MissingCloseBrace: 'A brace is not closed: put } where its part ends.',
  ExtraOpenMissingClose: 'A brace is not closed: put } where its part ends.',
  ExtraCloseMissingOpen: 'There is a } without its {: take it away, or open one before it.',
  MissingOpenForSub: 'An index needs something before it: put {} there.',
  MissingOpenForSup: 'A power needs something before it: put {} there.',
  MissingArgFor: 'Something is missing after the last command: write it in braces.',
  DoubleExponent: 'Two powers follow each other: put braces round what is raised.',
  DoubleSubscripts: 'Two indices follow each other: put braces round the first.',
  ExtraLeftMissingRight: 'There is a \\left without its \\right.',
  MissingLeftExtraRight: 'There is a \\right without its \\left.',
  MissingOrUnrecognizedDelim: 'After \\left and \\right comes a bracket, or a dot for none.',
  EnvMissingEnd: 'A \\begin is without its \\end.',
  EnvBadEnd: 'A \\begin ends with another name than it began with.',
  Misplaced: 'An & stands where there are no columns.',
};

/** @param error as MathJax throws it, with an `id` and words of its own */
export function inPlainWords(error: Error & { readonly id?: string }): string {
  const known = WORDS[error.id ?? ''];
  if (known) return known;
  const command = /\\[a-zA-Z]+/.exec(error.message)?.[0];
  return error.id === 'UndefinedControlSequence' && command
    ? `${command} isn’t known here: check how it is written.`
    : `This can’t be read yet: ${error.message.toLowerCase()}.`;
}
