import * as fc from 'fast-check';
import { DisplayListBuilder } from '../../display/index.js';
import type { DisplayText } from '../../display/index.js';
import { distance } from '../../geometry/index.js';
import { drawItem, ItemSpec, spokenItem, wordsOf } from '../index.js';
import { fractionOf, readNumber } from './fraction.js';
import { nearestTick, placeOfNumber, shownLabels, ticks } from './scale.js';
import { withMarked } from './marked.js';
import type { NumberLineSpec } from './spec.js';

function line(change: Partial<NumberLineSpec> = {}): NumberLineSpec {
  return {
    ...{ kind: 'number-line', order: 'a0', layer: 'material', from: 0, to: 10, step: 1 },
    ...{ labels: 'whole', colour: '#000000', accent: '#c22f2f' },
    ...{ points: [], jumps: [], intervals: [] },
    frame: { x: 40, y: 60, width: 500, height: 90, turn: 0 },
    ...change,
  };
}

const labelled = (of: NumberLineSpec): string[] => wordsOf(of).split(' ');

const drawnTexts = (of: NumberLineSpec): string[] => {
  const list = new DisplayListBuilder();
  drawItem(of, list);
  return list
    .done()
    .filter((one): one is DisplayText => one.kind === 'text')
    .map(({ text }) => text);
};

