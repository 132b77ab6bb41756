import { emptyBoard } from '../board/index.js';
import type { Page } from '../board/index.js';
import { newId } from '../id/index.js';
import { fold } from '../log/index.js';
import type { Operation } from '../ops/index.js';
import { addInk, addMark, addPages, somePages } from '../testing/index.js';
import { pageOutline } from './index.js';

const IDA = newId();
const JONAS = newId();
const nameOf = (by: string): string | null => (by === IDA ? 'Ida' : by === JONAS ? 'Jonas' : null);

describe('A page in words', () => {
  const [sheet] = somePages(1);

  /** The page after operations, each with who did it. */
  function page(...done: readonly (readonly [by: string, op: Operation])[]): Page {
    const entries = [[newId(), addPages([sheet!])] as const, ...done].map(([by, op], i) => ({
      ...{ seq: i + 1, by, at: i, lesson: null, op },
    }));
    return fold(emptyBoard(newId()), entries).pages.get(sheet!.id)!;
  }
  const words = (of: Page): string[] => pageOutline(of, nameOf).map((part) => part.words);

  it('is empty where nothing lies on it', () => {
    expect(pageOutline(page(), nameOf)).toEqual([]);
  });

  it('is read from top to bottom, and from left to right in a line', () => {
    const at = (x: number, y: number, tick: boolean): readonly [string, Operation] => [
      IDA,
      addMark(sheet!.id, {
        mark: tick ? 'tick' : 'cross',
        frame: { x, y, width: 40, height: 40, turn: 0 },
      }),
    ];
    const lies = page(at(300, 205, true), at(40, 500, false), at(40, 200, false));
    expect(words(lies)).toEqual(['Cross', 'Tick', 'Cross']);
  });

  it('gathers ink by who wrote it, how much and where', () => {
    const lies = page(
      [IDA, addInk(sheet!.id, 1)],
      [IDA, addInk(sheet!.id, 2)],
      [JONAS, addInk(sheet!.id, 3)],
      [newId(), addInk(sheet!.id, 4)],
    );
    const all = words(lies);
    const sum = (name: string): number =>
      all
        .filter((one) => one.startsWith(`${name} wrote`))
        .reduce((n, one) => n + (one.includes('one line') ? 1 : Number(/\d+/.exec(one)![0])), 0);
    expect([sum('Ida'), sum('Jonas'), sum('Someone')]).toEqual([2, 1, 1]);
    for (const one of all) expect(one).toMatch(/, (top|middle|bottom) (left|centre|right)$/);
  });

  it('keeps the names of its parts while more is written', () => {
    const first = [IDA, addInk(sheet!.id, 1)] as const;
    const [before] = pageOutline(page(first), nameOf);
    const after = pageOutline(page(first, [JONAS, addInk(sheet!.id, 2)]), nameOf);
    expect(after.map(({ id }) => id)).toContain(before!.id);
  });
});
