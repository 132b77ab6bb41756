import { readPathData, STEP } from '@cuaderno/core';
import { FormulaError, setFormula } from './index.js';

async function fault(source: string): Promise<FormulaError> {
  try {
    await setFormula(source, 'latex');
  } catch (error) {
    if (error instanceof FormulaError) return error;
    throw error;
  }
  throw new Error(`${source} was taken.`);
}

describe('formulas', () => {
  it('are outlines that lie in their box', async () => {
    for (const source of [
      '\\frac{-b\\pm\\sqrt{b^2-4ac}}{2a}',
      '\\left(\\begin{matrix}1\\\\2\\\\3\\\\4\\\\5\\end{matrix}\\right)',
      '\\sum_{i=1}^n i^3\\underbrace{abcdefgh}_{5}',
      '\\mathbb{R}\\mathcal{C}\\mathfrak{g}\\ \\text{für é}\\ \\cancel{x}',
      '\\begin{array}{c|c}a&b\\\\\\hline c&d\\end{array}',
    ]) {
      const { outline, box } = await setFormula(source, 'latex');
      const { steps, numbers } = readPathData(outline);
      expect(outline).toMatch(/^[MLCQZ\d -]+$/);
      expect(steps[0]).toBe(STEP.move);
      let inside = true;
      for (let i = 0; i < numbers.length; i += 2)
        inside &&=
          numbers[i]! >= -80 &&
          numbers[i]! <= box.width + 80 &&
          numbers[i + 1]! >= -80 &&
          numbers[i + 1]! <= box.height + 80;
      expect(inside).withContext(source).toBeTrue();
    }
  });

  it('stand as high as The TeXbook has them: a fraction is higher than its parts, an index lower', async () => {
    // Knuth, The TeXbook, appendix G, in words: rules 11 and 18.
    const heights = await Promise.all(
      ['a', '\\frac{a}{b}', 'a^2', '\\frac{\\frac{a}{b}}{c}'].map(
        async (source) => (await setFormula(source, 'latex')).box.height,
      ),
    );
    expect([...heights].sort((a, b) => a - b)).toEqual([
      heights[0]!,
      heights[2]!,
      heights[1]!,
      heights[3]!,
    ]);
  });

  it('are the same typed on a keyboard as in LaTeX', async () => {
    for (const [typed, latex] of [
      ['sqrt(x^2+1)/2', '\\frac{\\sqrt{x^2+1}}{2}'],
      ['sum_(i=1)^n i', '\\sum_{i=1}^n i'],
      ['a <= pi', 'a\\le\\pi'],
    ] as const)
      expect(await setFormula(typed, 'typed')).toEqual(await setFormula(latex, 'latex'));
  });

  it('stretch brackets only as far as they reach', async () => {
    const { outline, box } = await setFormula(
      '\\left(\\begin{matrix}1\\\\2\\\\3\\\\4\\\\5\\\\6\\\\7\\\\8\\end{matrix}\\right.',
      'latex',
    );
    const highest = Math.max(...readPathData(outline).numbers.filter((_, i) => i % 2 === 1));
    expect(highest).toBeLessThanOrEqual(box.height + 1);
  });

  it('say in plain words what is wrong with them', async () => {
    expect((await fault('')).fault).toBe('empty');
    expect((await fault('x'.repeat(3000))).fault).toBe('too-long');
    expect((await fault('\\frac{a}{')).message).toContain('put }');
    expect((await fault('a}')).message).toContain('without its {');
    expect((await fault('x^2^3')).message).toContain('Two powers');
    expect((await fault('\\fracc{a}{b}')).message).toContain('\\fracc');
    expect((await fault('\\left( a')).message).toContain('\\right');
    expect((await fault('\\begin{matrix} a')).message).toContain('\\end');
    expect((await fault('a \\text{你}')).fault).toBe('letters');
  });

  it('can’t define what would never end, nor fetch anything', async () => {
    expect((await fault('\\def\\a{\\a\\a}\\a')).fault).toBe('syntax');
    expect((await fault('\\href{https://example.org}{x}')).fault).toBe('syntax');
    expect((await fault('\\require{html}x')).fault).toBe('syntax');
  });
});