describe('a number line', () => {
  it('labels whole numbers, decimals with as many places, and fractions in lowest terms', () => {
    expect(labelled(line({ from: -2, to: 2, step: 0.5 }))).toEqual(['−2', '−1', '0', '1', '2']);
    expect(drawnTexts(line({ to: 1, step: 0.25, labels: 'decimal' }))).toEqual([
      ...['0.00', '0.25', '0.50', '0.75', '1.00'],
    ]);
    expect(labelled(line({ to: 1, step: 1 / 6, labels: 'fraction' }))).toEqual([
      ...['0', '1/6', '1/3', '1/2', '2/3', '5/6', '1'],
    ]);
    expect(drawnTexts(line({ to: 1, step: 0.5, labels: 'fraction' }))).toEqual([
      '0',
      '1',
      '2',
      '1',
    ]);
    expect(wordsOf(line({ labels: 'none' }))).toBe('');
  });

  it('has its ticks where they are, however often a step that is no half is added', () => {
    const all = ticks(line({ to: 1, step: 0.1 }));
    expect(all).toEqual([0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1]);
    expect(ticks(line({ from: 0, to: 1, step: 0.3 }))).toEqual([0, 0.3, 0.6, 0.9]);
    // What nobody could tell apart is drawn sparser, and never endlessly.
    expect(ticks(line({ from: -1e6, to: 1e6, step: 0.001 })).length).toBeLessThan(402);
    expect(ticks(line({ from: 5, to: 5 }))).toEqual([5]);
    expect(ticks(line({ from: 3, to: 1 }))).toEqual([1, 2, 3]);
  });

  it('leaves labels out where they would lie on one another, and keeps zero', () => {
    const labels = labelled(line({ from: -37, to: 100 }));
    expect(labels).toContain('0');
    expect(labels.length).toBeLessThan(20);
    fc.assert(
      fc.property(
        fc.integer({ min: -1000, max: 1000 }),
        fc.integer({ min: 1, max: 2000 }),
        fc.integer({ min: 60, max: 1000 }),
        fc.constantFrom('whole', 'decimal', 'fraction'),
        (from, length, width, how) => {
          const one = line({
            ...{ from, to: from + length, labels: how as 'whole' },
            frame: { x: 0, y: 0, width, height: 90, turn: 0 },
          });
          const shown = shownLabels(one);
          for (let i = 1; i < shown.length; i++) {
            const [a, b] = [shown[i - 1]!, shown[i]!];
            const apart = placeOfNumber(one, b.value).x - placeOfNumber(one, a.value).x;
            expect(apart).toBeGreaterThanOrEqual((a.width + b.width) / 2);
          }
        },
      ),
    );
  });

  it('snaps what is marked to its nearest tick, however it is turned', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -180, max: 180 }),
        fc.integer({ min: 0, max: 10 }),
        fc.double({ min: -0.45, max: 0.45, noNaN: true }),
        (turn, value, off) => {
          const one = line({ frame: { x: 40, y: 60, width: 500, height: 90, turn } });
          const [p, q] = [placeOfNumber(one, value), placeOfNumber(one, value + 1)];
          const near = { x: p.x + (q.x - p.x) * off, y: p.y + (q.y - p.y) * off };
          expect(nearestTick(one, near)).toBe(value);
          expect(distance(placeOfNumber(one, nearestTick(one, near)), p)).toBeLessThan(1e-6);
        },
      ),
    );
    expect(nearestTick(line(), { x: -500, y: 0 })).toBe(0);
    expect(nearestTick(line(), { x: 5000, y: 0 })).toBe(10);
  });

  it('takes points, jumps and intervals, and lets them go by the same touch', () => {
    let one = line();
    const mark = (...how: [Parameters<typeof withMarked>[1], number, number]): void => {
      const to = withMarked(one, ...how);
      if (to) one = { ...one, ...to };
      expect(ItemSpec.safeParse(one).success).toBeTrue();
    };
    mark('point', 3, 3);
    mark('open-point', 7, 7);
    mark('jump', 0, 3);
    mark('jump', 3, 3);
    mark('open-interval', 9, 4);
    expect(one.points).toEqual([
      { at: 3, open: false },
      { at: 7, open: true },
    ]);
    expect(one.jumps).toEqual([{ from: 0, to: 3 }]);
    expect(one.intervals).toEqual([{ from: 4, to: 9, openFrom: true, openTo: true }]);
    // A point is carried to another tick, is open or filled as touched last, and goes.
    mark('point', 3, 5);
    mark('point', 7, 7);
    mark('point', 5, 5);
    expect(one.points).toEqual([{ at: 7, open: false }]);
    mark('jump', 0, 3);
    mark('interval', 4, 9);
    expect([one.jumps, one.intervals] as unknown[]).toEqual([
      [],
      [{ from: 4, to: 9, openFrom: false, openTo: false }],
    ]);
  });

  it('says what it is and what is marked on it, for who can’t see it', () => {
    const said = spokenItem(
      line({
        ...{ from: -1, to: 1, step: 0.25, labels: 'fraction', points: [{ at: 0.75, open: true }] },
        jumps: [{ from: 0, to: -0.5 }],
        intervals: [{ from: 0, to: 1, openFrom: true, openTo: false }],
      }),
    );
    expect(said).toBe(
      'Number line from −1 to 1, 9 ticks, one every 1/4; open point at 3/4; jump from 0 to −1/2; interval from 0 (not included) to 1',
    );
  });

  it('draws nothing that lies beyond its ends', () => {
    const count = (one: NumberLineSpec): number => {
      const list = new DisplayListBuilder();
      drawItem(one, list);
      return list.done().length;
    };
    const beyond = line({
      points: [{ at: 11, open: false }],
      jumps: [{ from: 0, to: 40 }],
      intervals: [{ from: 20, to: 30, openFrom: false, openTo: false }],
    });
    expect(count(beyond)).toBe(count(line()));
  });
});

describe('a fraction', () => {
  it('is found in lowest terms for every one with a denominator up to a hundred', () => {
    for (let denominator = 1; denominator <= 100; denominator++)
      for (let numerator = -denominator; numerator <= 2 * denominator; numerator++) {
        const found = fractionOf(numerator / denominator)!;
        expect(found.numerator * denominator).toBe(numerator * found.denominator);
        expect(found.denominator).toBeLessThanOrEqual(denominator);
      }
    expect(fractionOf(Math.PI)).toBeNull();
  });

  it('and other numbers are read as they are typed', () => {
    const read: [string, number | null][] = [
      ['3', 3],
      ['−5', -5],
      ['0,25', 0.25],
      ['.5', 0.5],
      ['1/3', 1 / 3],
      ['-2 1/2', -2.5],
      ['1/0', null],
      ['', null],
      ['1e9', null],
      ['three', null],
    ];
    for (const [text, value] of read) expect(readNumber(text)).withContext(text).toBe(value);
  });
});
