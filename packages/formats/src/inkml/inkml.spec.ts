import { decodeStroke, encodeStroke, newId } from '@cuaderno/core';
import type { InkItem, Stroke } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import fc from 'fast-check';
import { placeInk, readInkMl, writeInkMl } from './index.js';
import type { InkMlError } from './index.js';
import { readTraceData } from './trace-data.js';

const A4 = { width: 595, height: 842 };
const file = (...inside: string[]): string =>
  `<ink xmlns="http://www.w3.org/2003/InkML">${inside.join('')}</ink>`;
const places = ({ points }: Stroke): number[][] => points.map(({ x, y }) => [x, y]);

/** Examples as the Recommendation has them; its text isn't at hand here, so they are from memory. */
describe('InkML as the Recommendation shows it', () => {
  it('reads differences and second differences (the example of 3.2.1)', () => {
    const trace = `1125 18432,'23'43,"7"-8,3-5,7 -3,6 2,6 8,3 6 T,2 4*T,3 6T,3-6F F`;
    expect(readTraceData(trace, 2).map((point) => [...point])).toEqual([
      ...[
        [1125, 18432],
        [1148, 18475],
        [1178, 18510],
        [1211, 18540],
        [1251, 18567],
      ],
      ...[
        [1297, 18596],
        [1349, 18633],
        [1404, 18676],
        [1461, 18723],
        [1521, 18776],
      ],
      [1584, 18823],
    ]);
  });

  it('reads a trace of plain coordinates (the “hello” of 1.2, its first letter’s first stroke)', () => {
    const { strokes, sized } = readInkMl(
      file('<trace>10 0, 9 14, 8 28, 7 42, 6 56, 6 70, 8 84, 8 98, 8 112, 9 126, 10 140</trace>'),
    );
    expect(sized).toBeFalse();
    expect(places(strokes[0]!).slice(0, 3)).toEqual([
      [10, 0],
      [9, 14],
      [8, 28],
    ]);
    expect(strokes[0]!.points.length).toBe(11);
  });

  it('knows formats, brushes and contexts by what refers to them, and in which order channels come', () => {
    const { strokes, sized } = readInkMl(
      file(
        '<definitions>',
        '<traceFormat xml:id="f"><channel name="T" units="ms"/><channel name="Y" units="mm"/><channel name="X" units="mm"/>',
        '<channel name="F" min="0" max="1023"/></traceFormat>',
        '<brush xml:id="b"><brushProperty name="width" value="1" units="mm"/><brushProperty name="color" value="#C02020"/></brush>',
        '<context xml:id="c" traceFormatRef="#f" brushRef="#b"/>',
        '</definitions>',
        '<traceGroup contextRef="#c"><trace>5000 20 10 0,5016 20 20 1023</trace></traceGroup>',
        '<trace type="penUp" contextRef="#c">1 1 1 1</trace>',
      ),
    );
    expect(sized).toBeTrue();
    expect(strokes.length).toBe(1);
    const [{ style, points }] = strokes as [Stroke];
    expect([style.tool, style.ink]).toEqual(['pen', 'poppy']);
    expect(style.width).toBeCloseTo(2.835, 3);
    expect(
      points.map(({ x, time, pressure }) => [Math.round(x * 10) / 10, time, pressure]),
    ).toEqual([
      [28.3, 0, 0],
      [56.7, 16, 1],
    ]);
  });

  it('follows contexts that change on the way, and the resolution of a device', () => {
    const { strokes } = readInkMl(
      file(
        '<context><inkSource><traceFormat><channel name="X"/><channel name="Y"/></traceFormat>',
        '<channelProperties><channelProperty channel="X" name="resolution" value="100" units="1/in"/>',
        '<channelProperty channel="Y" name="resolution" value="100" units="1/in"/></channelProperties></inkSource></context>',
        '<trace>0 0,100 200</trace>',
        '<context><brush><brushProperty name="color" value="#2C7A3F"/></brush></context>',
        '<trace>0 0,50 50</trace>',
      ),
    );
    expect(places(strokes[0]!)[1]).toEqual([72, 144]);
    expect(strokes.map(({ style }) => style.ink)).toEqual(['coal', 'fern']);
  });
});

describe('our own InkML', () => {
  const by = newId();
  const item = (stroke: Stroke, at = Date.UTC(2026, 10, 24)): InkItem => ({
    ...{ kind: 'ink', id: newId(), by, at, lesson: null, removed: null },
    ink: encodeStroke(stroke),
  });

  it('comes back exactly: places, pressure, times, tool, ink and width', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9999 }),
        fc.boolean(),
        fc.integer({ min: 1, max: 80 }),
        (seed, stylus, count) => {
          const items = [item(handwriting(seed, { count, stylus, x: 80, y: 90 }))];
          items.push(
            item({
              style: { tool: 'highlighter', ink: 'sky', width: 16 },
              points: handwriting(seed + 1, { count: 9, stylus: false, x: 200, y: 300 }).points,
            }),
          );
          const text = writeInkMl(items, { ...A4, nameOf: () => 'Ida <&> Ødegård' });
          const back = placeInk(readInkMl(text), A4);
          expect(back).toEqual(items.map(({ ink }) => decodeStroke(ink)));
          expect(back.map((stroke) => [...encodeStroke(stroke)])).toEqual(
            items.map(({ ink }) => [...ink]),
          );
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('InkML that can’t be', () => {
  const fault = (text: string): string => {
    try {
      readInkMl(text);
      return 'none';
    } catch (error) {
      return (error as InkMlError).fault;
    }
  };

  it('is refused in words', () => {
    expect(fault('')).toBe('not-inkml');
    expect(fault('<svg xmlns="http://www.w3.org/2000/svg"/>')).toBe('not-inkml');
    expect(fault('<ink><trace>1 2</ink>')).toBe('not-inkml');
    expect(fault(file())).toBe('no-ink');
    expect(fault(file('<trace/>'))).toBe('no-ink');
  });

  it('of ten million points is given up at once, in one trace or in many', () => {
    const many = '1 2,'.repeat(10_000_000);
    const began = process.memoryUsage().heapUsed;
    expect(fault(file(`<trace>${many}3 4</trace>`))).toBe('too-much');
    expect(fault(file('<trace>1 2,3 4</trace>'.repeat(1_500_000)))).toBe('too-much');
    // What is kept of it is less than the file itself is.
    expect(process.memoryUsage().heapUsed - began).toBeLessThan(300e6);
  });

  it('of groups in groups in groups is read, however deep they lie', () => {
    const deep = 20_000;
    const text =
      '<traceGroup>'.repeat(deep) + '<trace>1 2,3 4</trace>' + '</traceGroup>'.repeat(deep);
    expect(readInkMl(file(text)).strokes.length).toBe(1);
  });

  it('that declares entities is none', () => {
    const text = `<!DOCTYPE ink [<!ENTITY a "1 2,3 4">]>${file('<trace>&a;</trace>')}`;
    expect(fault(text)).toBe('not-inkml');
  });

  it('of any size is laid on the page as large as it fits', () => {
    const { strokes } = readInkMl(file('<trace>100000 100000,900000 500000</trace>'));
    const [placed] = placeInk({ strokes, sized: false }, A4);
    const [[left], [right]] = places(placed!) as [number[], number[]];
    expect(right! - left!).toBeCloseTo(0.8 * A4.width, 3);
    expect((right! + left!) / 2).toBeCloseTo(A4.width / 2, 3);
  });
});
