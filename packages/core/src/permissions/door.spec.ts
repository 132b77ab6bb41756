import { afterWord, comesIn, DoorState, DoorWord, knocked } from './index.js';
import type { DoorRule } from './index.js';

describe('the door', () => {
  it('lets in by themselves only those whom the tutor wishes', () => {
    const cases: [DoorRule, boolean, boolean][] = [
      ['ask', false, false],
      ['ask', true, false],
      ['known', false, false],
      ['known', true, true],
      ['all', false, true],
      ['all', true, true],
    ];
    for (const [rule, known, comes] of cases) expect(comesIn(rule, known)).toBe(comes);
  });

  it('takes the tutor’s word where it applies', () => {
    const after = DoorState.options.map((state) =>
      DoorWord.options.map((word) => afterWord(state, word)),
    );
    expect(after).toEqual([
      // in, not-now, out, barred
      /* waiting */ ['in', 'not-now', null, null],
      /* in */ [null, null, 'out', 'barred'],
      /* not-now */ ['in', null, null, null],
      /* out */ ['in', null, null, 'barred'],
      /* barred */ ['in', null, 'out', null],
    ]);
  });

  it('can be knocked at by anyone who isn’t in, and not by those who are kept out', () => {
    expect(DoorState.options.map(knocked)).toEqual([
      'waiting',
      'in',
      'waiting',
      'waiting',
      'barred',
    ]);
  });
});
