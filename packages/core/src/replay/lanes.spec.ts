import fc from 'fast-check';
import { lanesOf, penDown, TOGETHER } from './index.js';
import type { Deed } from './index.js';

const deed = (by: string, from: number, to: number, kind: Deed['kind'] = 'ink.add'): Deed => ({
  by,
  from,
  to,
  kind,
  page: null,
});

describe('who worked when', () => {
  it('is one stretch for what is done closely together, and another after a pause', () => {
    const lanes = lanesOf([
      deed('ida', 0, 900),
      deed('jonas', 500, 700),
      deed('ida', 900 + TOGETHER, 2000 + TOGETHER),
      deed('ida', 2001 + 2 * TOGETHER, 2001 + 2 * TOGETHER, 'items.remove'),
    ]);
    expect(lanes.get('ida')).toEqual([
      { from: 0, to: 2000 + TOGETHER },
      { from: 2001 + 2 * TOGETHER, to: 2001 + 2 * TOGETHER },
    ]);
    expect(lanes.get('jonas')).toEqual([{ from: 500, to: 700 }]);
  });

  it('has all that anybody did within its stretches, which lie apart and in order', () => {
    const deeds = fc.array(
      fc
        .tuple(fc.constantFrom('ida', 'jonas'), fc.nat(200_000), fc.nat(5000))
        .map(([by, from, took]) => deed(by, from, from + took)),
      { maxLength: 60 },
    );
    fc.assert(
      fc.property(deeds, (all) => {
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
      deed('ida', 0, 900),
      deed('ida', 2000, 2100),
      deed('ida', 5000, 5000, 'items.remove'),
      deed('jonas', 100, 400),
    ]);
    expect([...times]).toEqual([
      ['ida', 1000],
      ['jonas', 300],
    ]);
  });
});
