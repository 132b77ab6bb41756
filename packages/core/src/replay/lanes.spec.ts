import fc from 'fast-check';
import { lanesOf, penDown, TOGETHER } from './index.js';
import type { ReplayEvent } from './index.js';

const event = (
  by: string,
  from: number,
  to: number,
  kind: ReplayEvent['kind'] = 'ink.add',
): ReplayEvent => ({
  by,
  from,
  to,
  kind,
  page: null,
});

describe('who worked when', () => {
  it('is one stretch for what is done closely together, and another after a pause', () => {
    const lanes = lanesOf([
      event('ida', 0, 900),
      event('jonas', 500, 700),
      event('ida', 900 + TOGETHER, 2000 + TOGETHER),
      event('ida', 2001 + 2 * TOGETHER, 2001 + 2 * TOGETHER, 'items.remove'),
    ]);
    expect(lanes.get('ida')).toEqual([
      { from: 0, to: 2000 + TOGETHER },
      { from: 2001 + 2 * TOGETHER, to: 2001 + 2 * TOGETHER },
    ]);
    expect(lanes.get('jonas')).toEqual([{ from: 500, to: 700 }]);
  });

  it('has all that anybody did within its stretches, which lie apart and in order', () => {
    const events = fc.array(
      fc
        .tuple(fc.constantFrom('ida', 'jonas'), fc.nat(200_000), fc.nat(5000))
        .map(([by, from, took]) => event(by, from, from + took)),
      { maxLength: 60 },
    );
    fc.assert(
      fc.property(events, (all) => {
        const lanes = lanesOf(all);
        for (const { by, from, to } of all)
          expect(lanes.get(by)!.filter((lane) => lane.from <= from && to <= lane.to).length).toBe(
            1,
          );
        for (const lane of lanes.values())
          lane
            .slice(1)
            .forEach((next, i) => expect(next.from - lane[i]!.to).toBeGreaterThan(TOGETHER));
      }),
    );
  });

  it('tells for how long each pen was down, and nothing else they did', () => {
    const times = penDown([
      event('ida', 0, 900),
      event('ida', 2000, 2100),
      event('ida', 5000, 5000, 'items.remove'),
      event('jonas', 100, 400),
    ]);
    expect([...times]).toEqual([
      ['ida', 1000],
      ['jonas', 300],
    ]);
  });
});
