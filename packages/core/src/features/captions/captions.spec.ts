import fc from 'fast-check';
import { captionCues, CaptionText, MAX_CAPTION, readingTime, splitCaption } from './index.js';

describe('captions', () => {
  it('are one line each, without what nobody sees', () => {
    expect(CaptionText.parse('  Low\nwater\u202e is at  ten. ')).toBe('Low water is at ten.');
    expect(CaptionText.safeParse(' \n ').success).toBeFalse();
    expect(CaptionText.safeParse('潮'.repeat(MAX_CAPTION)).success).toBeTrue();
    expect(CaptionText.safeParse('a'.repeat(MAX_CAPTION + 1)).success).toBeFalse();
  });

  it('that go on and on are split where a sentence ends, else a part of one, else a word', () => {
    const sentence =
      'The moon pulls at the sea, and the sea comes up the beach towards us twice a day.';
    const words =
      'and then it goes out again as far as the old lighthouse stands and a little more ';
    expect(splitCaption(sentence)).toBeNull();
    const long = `${sentence} ${sentence} ${words}`;
    expect(splitCaption(long)).toEqual({ line: `${sentence} ${sentence} `, rest: words });
    expect(splitCaption(words.repeat(3))!.line.endsWith(' ')).toBeTrue();
    expect(splitCaption('–'.padEnd(150, 'a') + `, ${'b'.repeat(90)}`)!.rest).toBe('b'.repeat(90));
  });

  it('lose no letter by being split, and each part fits', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', minLength: MAX_CAPTION + 1, maxLength: 900 }),
        (typed) => {
          const split = splitCaption(typed);
          fc.pre(split !== null);
          expect(split!.line + split!.rest).toBe(typed);
          expect(split!.line.length).toBeGreaterThan(0);
          expect([...split!.line].length).toBeLessThanOrEqual(MAX_CAPTION);
        },
      ),
    );
  });

  it('stand long enough to be read, in any script', () => {
    expect(readingTime('Yes.')).toBe(1000);
    expect(readingTime('one two three four five six seven eight')).toBe(3000);
    expect(readingTime('潮水每天涨落两次，因为月亮。')).toBeGreaterThan(1800);
  });

  it('are shown until they are read, and no longer than until the next one', () => {
    const line = (text: string, from: number, at: number) => ({ text, from, at });
    const eight = 'one two three four five six seven eight';
    expect(
      captionCues([line(eight, 0, 1000), line(eight, 2000, 9000), line('Yes', 20_000, 20_000)]),
    ).toEqual([
      { text: eight, from: 0, to: 2000 },
      { text: eight, from: 2000, to: 9000 },
      { text: 'Yes', from: 20_000, to: 21_000 },
    ]);
  });
});
