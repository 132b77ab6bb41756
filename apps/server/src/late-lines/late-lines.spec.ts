import {
  boardFromSnapshot,
  itemsOn,
  newId,
  operation,
  pack,
  packMessage,
  pagesInOrder,
  unpack,
} from '@cuaderno/core';
import type { Board, BoardSnapshot, Id, Operation } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import type { Visitor, Window } from '../testing/harness.js';
import type { LateAnswer, LateLinesShape, OwnLateLines } from '@cuaderno/contract/late-lines';

/** A lesson in which Ana had a pen; her line is away, and she has written lines. */
describe('late lines', () => {
  let house: House;
  let lesson: Id;
  let page: Id;
  let anaId: Id;
  let anas: Visitor;
  let maren: Window;
  let ana: Window;

  beforeEach(async () => {
    house = await House.open('late-lines');
    lesson = await house.openLesson();
    maren = await house.tutorWindow();
    page = (await maren.hears('board.opened')).outline!.pages[0]!.id;
    anas = await house.student('Ana');
    ana = await house.window(anas);
    anaId = (await ana.hears('welcome')).you;
    maren.send({ kind: 'trust', who: 'all', trust: 'write' });
    await maren.hears('people', ({ people }) =>
      people.some(({ id, trust }) => id === anaId && trust === 'write'),
    );
    ana.socket.terminate();
    await maren.hears('people', ({ people }) =>
      people.some(({ id, here }) => id === anaId && !here),
    );
  });
  afterEach(() => house.close());

  const bring = (who: Visitor, ops: readonly Operation[], person = anaId) =>
    who.request(
      'POST',
      `/late-lines/of/${person}`,
      Buffer.from(packMessage({ kind: 'ops', board: house.board, ops: [...ops] })),
      {
        'content-type': 'application/octet-stream',
      },
    );
  const waiting = async (who = house.tutor): Promise<LateLinesShape[]> =>
    (await who.get('/late-lines')).json<{ waiting: LateLinesShape[] }>().waiting;
  const own = async (who = anas): Promise<OwnLateLines[]> =>
    (await who.get('/late-lines/own')).json<{ lessons: OwnLateLines[] }>().lessons;
  const decide = (to: string, who = house.tutor) =>
    who.post(`/late-lines/${lesson}/${anaId}/${house.board}`, { to });
  const close = () => house.tutor.post(`/lessons/${lesson}/close`);
  const itemsNow = (board: Board): string[] => itemsOn(board.pages.get(page)!).map(({ id }) => id);
  const onBoard = async (): Promise<string[]> =>
    itemsNow(await (await house.tutorWindow()).wholeBoard());
  const inRecord = async (): Promise<string[]> => {
    const { rawPayload } = await house.tutor.get(`/records/${lesson}/board`);
    return itemsNow(boardFromSnapshot(unpack(rawPayload, LARGE) as BoardSnapshot));
  };
  /** Ink annotations of a PDF, as qpdf reads it. */
  const inkIn = (pdf: Buffer): number => {
    const path = join(house.folder, `${newId()}.pdf`);
    writeFileSync(path, pdf);
    const text = execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-']);
    return text.toString('latin1').match(/\/Subtype \/Ink/g)?.length ?? 0;
  };
  const LARGE = { bytes: 10_000_000, values: 100_000, text: 1_000_000, depth: 20 };

  it('wait for the tutor, who is told in the lesson how many of whom; nobody else sees them', async () => {
    const ben = await house.window(await house.student('Ben'));
    await ben.hears('welcome');
    const [one, two] = [addInk(page), addInk(page, 2)];
    maren.send({ kind: 'trust', who: 'all', trust: 'view' });
    expect((await bring(anas, [one, two])).json<LateAnswer>()).toEqual({
      ...{ waiting: [one.id, two.id], kept: [], refused: [] },
    });
    await maren.hears('late');
    expect(await waiting()).toEqual([
      jasmine.objectContaining({ lesson, person: anaId, name: 'Ana', nameOrdinal: 1, count: 2 }),
    ]);
    expect(await onBoard()).toEqual([]);
    expect(JSON.stringify(ben.told)).not.toContain(one.id);
    const { rawPayload } = await house.tutor.get(`/late-lines/${lesson}/${anaId}/${house.board}`);
    expect((unpack(rawPayload, LARGE) as Operation[]).map(({ id }) => id)).toEqual([
      one.id,
      two.id,
    ]);
    // Offered again, they aren't two.
    await bring(anas, [one, two]);
    expect((await waiting())[0]!.count).toBe(2);
  });

  it('are added to the page with their writer’s name, and the student is told', async () => {
    const one = addInk(page);
    await bring(anas, [one]);
    const again = await house.window(anas);
    await again.hears('welcome');
    const heard = again.told.length;
    expect((await decide('page')).json<object>()).toEqual({ settled: 1, without: 0 });
    const { by, ops } = await maren.hears('applied', (m) => m.ops.some(({ id }) => id === one.id));
    expect([by, ops.length]).toEqual([anaId, 1]);
    await again.hears('late');
    expect(again.told.length).toBeGreaterThan(heard);
    expect(await waiting()).toEqual([]);
    expect(await own()).toEqual([
      jasmine.objectContaining({ lesson, waiting: 0, added: 1, left: 0 }),
    ]);
    await anas.post('/late-lines/own/told');
    expect(await own()).toEqual([]);
    expect((await decide('page')).statusCode).toBe(404);
  });

  it('come after the lesson was closed, too, and are added to its record alone', async () => {
    const [before, late] = [addInk(page), addInk(page, 2)];
    const back = await house.window(anas);
    await back.hears('welcome');
    back.send({ kind: 'ops', ops: [before] });
    await back.hears('confirmed');
    expect((await decide('record')).statusCode).toBe(404);
    await close();
    const tag = (await house.tutor.get(`/records/${lesson}/board`)).headers['etag'];
    // What was confirmed and not heard of is there: it isn't late.
    const answer = (await bring(anas, [before, late])).json<LateAnswer>();
    expect(answer).toEqual({ waiting: [late.id], kept: [before.id], refused: [] });
    expect(await own()).toEqual([jasmine.objectContaining({ waiting: 1 })]);
    expect((await decide('record')).json<object>()).toEqual({ settled: 1, without: 0 });
    expect(await inRecord()).toEqual([before.id, late.id]);
    expect(await onBoard()).toEqual([before.id]);
    expect((await house.tutor.get(`/records/${lesson}/board`)).headers['etag']).not.toBe(tag);
    await house.app.indexing.settled();
    // In every form in which it leaves, too.
    const pdf = (await house.tutor.get(`/records/${lesson}/pdf?ink=annotations`)).rawPayload;
    expect(inkIn(pdf)).toBe(2);
    const { rawPayload } = await house.tutor.get(`/records/${lesson}/log`);
    const { entries } = unpack(rawPayload, LARGE) as { entries: { by: Id; op: Operation }[] };
    expect(entries.at(-1)).toEqual(
      jasmine.objectContaining({ by: anaId, op: jasmine.objectContaining({ id: late.id }) }),
    );
  });

  it('of a lesson before are brought in a later one, added to the page as it is now, or left', async () => {
    await close();
    const [first, second] = [addInk(page), addInk(page, 2)];
    await house.openLesson();
    const next = await house.window(await house.student('Ana', anas));
    await next.hears('welcome');
    await bring(anas, [first]);
    await decide('page');
    await maren.hears('late');
    expect(await onBoard()).toEqual([first.id]);
    expect(await inRecord()).toEqual([]);
    await bring(anas, [second]);
    expect((await decide('nowhere')).json<object>()).toEqual({ settled: 1, without: 0 });
    await next.hearsTimes('late', 2);
    expect(await own()).toEqual([jasmine.objectContaining({ lesson, added: 1, left: 1 })]);
    expect(await onBoard()).toEqual([first.id]);
    // What was left can't be brought again.
    await bring(anas, [second]);
    expect(await waiting()).toEqual([]);
  });

  it('wait on where their page isn’t there any more, and lie on the page where their sheet isn’t', async () => {
    const other = newId();
    const [gone, onSheet] = [addInk(other), { ...addInk(page, 2), on: newId() }];
    await bring(anas, [gone, onSheet]);
    expect((await decide('page')).json<object>()).toEqual({ settled: 1, without: 1 });
    expect(await onBoard()).toEqual([onSheet.id]);
    expect((await waiting())[0]!.count).toBe(1);
  });

  it('aren’t taken from anyone who wasn’t there, was sent out, never had a pen, or came with another browser', async () => {
    const other = await house.student('Ben');
    const line = addInk(page);
    expect((await bring(other, [line])).statusCode).toBe(404);
    expect((await bring(house.visitor(), [line])).statusCode).toBe(404);
    expect((await bring(anas, [line], newId())).statusCode).toBe(404);
    const heard = maren.told.length;
    maren.send({ kind: 'trust', who: 'all', trust: 'view' });
    await maren.hears('people', (message) => maren.told.indexOf(message) >= heard);
    const cleo = await house.student('Cleo');
    const cleosId = (await (await house.window(cleo)).hears('welcome')).you;
    expect((await bring(cleo, [line], cleosId)).statusCode).toBe(404);
    maren.send({ kind: 'door', who: anaId, word: 'out' });
    await maren.hears('door', ({ arrivals }) => arrivals.some(({ id }) => id === anaId));
    expect((await bring(anas, [line])).statusCode).toBe(404);
    expect(await waiting()).toEqual([]);
  });

  it('are lines and texts alone: what changes or takes away something, and what is no message, is not', async () => {
    const before = addInk(page);
    const remove = operation({ kind: 'items.remove', page, items: [before.id] });
    const rename = operation({ kind: 'board.rename', title: 'Mine', former: 'Ebb' });
    const answer = (await bring(anas, [remove, rename])).json<LateAnswer>();
    expect(answer).toEqual({ waiting: [], kept: [], refused: [remove.id, rename.id] });
    const post = (body: Uint8Array) =>
      anas.request('POST', `/late-lines/of/${anaId}`, Buffer.from(body), {
        'content-type': 'application/octet-stream',
      });
    const forged = { ...before, at: 1, by: maren, lesson: newId() };
    for (const body of [
      Buffer.from('no message'),
      Buffer.alloc(34_000 * 3, Buffer.from([0xdc, 0x3f, 0xff])),
      pack({ kind: 'chat', id: newId(), to: 'all', text: 'Hello' }),
      pack({ kind: 'ops', ops: [{ ...forged, by: 'x' }] }),
      pack({ kind: 'ops', ops: [] }),
    ])
      expect((await post(body)).statusCode).toBe(400);
    expect((await post(Buffer.alloc(1_100_000))).statusCode).toBe(413);
    expect(await waiting()).toEqual([]);
  });

  it('are shown to their tutor alone', async () => {
    await bring(anas, [addInk(page)]);
    const other = await house.otherTutor('Nils');
    expect(await waiting(other)).toEqual([]);
    expect((await other.get(`/late-lines/${lesson}/${anaId}/${house.board}`)).statusCode).toBe(404);
    expect((await decide('page', other)).statusCode).toBe(404);
    expect((await anas.get('/late-lines')).statusCode).toBe(401);
    expect((await waiting()).length).toBe(1);
  });

  it('are not endless: what is beyond an hour’s writing is refused, and said so', async () => {
    for (let i = 0; i < 40; i++) {
      const ops = Array.from({ length: 50 }, (_, n) => addInk(page, i * 50 + n));
      expect((await bring(anas, ops)).json<LateAnswer>().refused).toEqual([]);
    }
    const more = addInk(page, 5000);
    expect((await bring(anas, [more])).json<LateAnswer>().refused).toEqual([more.id]);
    expect((await waiting())[0]!.count).toBe(2000);
  });

  it('are there after a restart', async () => {
    const line = addInk(page);
    await bring(anas, [line]);
    await house.restart();
    expect((await waiting())[0]!.count).toBe(1);
    await decide('page');
    expect(pagesInOrder(await (await house.tutorWindow()).wholeBoard()).length).toBe(1);
    expect(await onBoard()).toEqual([line.id]);
  });
});
