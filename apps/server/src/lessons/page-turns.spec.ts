import type { Database } from '../database/index.js';
import { PageTurns, STAY } from './page-turns.js';

describe('page turns', () => {
  let kept: { person: string; page: string; at: number }[];
  let full: boolean;
  let turns: PageTurns;

  beforeEach(() => {
    jasmine.clock().install();
    kept = [];
    full = false;
    const values = (row: (typeof kept)[0]): Promise<void> => {
      if (full) return Promise.reject(new Error('no room'));
      kept.push(row);
      return Promise.resolve();
    };
    turns = new PageTurns({ insert: () => ({ values }) } as unknown as Database);
  });
  afterEach(() => {
    turns.close();
    jasmine.clock().uninstall();
  });

  const pages = (person: string): string[] =>
    kept.filter((row) => row.person === person).map(({ page }) => page);

  it('are kept with the time at which the page was turned, once somebody has stayed on it', () => {
    turns.note('lesson', 'ida', { board: 'sky', page: 'one' }, 1000);
    jasmine.clock().tick(STAY - 1);
    expect(kept).toEqual([]);
    jasmine.clock().tick(1);
    expect(kept.map(({ page, at }) => [page, at])).toEqual([['one', 1000]]);
  });

  it('leave out what was leafed through, and what one came back to', () => {
    turns.note('lesson', 'ida', { board: 'sky', page: 'one' });
    jasmine.clock().tick(STAY);
    for (const page of ['two', 'three', 'four']) {
      turns.note('lesson', 'ida', { board: 'sky', page });
      jasmine.clock().tick(STAY / 4);
    }
    turns.note('lesson', 'jonas', { board: 'sky', page: 'two' });
    jasmine.clock().tick(STAY);
    expect(pages('ida')).toEqual(['one', 'four']);
    expect(pages('jonas')).toEqual(['two']);
    turns.note('lesson', 'ida', { board: 'sky', page: 'one' });
    jasmine.clock().tick(STAY / 2);
    turns.note('lesson', 'ida', { board: 'sky', page: 'four' });
    jasmine.clock().tick(STAY);
    expect(pages('ida')).toEqual(['one', 'four']);
  });

  it('end with the lesson, and stop nobody where there is no room for them', async () => {
    const failed = jasmine.createSpy('failed');
    turns.onFailed = failed;
    full = true;
    turns.note('lesson', 'ida', { board: 'sky', page: 'one' });
    jasmine.clock().tick(STAY);
    await Promise.resolve();
    await Promise.resolve();
    expect(failed).toHaveBeenCalledTimes(1);
    full = false;
    turns.note('lesson', 'ida', { board: 'sky', page: 'two' });
    turns.note('next', 'ida', { board: 'sky', page: 'two' });
    turns.forget('lesson');
    jasmine.clock().tick(STAY);
    expect(pages('ida')).toEqual(['two']);
  });
});
