import { changePage, itemsOn, newId, operation, CLOSE } from '@cuaderno/core';
import type { Board, Id, Operation, PageSpec } from '@cuaderno/core';
import { addInk, addMark, addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import type { Window } from '../testing/harness.js';

const PAGES = 6;
const LINES = 60;

describe('a board with much on its pages', () => {
  let house: House;
  let pages: PageSpec[];

  beforeEach(async () => {
    house = await House.open('pages');
    pages = somePages(PAGES);
    await take(addPages(pages));
    await take(
      ...pages.flatMap(({ id }) => Array.from({ length: LINES }, (_, n) => addInk(id, n))),
    );
  });
  afterEach(() => house.close());

  const host = async () => (await house.app.bus.host(house.board))!;
  const board = async (): Promise<Board> => (await host()).between((state) => state);
  const take = async (...ops: Operation[]): Promise<void> =>
    (await host()).applyAs(ops, { id: newId(), role: 'tutor', trust: 'hands' });
  const asks = async (window: Window, ...ids: Id[]) => {
    window.send({ kind: 'pages', ids });
    return window.hears('pages', (m) => m.ids.join() === ids.join());
  };
  const linesOf = async (window: Window, page: Id): Promise<Id[]> =>
    (await asks(window, page)).pages.flatMap(({ items }) => items.map(({ id }) => id));

  it('comes with what is on the page where the tutor is, and with the frames of all others', async () => {
    const { maren, student } = await house.lesson();
    maren.send({ kind: 'page.viewed', page: pages[3]!.id });
    await maren.hears('people', ({ people }) => people.some(({ page }) => page === pages[3]!.id));
    const late = await house.window(student);
    const { page, outline: sent } = await late.hears('board.opened');
    expect(page).toBe(pages[3]!.id);
    const whole = sent!.pages.filter((one) => 'items' in one && one.items.length > 0);
    expect(whole.map(({ id }) => id)).toEqual([pages[3]!.id]);
    expect(
      sent!.pages.filter((one) => 'count' in one).map((one) => 'count' in one && one.count),
    ).toEqual(Array.from({ length: PAGES - 1 }, () => LINES));
    const items = (of: Board): Id[] =>
      [...of.pages.values()].flatMap((one) => itemsOn(one).map(({ id }) => id)).sort();
    expect(items(await late.wholeBoard())).toEqual(items(await board()));
  });

  it('gives pages as they stand after all that was told before', async () => {
    const { maren, ana } = await house.lesson();
    const last = pages.at(-1)!.id;
    const line = addInk(last, 999);
    maren.send({ kind: 'ops', ops: [line] });
    await ana.hears('applied', ({ ops }) => ops.some(({ id }) => id === line.id));
    const { seq, pages: given } = await asks(ana, last);
    expect(seq).toBe(await (await host()).between((_, at) => at));
    expect(given[0]!.items.map(({ id }) => id)).toContain(line.id);
    // What is told afterwards goes on from there.
    const next = addInk(last, 1000);
    maren.send({ kind: 'ops', ops: [next] });
    const { from } = await ana.hears('applied', ({ ops }) => ops.some(({ id }) => id === next.id));
    expect(from).toBe(seq + 1);
  });

  it('gives no student what isn’t for them: held pages, held things, margins', async () => {
    const { ana, maren } = await house.lesson();
    const [, second, third] = pages.map(({ id }) => id) as [Id, Id, Id];
    const mark = addMark(third, { hidden: true });
    const privateNotes = [{ runs: [{ text: 'the answer is a spring tide' }] }];
    await take(operation(changePage(await board(), second, { hidden: true })!), mark);
    await take(operation(changePage(await board(), third, { privateNotes })!));
    const given = await asks(ana, second, third, newId());
    expect(given.pages.map(({ id }) => id)).toEqual([third]);
    expect(given.pages[0]!.items.length).toBe(LINES);
    expect(JSON.stringify(ana.told)).not.toContain('spring tide');
    // The tutor is given all of it.
    expect((await linesOf(maren, third)).length).toBe(LINES + 1);
    expect((await linesOf(maren, second)).length).toBe(LINES);
  });

  it('doesn’t serve who asks and asks, nor who asks for nothing or for too much', async () => {
    const { ana } = await house.lesson();
    ana.send({ kind: 'pages', ids: [] });
    await ana.hearsProblem('message-wrong-shape');
    ana.send({ kind: 'pages', ids: Array.from({ length: 51 }, () => newId()) });
    await ana.hearsTimes('problem', 2);
    for (let i = 0; i < 50; i++) ana.send({ kind: 'pages', ids: pages.map(({ id }) => id) });
    expect(await ana.ends()).toBe(CLOSE.again);
  });
});
