import { MathJaxNewcmFont } from '@mathjax/mathjax-newcm-font/js/svg.js';
import { liteAdaptor } from '@mathjax/src/js/adaptors/liteAdaptor.js';
import { HTMLDocument } from '@mathjax/src/js/handlers/html/HTMLDocument.js';
import { TeX } from '@mathjax/src/js/input/tex.js';
import '@mathjax/src/js/input/tex/ams/AmsConfiguration.js';
import '@mathjax/src/js/input/tex/base/BaseConfiguration.js';
import '@mathjax/src/js/input/tex/boldsymbol/BoldsymbolConfiguration.js';
import '@mathjax/src/js/input/tex/cancel/CancelConfiguration.js';
import '@mathjax/src/js/input/tex/textmacros/TextMacrosConfiguration.js';
import asciimath from 'asciimath2tex';
import { STATE } from '@mathjax/src/js/core/MathItem.js';
import { SerializedMmlVisitor } from '@mathjax/src/js/core/MmlTree/SerializedMmlVisitor.js';
import { mathjax } from '@mathjax/src/js/mathjax.js';
import type { MmlNode } from '@mathjax/src/js/core/MmlTree/MmlNode.js';
import { SVG } from '@mathjax/src/js/output/svg.js';
import { MAX_FORMULA } from '@cuaderno/core';
import type { FormulaSpec } from '@cuaderno/core';
import { FONT_PARTS } from './font-parts.js';
import { FormulaError, inPlainWords } from './formula-error.js';
import { outlineOfSvg } from './outline.js';

export type Notation = FormulaSpec['notation'];

/** A formula that was set: see `FormulaSpec`. */
export type SetFormula = Pick<FormulaSpec, 'outline' | 'box'>;

const adaptor = liteAdaptor();

/** MathJax asks for parts of its font by the paths at which it would find them. */
mathjax.asyncLoad = (name: string) => {
  const part = FONT_PARTS[name.replace(/^.*\//, '').replace(/\.js$/, '')];
  return part ? part() : Promise.reject(new Error(`There is no font part ${name}.`));
};

const formulas = new HTMLDocument('', adaptor, {
  InputJax: new TeX({
    packages: ['base', 'ams', 'boldsymbol', 'cancel', 'textmacros'],
    formatError: (_tex: unknown, error: Error) => {
      throw new FormulaError('syntax', inPlainWords(error));
    },
  }),
  OutputJax: new SVG({
    fontCache: 'none',
    fontData: MathJaxNewcmFont,
    linebreaks: { inline: false },
  }),
});
/** Its types speak of its other entry: what is imported is the class, in Node and in browsers. */
const TypedReader = asciimath as unknown as new () => { parse(source: string): string };
const typed = new TypedReader();

/**
 * Sets a formula as formulas are set on a line of their own. What is typed is read as AsciiMath.
 * Throws `FormulaError` where it can't be read.
 */
export async function setFormula(source: string, notation: Notation): Promise<SetFormula> {
  if (source.trim() === '') throw new FormulaError('empty', 'Write a formula first.');
  if (source.length > MAX_FORMULA)
    throw new FormulaError('too-long', 'That is too long for one formula. Make two of it.');
  const node = await formulas
    .convertPromise(notation === 'typed' ? typed.parse(source) : source, {
      display: true,
      em: 16,
      ex: 8,
      containerWidth: 1e6,
    })
    .catch((error: unknown) => {
      if (error instanceof FormulaError) throw error;
      // Letters that its font lacks have to be measured by a browser, and here is none.
      throw new FormulaError(
        'letters',
        'It has a letter that formulas can’t be written with. Put that beside it as a text.',
      );
    });
  return outlineOfSvg(adaptor, adaptor.tags(node as never, 'svg')[0]!);
}

/** What MathJax notes for itself on each part, as the LaTeX that it came from. */
const OWN_NOTES = / data-(?:latex|mjx)[a-z-]*="[^"]*"/g;

/** A formula that can be set in MathML Core (W3C), for who reads it aloud. Throws `FormulaError` where it can’t be read. */
export function mathMlOf(source: string, notation: Notation): string {
  const latex = notation === 'typed' ? typed.parse(source) : source;
  const tree: unknown = formulas.convert(latex, { display: true, end: STATE.CONVERT });
  return new SerializedMmlVisitor().visitTree(tree as MmlNode).replace(OWN_NOTES, '');
}

/** What is typed on a keyboard, in LaTeX. */
export function latexOf(source: string): string {
  return typed.parse(source);
}
