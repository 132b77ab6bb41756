import * as fc from 'fast-check';
import { isKnownVersion, STORED_VERSION, StoredVersionError, upgradeStored } from './index.js';
import type { Stored } from './step.js';

const KINDS: readonly (keyof Stored)[] = ['operation', 'item', 'page', 'writer'];

describe('what was stored', () => {
  const frame = { x: 1, y: 2, width: 3, height: 4, turn: 0 };

  it('in the first version says today’s words, wherever they stand in an operation', () => {
    const up = (op: object): unknown => upgradeStored('operation', op, 1);
    expect(
      up({ kind: 'item.add', page: 'p', item: { kind: 'mark', mark: 'look', held: true, frame } }),
    ).toEqual({
      ...{ kind: 'item.add', page: 'p' },
      item: { kind: 'mark', mark: 'attention', hidden: true, frame },
    });
    expect(up({ kind: 'item.change', to: { held: true }, from: { held: false, frame } })).toEqual({
      ...{ kind: 'item.change', to: { hidden: true }, from: { hidden: false, frame } },
    });
    const margin = [{ runs: [{ text: 'held' }] }];
    expect(
      up({ kind: 'pages.add', pages: [{ id: 'p', margin, held: true, rules: { trust: 'look' } }] }),
    ).toEqual({
      kind: 'pages.add',
      pages: [{ id: 'p', privateNotes: margin, hidden: true, rules: { trust: 'view' } }],
    });
    expect(up({ kind: 'page.change', to: { rules: {}, margin }, from: { held: true } })).toEqual({
      ...{ kind: 'page.change', to: { rules: {}, privateNotes: margin }, from: { hidden: true } },
    });
    expect(
      up({ kind: 'board.rules', to: { trust: 'look', turn: false }, from: { trust: 'hands' } }),
    ).toEqual({
      ...{ kind: 'board.rules', to: { trust: 'view', turn: false }, from: { trust: 'hands' } },
    });
    expect(upgradeStored('writer', { name: 'Ana', nth: 2 }, 1)).toEqual({
      ...{ name: 'Ana', nameOrdinal: 2 },
    });
  });

  it('in the present version is as it is', () => {
    const op = { kind: 'item.add', item: { held: true, mark: 'look' } };
    expect(upgradeStored('operation', op, STORED_VERSION)).toBe(op);
  });

  it('is passed on for the schema to refuse, whatever it is', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...KINDS),
        fc.oneof(
          fc.anything(),
          fc.record({
            kind: fc.constantFrom('item.add', 'item.change', 'pages.add', 'page.change'),
            item: fc.anything(),
            pages: fc.anything(),
            to: fc.anything(),
          }),
        ),
        fc.integer({ min: 1, max: STORED_VERSION }),
        (kind, value, version) => {
          expect(() => upgradeStored(kind, value, version)).not.toThrow();
        },
      ),
    );
  });

  it('by a later build, or by none, isn’t read', () => {
    for (const version of [0, STORED_VERSION + 1, 1.5, '1', null, undefined]) {
      expect(isKnownVersion(version)).toBeFalse();
      expect(() => upgradeStored('item', {}, version)).toThrowError(StoredVersionError);
    }
  });
});
