import { changePage, encodePoints, itemsOn, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Board, Id, PageSpec, ProjectedOperation } from '@cuaderno/core';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import type { Window } from '../testing/harness.js';

const SECRET = 'the answer is a spring tide';
const privateNotes = [{ runs: [{ text: SECRET }] }];

/** All that a window was ever sent, as text in which a secret would be found. */
const everything = (window: Window): string => JSON.stringify(window.told);

describe('what is not for students', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('hidden');
  });
  afterEach(() => house.close());

  const board = async (): Promise<Board> =>
    (await house.app.bus.host(house.board))!.between((state) => state);
  const change = async (page: Id, to: Parameters<typeof changePage>[2]): Promise<void> => {
    const op = operation(changePage(await board(), page, to)!);
    const host = (await house.app.bus.host(house.board))!;
    await host.applyAs([op], { id: newId(), role: 'tutor', trust: 'hands' });
  };
  /** Something that students are told, after all that came before. */
  const after = async (window: Window, title: string): Promise<void> => {
    await house.tutor.post(`/boards/${house.board}/name`, { title });
    await window.hears('applied', ({ ops }) =>
      ops.some((op) => op.kind === 'board.rename' && op.title === title),
    );
  };

  it('never travels: a margin, whenever it was written', async () => {
    const { maren, ana, page } = await house.lesson();
    await change(page, { privateNotes });
    await maren.hears('applied', ({ ops }) => ops.some((op) => op.kind === 'page.change'));
    expect(everything(maren)).toContain(SECRET);
    const withNote: PageSpec = { ...somePages(1)[0]!, name: 'New', privateNotes };
    maren.send({ kind: 'ops', ops: [addPages([withNote])] });
    await change(page, { privateNotes: [{ runs: [{ text: `${SECRET}, twice` }] }], name: 'Ebb' });
    await after(ana, 'Tides');
    expect(everything(ana)).toContain('"New"');
    expect(everything(ana)).toContain('"Ebb"');
    expect(everything(ana)).not.toContain(SECRET);
    // Who comes later, and who comes back after a break, is not told either.
    const ben = await house.window(await house.student('Ben'));
    await ben.hears('welcome');
    const cat = await house.window(await house.student('Cat'), '/live/lesson', 1);
    await cat.hears('applied');
    for (const window of [ben, cat]) expect(everything(window)).not.toContain(SECRET);
    expect(everything(ben)).not.toContain('margin');
  });

  it('never travels: a page that is hidden, nor anything on it', async () => {
    const { maren, ana } = await house.lesson();
    const hidden: PageSpec = { ...somePages(1)[0]!, name: SECRET, hidden: true };
    const line = addInk(hidden.id, 7);
    maren.send({ kind: 'ops', ops: [addPages([hidden]), line] });
    maren.send({
      kind: 'live.ink',
      stroke: newId(),
      start: { page: hidden.id, style: { tool: 'pen', ink: 'midnight', width: 2 } },
      points: encodePoints([{ x: 1, y: 1, pressure: 0.5, time: 0 }]),
    });
    maren.send({ kind: 'page.viewed', page: hidden.id });
    await maren.hears('confirmed', ({ ids }) => ids.includes(line.id));
    await after(ana, 'Tides');
    // Places in the log have no gaps, but nothing is said about what happened there.
    expect(ana.told.some((m) => m.kind === 'live.ink')).toBeFalse();
    const ben = await house.window(await house.student('Ben'));
    const { outline: seen, page } = await ben.hears('board.opened');
    expect(seen!.pages.length).toBe(1);
    expect(page).toBeNull();
    for (const window of [ana, ben]) {
      expect(everything(window)).not.toContain(SECRET);
      expect(everything(window)).not.toContain(hidden.id);
    }
  });

  it('can’t be written on by who isn’t shown it', async () => {
    const { maren, ana } = await house.lesson();
    const hidden: PageSpec = { ...somePages(1)[0]!, hidden: true };
    maren.send({ kind: 'ops', ops: [addPages([hidden])] });
    await maren.hears('confirmed');
    const line = addInk(hidden.id);
    ana.send({ kind: 'ops', ops: [line] });
    const { problem } = await ana.hears('refused', ({ id }) => id === line.id);
    expect(problem.type).toBe('urn:cuaderno:no-such-page');
    expect(itemsOn((await board()).pages.get(hidden.id)!)).toEqual([]);
  });

  it('is there with one touch, with all that was prepared on it, and gone with another', async () => {
    const { maren, ana } = await house.lesson();
    const hidden: PageSpec = { ...somePages(1)[0]!, name: 'Answers', privateNotes, hidden: true };
    const line = addInk(hidden.id, 7);
    maren.send({ kind: 'ops', ops: [addPages([hidden]), line] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(line.id));
    await change(hidden.id, { hidden: false });
    const { ops } = await ana.hears('applied', (m) => m.ops.some((op) => op.kind === 'pages.now'));
    const here = ops.find((op) => op.kind === 'pages.now')!;
    const [shown] = here.here;
    expect(shown!.name).toBe('Answers');
    expect(shown!.items.map(({ id }) => id)).toEqual([line.id]);
    expect(everything(ana)).not.toContain(SECRET);
    await change(hidden.id, { hidden: true });
    await ana.hears('applied', (m) =>
      m.ops.some((op) => op.kind === 'pages.now' && op.gone.length > 0),
    );
    const ben = await house.window(await house.student('Ben'));
    expect((await ben.hears('board.opened')).outline!.pages.length).toBe(1);
  });

  it('is told to each as they may see it: a line that was taken away is whole for its writer alone', async () => {
    const { maren, ana, page } = await house.lesson();
    const ben = await house.window(await house.student('Ben'));
    await ben.hears('welcome');
    const line = addInk(page, 7);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(line.id));
    const remove = operation({ kind: 'items.remove', page, items: [line.id] });
    maren.send({ kind: 'ops', ops: [remove] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(remove.id));
    await change(page, { hidden: true });
    await change(page, { hidden: false });
    const bytesOf = async (window: Window): Promise<number> => {
      const isHere = (op: ProjectedOperation) => op.kind === 'pages.now' && op.here.length > 0;
      const { ops } = await window.hears('applied', (m) => m.ops.some(isHere));
      const shown = ops.find((op) => op.kind === 'pages.now')!.here[0]!;
      const item = shown.items.find(({ id }) => id === line.id)!;
      expect(item.removed).not.toBeNull();
      return item.kind === 'ink' ? item.ink.length : -1;
    };
    expect(await bytesOf(ana)).toBeGreaterThan(0);
    expect(await bytesOf(ben)).toBe(0);
  });

  it('is told right to who missed the moment', async () => {
    const { ana, page } = await house.lesson();
    const { outline: first } = await ana.hears('board.opened');
    ana.socket.terminate();
    await change(page, { hidden: true });
    const student = await house.student('Ana');
    const again = await house.window(student, '/live/lesson', first!.seq);
    expect((await again.hears('board.opened')).outline!.pages).toEqual([]);
    const { seq } = (await again.hears('board.opened')).outline!;
    again.socket.terminate();
    // Nothing was hidden or shown in between: then what was missed is enough.
    await house.tutor.post(`/boards/${house.board}/name`, { title: 'Flood' });
    const third = await house.window(student, '/live/lesson', seq);
    expect((await third.hears('board.opened')).outline).toBeNull();
    await third.hears('applied', ({ ops }) => ops[0]!.kind === 'board.rename');
    expect(pagesInOrder(await board()).length).toBe(1);
  });
});
