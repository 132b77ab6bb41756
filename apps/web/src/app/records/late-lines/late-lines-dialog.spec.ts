import { emptyBoard } from '@cuaderno/core/board';
import { fold } from '@cuaderno/core/log';
import { pack } from '@cuaderno/core/wire';
import type { Board } from '@cuaderno/core/board';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import { PaperSource } from '../../board/drawing/paper-source';
import { problem, Screen } from '../../testing/screen';
import { LateLinesDialog } from './late-lines-dialog';
import type { LateLines } from './shapes';

const pages = somePages(3);
const board: Board = fold(emptyBoard('b1'), [
  { seq: 1, by: 'maren', at: 1, lesson: null, op: addPages(pages) },
]);
const ida: LateLines = {
  ...{ lesson: 'l1', person: 'p1', name: 'Ida', nameOrdinal: 1, course: 'c1', courseName: 'Tides' },
  ...{ board: 'b1', title: 'Ebb', openedAt: Date.now(), closedAt: 1, count: 2, at: 5 },
};
const noor: LateLines = { ...ida, person: 'p2', name: 'Noor', count: 1 };

const dialog = (): HTMLElement => document.querySelector<HTMLElement>('.p-dialog')!;
const words = (): string => dialog().textContent!.replace(/\s+/g, ' ');
const button = (name: string) =>
  [...dialog().querySelectorAll('button')].find((one) => one.textContent!.trim() === name);

describe('the tutor looks at late lines', () => {
  const ops = [addInk(pages[1]!.id, 1), addInk(pages[2]!.id, 2)];
  const papers = new PaperSource();
  const show = (
    lines: readonly LateLines[],
    answers: object = {},
  ): Promise<Screen<LateLinesDialog>> =>
    Screen.show(
      LateLinesDialog,
      { lines, board, papers, ways: ['page', 'record'] },
      {
        'GET /late-lines/l1/p1/b1': pack(ops),
        'GET /late-lines/l1/p2/b1': pack([addInk('gone')]),
        'GET /late-lines': { waiting: [] },
        ...answers,
      },
    );
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('on the pages that they are on, as they are and as they would be', async () => {
    await show([ida]);
    expect(words()).toContain('Ida: 2 lines');
    const captions = [...dialog().querySelectorAll('figcaption')].map((one) => one.textContent);
    expect(captions.filter((one) => one!.startsWith('Page'))).toEqual([
      'Page 2 as it is',
      'Page 3 as it is',
    ]);
  });

  it('and adds them with one touch, to the page or the record', async () => {
    const sent: unknown[] = [];
    const screen = await show([ida], {
      'POST /late-lines/l1/p1/b1': (body: unknown) => {
        sent.push(body);
        return { settled: 2, without: 0 };
      },
    });
    button('Add to the page')!.click();
    await screen.settles();
    button('Add to the record')!.click();
    await screen.settles();
    button('Leave them out')!.click();
    await screen.settles();
    expect(sent).toEqual([{ to: 'page' }, { to: 'record' }, { to: 'nowhere' }]);
  });

  it('of one student after the other; while the lesson is open there is no record', async () => {
    const screen = await show([
      { ...ida, closedAt: null },
      { ...noor, closedAt: null },
    ]);
    expect(button('Add to the record')).toBeUndefined();
    button('Noor · 1')!.click();
    await screen.settles();
    expect(words()).toContain('Noor: one line');
    // Her page was removed meanwhile.
    expect(words()).toContain('a page that isn’t here any more');
    expect(button('Add to the page')!.disabled).toBeTrue();
    expect(button('Leave them out')!.disabled).toBeFalse();
  });

  it('and is closed when nothing waits any more: it doesn’t come up by itself with the next', async () => {
    const screen = await show([ida]);
    let closed = 0;
    screen.fixture.componentInstance.closed.subscribe(() => closed++);
    screen.fixture.componentRef.setInput('lines', []);
    await screen.settles();
    expect(closed).toBe(1);
  });

  it('and reads what is wrong where it can’t be done; nothing is lost', async () => {
    const screen = await show([ida], {
      'POST /late-lines/l1/p1/b1': problem('no-line', 'Cuaderno can’t be reached.'),
    });
    button('Add to the page')!.click();
    await screen.settles();
    expect(words()).toContain('Cuaderno can’t be reached.');
    expect(button('Add to the page')!.disabled).toBeFalse();
  });
});
