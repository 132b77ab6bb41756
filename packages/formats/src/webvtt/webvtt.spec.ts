import webVtt from 'webvtt-parser';
import { writeWebVtt } from './index.js';
import type { Cue } from './index.js';

/**
 * Read by the parser that the W3C's validator of WebVTT is made of (webvtt-parser, https://w3c.github.io/webvtt.js): it says
 * what in a file isn't as the specification has it.
 */
function read(file: string) {
  const { cues, errors } = new webVtt.WebVTTParser().parse(file, 'metadata');
  const plain = (text: string): string =>
    text
      .replace(/<[^>]*>/g, '')
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&amp;/g, '&');
  return {
    errors: errors.map(({ message }) => message),
    cues: cues.map(({ startTime, endTime, text }) => [startTime, endTime, plain(text)]),
  };
}

describe('captions as WebVTT', () => {
  it('are as the specification has them, in the order of time', () => {
    const cues: Cue[] = [
      { from: 61_250, to: 64_000, text: 'High water is six hours later.' },
      { from: 0, to: 1500, text: 'Low water is at ten.' },
      { from: 3_600_000 * 101, to: 3_600_000 * 101 + 10, text: '潮水 …' },
    ];
    const file = writeWebVtt(cues, 'Reading the tides, 30 November 2026');
    expect(file.startsWith('WEBVTT\n\nNOTE Reading the tides')).toBeTrue();
    expect(file).toContain('00:01:01.250 --> 00:01:04.000');
    expect(read(file)).toEqual({
      errors: [],
      cues: [
        [0, 1.5, 'Low water is at ten.'],
        [61.25, 64, 'High water is six hours later.'],
        [363_600, 363_600.01, '潮水 …'],
      ],
    });
  });

  it('are text, whatever is in them', () => {
    const hostile = [
      'a <b>c</b> & d --> e',
      'one\n\ntwo --> three\n\n4',
      '<v Maren>',
      'NOTE\n\nSTYLE',
    ];
    const file = writeWebVtt(
      hostile.map((text, i) => ({ from: i * 1000, to: i * 1000, text })),
      'a\n\n00:00.000 --> 00:01.000\nb',
    );
    const { errors, cues } = read(file);
    expect(errors).toEqual([]);
    expect(cues.map(([, , text]) => text)).toEqual([
      'a <b>c</b> & d --> e',
      'one\ntwo --> three\n4',
      '<v Maren>',
      'NOTE\nSTYLE',
    ]);
    // One that ends where it begins is there for a moment.
    expect(
      cues.map(([from, to]) => Math.round(((to as number) - (from as number)) * 1000)),
    ).toEqual([1, 1, 1, 1]);
  });

  it('of which there are none are a file without any', () => {
    expect(read(writeWebVtt([]))).toEqual({ errors: [], cues: [] });
  });
});
