import { WordIndex } from './index.js';
import type { Hit } from './index.js';

const pages = ['one', 'two', 'three'];

function index(...texts: string[]): WordIndex {
  const words = new WordIndex();
  texts.forEach((text, i) => words.set({ page: pages[i]!, text }));
  return words;
}
const said = (hits: Hit[]): string[] => hits.map(({ page, found }) => `${page}: ${found}`);

describe('finding words on a board', () => {
  it('finds them on every page, in the order of the pages', () => {
    const words = index('Low water', 'High water and low water', 'Neap');
    expect(said(words.find('water', pages))).toEqual(['one: water', 'two: water', 'two: water']);
    expect(said(words.find('water', ['two']))).toEqual(['two: water', 'two: water']);
    expect(words.find('spring', pages)).toEqual([]);
  });

  it('minds neither case nor accents, ligatures nor line breaks, in any script', () => {
    const words = index('Solvík  \n harbour', 'ﬁrst ΆΜΠΩΤΗ', '潮汐表 גֵּאוּת');
    expect(said(words.find('solvik harbour', pages))).toEqual(['one: Solvík harbour']);
    expect(said(words.find('FIRST', pages))).toEqual(['two: ﬁrst']);
    expect(said(words.find('άμπωτη', pages))).toEqual(['two: ΆΜΠΩΤΗ']);
    expect(said(words.find('汐', pages))).toEqual(['three: 汐']);
    expect(words.find('גאות', pages).length).toBe(1);
  });

  it('shows a few words around, and finds nothing for nothing', () => {
    const [hit] = index('The ebb begins at ten, and the flood at four').find('begins', pages);
    expect(hit).toEqual({
      page: 'one',
      before: 'The ebb ',
      found: 'begins',
      after: ' at ten, and the flood at four',
    });
    expect(index('ebb').find('  ', pages)).toEqual([]);
  });

  it('knows what a page says now, and not what it said', () => {
    const words = index('ebb');
    words.set({ page: 'one', text: 'flood' });
    expect(words.find('ebb', pages)).toEqual([]);
    expect(words.find('flood', pages).length).toBe(1);
  });
});
