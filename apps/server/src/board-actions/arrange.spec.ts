import { itemsOn, newId, operation, pagesInOrder, unpack } from '@cuaderno/core';
import type { Board, Id, PageSnapshot } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

interface Info {
  id: Id;
  title: string;
}

describe('boards of a course', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('arrange');
  });
  afterEach(() => house.close());

  const listed = async (): Promise<{ boards: string[]; takenOut: string[] }> => {
    const { boards, takenOut } = (await house.tutor.get(`/courses/${house.course.id}`)).json<{
      boards: Info[];
      takenOut: Info[];
    }>();
    const titles = (list: Info[]): string[] => list.map(({ title }) => title);
    return { boards: titles(boards), takenOut: titles(takenOut) };
  };
  const make = async (title: string): Promise<Id> =>
    (await house.tutor.post(`/courses/${house.course.id}/boards`, { title })).json<Info>().id;
  const bring = async (pages: number): Promise<Id> => {
    const bytes = await plainPdf(pages);
    const { id } = (await house.tutor.upload(house.course.id, 'Neap.pdf', bytes)).json<Info>();
    await house.app.imports.settled();
    return id;
  };
  const board = async (id: Id): Promise<Board> =>
    (await house.app.bus.host(id))!.between((state) => state);
  const pageIds = async (id: Id): Promise<Id[]> =>
    pagesInOrder(await board(id)).map((page) => page.id);
  const code = (response: { json(): unknown }): string =>
    (response.json() as { type: string }).type.replace('urn:cuaderno:', '');

  it('come with the newest first, and in another order once they were put in one', async () => {
    const neap = await make('Neap');
    const spring = await make('Spring');
    expect((await listed()).boards).toEqual(['Spring', 'Neap', 'Ebb']);
    await house.tutor.post(`/boards/${spring}/place`, { before: house.board });
    expect((await listed()).boards).toEqual(['Neap', 'Spring', 'Ebb']);
    await house.tutor.post(`/boards/${neap}/place`, { before: null });
    expect((await listed()).boards).toEqual(['Spring', 'Ebb', 'Neap']);
    await make('Surge');
    expect((await listed()).boards[0]).toBe('Surge');
  });

  it('stand as they were put last, where several were moved at once', async () => {
    const neap = await make('Neap');
    const spring = await make('Spring');
    const put = (board: string, before: string | null) =>
      house.tutor.post(`/boards/${board}/place`, { before });
    for (let i = 0; i < 5; i++) {
      await Promise.all([put(spring, null), put(neap, house.board), put(spring, neap)]);
      expect((await listed()).boards).toEqual(['Spring', 'Neap', 'Ebb']);
    }
  });

  it('say what every lesson of their course begins with', async () => {
    const id = await make('Neap');
    const rules = { trust: 'view', chatAll: false };
    expect((await house.tutor.post(`/courses/${house.course.id}/rules`, rules)).statusCode).toBe(
      204,
    );
    const { course } = (await house.tutor.get(`/boards/${id}`)).json<{
      course: { rules: unknown };
    }>();
    expect(course.rules).toEqual(rules);
  });

  it('get another name, which everyone on the board sees', async () => {
    const window = await house.tutorWindow();
    await window.hears('welcome');
    const response = await house.tutor.post(`/boards/${house.board}/name`, { title: ' Ébb & 潮 ' });
    expect(response.json<Info>().title).toBe('Ébb & 潮');
    const { ops } = await window.hears('applied');
    expect(ops[0]).toEqual(jasmine.objectContaining({ kind: 'board.rename', title: 'Ébb & 潮' }));
    const empty = await house.tutor.post(`/boards/${house.board}/name`, { title: ' ' });
    expect(empty.statusCode).toBe(400);
  });

  it('are copied with everything and its makers, or without what lessons wrote', async () => {
    const first = (await pageIds(house.board))[0]!;
    const maren = await house.tutorWindow();
    await maren.hears('welcome');
    maren.send({ kind: 'ops', ops: [addInk(first, 1)] });
    await maren.hears('confirmed');
    await house.openLesson();
    const ana = await house.window(await house.student('Ana'));
    const { you } = await ana.hears('welcome');
    maren.send({ kind: 'trust', who: you, trust: 'write' });
    await ana.hears('people', ({ people }) => people.some((p) => p.trust === 'write'));
    ana.send({ kind: 'ops', ops: [addInk(first, 2)] });
    await ana.hears('confirmed');

    const copy = async (lessonInk: boolean): Promise<Board> => {
      const wish = { title: 'Again', lessonInk };
      const response = await house.tutor.post(`/boards/${house.board}/copy`, wish);
      expect(response.statusCode).toBe(201);
      return board(response.json<Info>().id);
    };
    const makers = (state: Board): Id[] =>
      pagesInOrder(state).flatMap((page) => itemsOn(page).map(({ by }) => by));
    const whole = await copy(true);
    expect(whole.title).toBe('Again');
    expect(makers(whole)).toEqual(makers(await board(house.board)));
    expect(makers(whole)).toContain(you);
    const clean = await copy(false);
    expect(makers(clean).length).toBe(1);
    expect(makers(clean)).not.toContain(you);
    expect((await listed()).boards).toEqual(['Again', 'Again', 'Ebb']);
    await house.restart();
    expect((await listed()).boards).toEqual(['Again', 'Again', 'Ebb']);
  });

  it('are copied with the paper that their new pages have', async () => {
    const sheet = { paper: { kind: 'ruled', spacing: 23 }, width: 500, height: 400 } as const;
    const op = operation({ kind: 'board.sheet', to: sheet, from: null });
    const host = (await house.app.bus.host(house.board))!;
    await host.applyAs([op], { id: newId(), role: 'tutor', trust: 'hands' });
    const wish = { title: 'Again', lessonInk: false };
    const copy = (await house.tutor.post(`/boards/${house.board}/copy`, wish)).json<Info>();
    expect((await board(copy.id)).sheet).toEqual(sheet);
  });

  it('are copied to another course with the file they are made of', async () => {
    const neap = await bring(3);
    const other = (await house.tutor.post('/courses', { name: 'Sky' })).json<{ id: string }>();
    const wish = { title: 'Neap', lessonInk: true, course: other.id };
    const { id } = (await house.tutor.post(`/boards/${neap}/copy`, wish)).json<Info>();
    const [page] = pagesInOrder(await board(id));
    expect(page!.paper.kind === 'pdf' && page!.paper.number).toBe(1);
    const { file } = page!.paper as { file: string };
    expect(await house.app.hiddenFiles.mayHave(id, file)).toBeTrue();
    const nowhere = { ...wish, course: 'nowhere' };
    expect((await house.tutor.post(`/boards/${neap}/copy`, nowhere)).statusCode).toBe(404);
  });

  it('are taken out and brought back, but not from under a lesson', async () => {
    const neap = await make('Neap');
    expect((await house.tutor.post(`/boards/${neap}/remove`)).statusCode).toBe(200);
    expect(await listed()).toEqual({ boards: ['Ebb'], takenOut: ['Neap'] });
    expect((await house.tutor.get(`/boards/${neap}`)).statusCode).toBe(404);
    await house.restart();
    await house.tutor.post(`/boards/${neap}/restore`);
    expect(await listed()).toEqual({ boards: ['Neap', 'Ebb'], takenOut: [] });
    expect((await house.tutor.post(`/boards/${neap}/restore`)).statusCode).toBe(404);
    await house.openLesson();
    expect(code(await house.tutor.post(`/boards/${house.board}/remove`))).toBe('board-in-lesson');
  });

  it('have a picture of their first page, sent again only when something has changed', async () => {
    const url = `/boards/${house.board}/cover`;
    const first = await house.tutor.get(url);
    const page = unpack(first.rawPayload) as PageSnapshot;
    expect(page.id).toBe((await pageIds(house.board))[0]!);
    const etag = String(first.headers.etag);
    const again = (): ReturnType<typeof house.tutor.request> =>
      house.tutor.request('GET', url, undefined, { 'if-none-match': etag });
    expect((await again()).statusCode).toBe(304);
    await house.tutor.post(`/boards/${house.board}/name`, { title: 'Flood' });
    expect((await again()).statusCode).toBe(200);
  });

  it('give pages to one another, with their ink, file and makers; and keep one', async () => {
    const neap = await bring(3);
    const [one, two, three] = (await pageIds(neap)) as [Id, Id, Id];
    const window = await house.window(house.tutor, `/live/boards/${neap}`);
    await window.hears('welcome');
    window.send({ kind: 'ops', ops: [addInk(three, 5)] });
    await window.hears('confirmed');
    const move = (pages: Id[], to: Id): ReturnType<typeof house.tutor.post> =>
      house.tutor.post(`/boards/${neap}/pages/move`, { pages, to });

    expect((await move([three, one], house.board)).statusCode).toBe(200);
    expect(await pageIds(neap)).toEqual([two]);
    const there = pagesInOrder(await board(house.board));
    expect(there.map(({ paper }) => (paper.kind === 'pdf' ? paper.number : 0))).toEqual([0, 1, 3]);
    expect(itemsOn(there[2]!).map(({ by }) => by)).toEqual([(await window.hears('welcome')).you]);
    await window.hears('applied', ({ ops }) => ops[0]!.kind === 'pages.remove');
    expect(code(await move([two], house.board))).toBe('last-pages');
    expect((await move(['x'.repeat(12)], house.board)).statusCode).toBe(404);
    expect((await move([two], neap)).statusCode).toBe(400);
    // And back again, ink and all.
    const back = { pages: [there[2]!.id], to: neap };
    await house.tutor.post(`/boards/${house.board}/pages/move`, back);
    expect(itemsOn(pagesInOrder(await board(neap))[1]!).length).toBe(1);
  });

  it('belong to their tutor: nobody else touches them', async () => {
    const stranger = house.visitor();
    for (const what of ['name', 'place', 'copy', 'remove', 'restore', 'pages/move'])
      expect((await stranger.post(`/boards/${house.board}/${what}`)).statusCode)
        .withContext(what)
        .toBe(401);
    expect((await stranger.get(`/boards/${house.board}/cover`)).statusCode).toBe(401);
  });
});
