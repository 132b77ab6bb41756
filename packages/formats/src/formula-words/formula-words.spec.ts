import { mathMlOf } from '../formula/index.js';
import { formulaWords } from './index.js';

const read = (latex: string): Promise<string> => formulaWords(mathMlOf(latex, 'latex'));

describe('formulas in words', () => {
  it('are read as the rules of ClearSpeak have them', async () => {
    // ClearSpeak Rules and Preferences (Educational Testing Service, 2015): its examples of powers,
    // roots, fractions, and of the quadratic formula; from memory, with the preferences it sets by itself.
    for (const [latex, words] of [
      ['x^2+1', 'x squared plus 1'],
      ['\\frac12', 'one half'],
      ['\\sqrt[3]{8}', 'the cube root of 8'],
      ['f(x)', 'f of x'],
      ['a^2+b^2=c^2', 'a squared plus b squared equals c squared'],
      ['x_1', 'x sub 1'],
      [
        '\\frac{-b\\pm\\sqrt{b^2-4ac}}{2a}',
        'the fraction with numerator negative b plus or minus the square root of b squared minus 4 a c and denominator 2 a',
      ],
    ] as const)
      expect(await read(latex))
        .withContext(latex)
        .toBe(words);
  });

  it('are read as what is meant by them, where LaTeX has only the looks', async () => {
    expect(await read('30^\\circ')).toBe('30 degrees');
    expect(await read('\\alpha=23.5^{\\circ}')).toBe('alpha equals 23.5 degrees');
    expect(await read('\\frac{\\Delta v}{\\Delta t}')).toBe('delta v over delta t');
    expect(await read('12\\,\\mathrm{m/s}')).toBe('12 meters divided by seconds');
    expect(await read('F=G\\frac{m_1m_2}{r^2}')).not.toContain('of');
  });

  it('are the same typed on a keyboard', async () => {
    expect(await formulaWords(mathMlOf('sqrt(x^2+1)/2', 'typed'))).toBe(
      await read('\\frac{\\sqrt{x^2+1}}{2}'),
    );
    expect(await formulaWords(mathMlOf('90^@', 'typed'))).toBe('90 degrees');
  });

  it('are left out where they would be more than is kept, or can’t be put into words', async () => {
    expect(await read(`x${'+\\frac{x}{\\sqrt{y}}'.repeat(100)}`)).not.toBe('');
    expect(await formulaWords('<math>')).toBe('');
  });
});
