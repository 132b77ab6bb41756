import fc from 'fast-check';
import { layOutText, plainText } from './index.js';
import type { Align, RichText } from './index.js';

/** Every letter 5 points wide, 6 in bold. */
const measure = (text: string, { bold }: { bold: boolean }): number =>
  [...text].length * (bold ? 6 : 5);
const lay = (text: RichText, width: number, align: Align = 'start') =>
  layOutText(text, { size: 10, width, align }, measure);
const plain = (words: string): RichText => [{ runs: [{ text: words }] }];
const said = (text: RichText, width: number): string[] =>
  lay(text, width).lines.map(({ runs }) => runs.map((run) => run.text).join(''));

describe('a text in lines', () => {
  it('breaks between words, and leaves the space at the end of a line', () => {
    expect(said(plain('low water at ten'), 50)).toEqual(['low water', 'at ten']);
    expect(said(plain('low'), 50)).toEqual(['low']);
    expect(said([], 50)).toEqual(['']);
  });

  it('breaks after a hyphen, between ideographs, and a word that is too long anywhere', () => {
    expect(said(plain('spring-tide'), 40)).toEqual(['spring-', 'tide']);
    expect(said(plain('潮汐表です'), 15)).toEqual(['潮汐表', 'です']);
    expect(said(plain('Zirkumpolar'), 30)).toEqual(['Zirkum', 'polar']);
    expect(said(plain('👩‍🚀👩‍🚀👩‍🚀'), 20).join('')).toBe('👩‍🚀👩‍🚀👩‍🚀');
  });

  it('breaks between words that stand together, where a word ends, and begins no line with a mark over nothing', () => {
    // “In Thai there is no space between words”; its words from memory.
    const words = ['ใน', 'ภาษา', 'ไทย', 'ไม่', 'มี', 'ช่อง', 'ว่าง', 'ระหว่าง', 'คำ'];
    const ends = new Set(words.map((_, i) => words.slice(0, i + 1).join('').length));
    for (let width = 40; width <= 140; width += 10) {
      const lines = said(plain(words.join('')), width);
      expect(lines.join('')).toBe(words.join(''));
      let at = 0;
      for (const line of lines) {
        expect([...line].length * 5).toBeLessThanOrEqual(width);
        expect(/^[\p{M}ๆ]/u.test(line)).toBeFalse();
        expect(ends.has((at += line.length))).toBeTrue();
      }
    }
    // A mark of repetition stays with what is said again.
    expect(said(plain('น้ำช้าๆ'), 30)).toEqual(['น้ำ', 'ช้าๆ']);
  });

  it('keeps looks apart on a line, and says where each begins', () => {
    const { lines } = lay(
      [{ runs: [{ text: 'ask ' }, { text: 'Ida', bold: true }, { text: ' now', slant: true }] }],
      200,
    );
    expect(lines[0]!.runs).toEqual([
      { text: 'ask ', x: 0, width: 20 },
      { text: 'Ida', x: 20, width: 18, bold: true },
      { text: ' now', x: 38, width: 20, slant: true },
    ]);
  });

  it('lies in the middle or at the end', () => {
    expect(lay(plain('low'), 100, 'middle').lines[0]!.runs[0]!.x).toBe(42.5);
    expect(lay(plain('low'), 100, 'end').lines[0]!.runs[0]!.x).toBe(85);
  });

  it('runs from the right where its first letter does', () => {
    const [run] = lay(plain('מים גבוהים'), 100).lines[0]!.runs;
    expect(run).toEqual({ text: 'מים גבוהים', x: 50, width: 50, rtl: true });
    expect(lay(plain('12 ماء'), 100).lines[0]!.runs[0]!.rtl).toBeTrue();
    expect(lay(plain('ebb ماء'), 100).lines[0]!.runs[0]!.rtl).toBeUndefined();
  });

  it('numbers the paragraphs of a list, and begins anew after others', () => {
    const item = (text: string) => ({ list: 'numbers' as const, runs: [{ text }] });
    const { lines } = lay([item('ebb'), item('flood'), { runs: [] }, item('neap')], 200);
    expect(lines.map(({ runs }) => runs.map(({ text }) => text))).toEqual([
      ['1.', 'ebb'],
      ['2.', 'flood'],
      [],
      ['1.', 'neap'],
    ]);
    expect(lines[0]!.runs[1]!.x).toBe(15);
  });

  it('never loses a letter, nor goes over its width but for a single one', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.string({ maxLength: 12 }).map((s) => s.replace(/\s/g, '') || 'x'),
          { maxLength: 12 },
        ),
        fc.integer({ min: 10, max: 120 }),
        (words, width) => {
          const text = plain(words.join(' ') || 'x');
          const { lines, height } = lay(text, width);
          const squeezed = (s: string) => s.replace(/\s+/g, '');
          const out = lines.flatMap(({ runs }) => runs.map((run) => run.text)).join('');
          expect(squeezed(out)).toBe(squeezed(plainText(text)));
          expect(height).toBeGreaterThan(0);
          for (const { runs } of lines)
            for (const run of runs)
              if ([...run.text].length > 1) expect(run.x + run.width).toBeLessThan(width + 5);
        },
      ),
    );
  });
});
