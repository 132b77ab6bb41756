import fc from 'fast-check';
import { newId } from '../id/index.js';
import type { Asset, Folder } from './index.js';
import { AssetIndex, freeName, inOrder, mayLieIn, pathTo, treeOf, within } from './index.js';

const folder = (id: string, parent: string | null, name = id): Folder => ({ id, parent, name });
const asset = (name: string, more: Partial<Asset> = {}): Asset => ({
  id: newId(),
  folder: null,
  name,
  kind: 'pdf',
  file: 'a'.repeat(64),
  bytes: 1,
  pages: 1,
  width: 0,
  height: 0,
  length: 0,
  createdAt: 0,
  ...more,
});
const names = (assets: readonly { readonly name: string }[]): string[] =>
  assets.map(({ name }) => name);

describe('folders', () => {
  const shelf = [
    folder('winter', 'sky'),
    folder('sky', null, 'Sky'),
    folder('tides', null, 'Ebb 10'),
    folder('neaps', null, 'Ebb 9'),
    folder('orion', 'winter'),
    folder('lost', 'nowhere'),
  ];

  it('lie in one another, by name, numbers as people count them', () => {
    const tree = treeOf(shelf);
    expect(tree.map(({ folder: { id } }) => id)).toEqual(['neaps', 'tides', 'lost', 'sky']);
    expect(tree[3]!.branches[0]!.branches[0]!.folder.id).toBe('orion');
  });

  it('are found from the top down', () => {
    expect(pathTo(shelf, 'orion').map(({ id }) => id)).toEqual(['sky', 'winter', 'orion']);
    expect(pathTo(shelf, null)).toEqual([]);
  });

  it('don’t go into themselves, nor into what lies in them', () => {
    expect(mayLieIn(shelf, 'sky', 'orion')).toBeFalse();
    expect(mayLieIn(shelf, 'sky', 'sky')).toBeFalse();
    expect(mayLieIn(shelf, 'orion', 'tides')).toBeTrue();
    expect(mayLieIn(shelf, 'sky', null)).toBeTrue();
  });

  it('never make a ring, however they are moved', () => {
    const moves = fc.array(fc.tuple(fc.nat(9), fc.option(fc.nat(9))), { maxLength: 60 });
    fc.assert(
      fc.property(moves, (list) => {
        const all = Array.from({ length: 10 }, (_, i) => folder(String(i), null));
        for (const [what, to] of list) {
          const parent = to === null ? null : String(to);
          if (mayLieIn(all, String(what), parent)) all[what] = folder(String(what), parent);
        }
        // Every one is reached from the top.
        const top = all.filter(({ parent }) => parent === null);
        expect(top.flatMap(({ id }) => [...within(all, id)]).length).toBe(10);
      }),
    );
  });
});

describe('names', () => {
  it('that are taken get a number before their ending', () => {
    expect(freeName('Chart.pdf', ['chart.PDF'])).toBe('Chart 2.pdf');
    expect(freeName('Chart.pdf', ['Chart.pdf', 'Chart 2.pdf'])).toBe('Chart 3.pdf');
    expect(freeName('Sheet of 3. May', ['Sheet of 3. May'])).toBe('Sheet of 3. May 2');
    expect(freeName('.pdf', ['.pdf'])).toBe(' 2.pdf');
    expect(freeName('Chart.pdf', [])).toBe('Chart.pdf');
  });
});

describe('choosing among files', () => {
  const files = ['Ébb tables.pdf', 'Spring tides.mp3', 'Tablemount.png', 'Ebb, 12 December.pdf'];
  const index = new AssetIndex(
    files.map((name) => asset(name)),
    ({ name }) => (name.endsWith('.mp3') ? 'Sounds of the sea' : ''),
  );

  it('goes by every word, without accents and case, in any order', () => {
    expect(names(index.matching('tables EBB'))).toEqual(['Ébb tables.pdf']);
    expect(names(index.matching('ebb'))).toEqual(['Ébb tables.pdf', 'Ebb, 12 December.pdf']);
    expect(names(index.matching(' '))).toEqual(files);
    expect(names(index.matching('nothing of the kind'))).toEqual([]);
  });

  it('puts beginnings of words first', () => {
    const some = new AssetIndex(['A stable.png', 'Tables.pdf'].map((name) => asset(name)));
    expect(names(some.matching('table'))).toEqual(['Tables.pdf', 'A stable.png']);
  });

  it('finds by what else is known of a file', () => {
    expect(names(index.matching('sounds tides'))).toEqual(['Spring tides.mp3']);
  });

  it('puts them in order by name, age, size and kind', () => {
    const some = [
      asset('b 10', { bytes: 3, createdAt: 1, kind: 'sound' }),
      asset('b 9', { bytes: 1, createdAt: 3, kind: 'picture' }),
      asset('a', { bytes: 2, createdAt: 2, kind: 'sound' }),
    ];
    expect(names(inOrder(some, 'name'))).toEqual(['a', 'b 9', 'b 10']);
    expect(names(inOrder(some, 'newest'))).toEqual(['b 9', 'a', 'b 10']);
    expect(names(inOrder(some, 'largest'))).toEqual(['b 10', 'a', 'b 9']);
    expect(names(inOrder(some, 'kind'))).toEqual(['b 9', 'a', 'b 10']);
  });
});
