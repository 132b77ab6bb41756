import {
  boardFromSnapshot,
  boardSnapshot,
  fold,
  itemsOn,
  newId,
  operation,
  pageFromSnapshot,
  pagesInOrder,
  unpack,
} from '@cuaderno/core';
import type { BoardSnapshot, Entry, PageSnapshot } from '@cuaderno/core';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import { attachment } from '../files/attachment.js';
import { joinSpans } from './service.js';

describe('spans of attendance', () => {
  it('close a hiccup of the line, and leave a real absence open', () => {
    const minute = 60_000;
    const spans = [
      { from: 20 * minute, to: 50 * minute },
      { from: 0, to: 10 * minute },
      { from: 10.5 * minute, to: 15 * minute },
    ];
    expect(joinSpans(spans)).toEqual([
      { from: 0, to: 15 * minute },
      { from: 20 * minute, to: 50 * minute },
    ]);
  });
});

describe('file names in headers (RFC 6266, RFC 8187)', () => {
  it('keep every script, and have an ASCII form beside it', () => {
    const header = attachment('Tides – 潮汐 "1".pdf');
    // A quoted string, its quotes escaped (RFC 9110, 5.6.4).
    expect(header).toContain('filename="Tides ? ?? \\"1\\".pdf"');
    expect(header).toContain(
      "filename*=UTF-8''Tides%20%E2%80%93%20%E6%BD%AE%E6%B1%90%20%221%22.pdf",
    );
  });
});

describe('a record', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('records');
  });
  afterEach(() => house.close());

  it('has the pages as they stood, and who was there; what comes after is not in it', async () => {
    const { maren, ana, page, lesson } = await house.lesson();
    const kept = addInk(page);
    const erased = addInk(page, 2);
    ana.send({ kind: 'ops', ops: [kept, erased] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(erased.id));
    const erase = operation({ kind: 'items.remove', page, items: [erased.id] });
    ana.send({ kind: 'ops', ops: [erase] });
    await maren.hears('applied', ({ ops }) => ops.some(({ id }) => id === erase.id));
    await house.tutor.post(`/lessons/${lesson}/close`);
    const later = addInk(page, 3);
    maren.send({ kind: 'ops', ops: [later] });
    await maren.hears('confirmed');

    const { record, attendance } = (await house.tutor.get(`/records/${lesson}`)).json<{
      record: { title: string; openedAt: number; closedAt: number; pageCount: number };
      attendance: { name: string; role: string; spans: { from: number; to: number }[] }[];
    }>();
    expect([record.title, record.pageCount]).toEqual(['Ebb', 1]);
    expect(record.closedAt).toBeGreaterThanOrEqual(record.openedAt);
    expect(attendance.map(({ name, role }) => [name, role])).toEqual([
      ['Maren', 'tutor'],
      ['Ana', 'student'],
    ]);
    for (const { spans } of attendance) {
      expect(spans.length).toBe(1);
      expect(spans[0]!.from).toBeGreaterThanOrEqual(record.openedAt);
      expect(spans[0]!.to).toBeLessThanOrEqual(record.closedAt);
    }
    const response = await house.tutor.get(`/records/${lesson}/board`);
    const board = boardFromSnapshot(unpack(response.rawPayload) as BoardSnapshot);
    expect(
      pagesInOrder(board)
        .flatMap(itemsOn)
        .map(({ id }) => id),
    ).toEqual([kept.id]);
  });

  it('has how it came about: the board before the lesson, and what each did in it', async () => {
    const { maren, ana, page, lesson: first } = await house.lesson();
    const [early, line, gone] = [1, 2, 3].map((seed) => addInk(page, seed));
    ana.send({ kind: 'ops', ops: [early!] });
    await ana.hears('confirmed');
    await house.tutor.post(`/lessons/${first}/close`);
    // Between lessons the tutor works on.
    const prepared = addInk(page, 4);
    maren.send({ kind: 'ops', ops: [prepared] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(prepared.id));
    const second = await house.openLesson();
    const taken = operation({ kind: 'items.remove', page, items: [early!.id] });
    maren.send({ kind: 'ops', ops: [line!, gone!, taken] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(taken.id));
    await house.tutor.post(`/lessons/${second}/close`);

    const log = async (lesson: string) =>
      unpack((await house.tutor.get(`/records/${lesson}/log`)).rawPayload) as {
        before: BoardSnapshot;
        entries: Entry[];
      };
    const { before, entries } = await log(second);
    const board = boardFromSnapshot(before);
    expect(itemsOn(board.pages.get(page)!).map(({ id }) => id)).toEqual([early!.id, prepared.id]);
    expect(entries.map(({ op }) => op.id)).toEqual([line!.id, gone!.id, taken.id]);
    expect(entries[0]!.seq).toBe(before.seq + 1);
    const sealed = await house.tutor.get(`/records/${second}/board`);
    expect(boardSnapshot(fold(board, entries), entries.at(-1)!.seq)).toEqual(
      unpack(sealed.rawPayload) as BoardSnapshot,
    );
    const one = await log(first);
    expect(one.entries.map(({ op }) => op.id)).toEqual([early!.id]);
  });

  it('of a lesson in which nobody did anything is the board as it was', async () => {
    const { maren, page, lesson } = await house.lesson();
    await house.tutor.post(`/lessons/${lesson}/close`);
    maren.send({ kind: 'ops', ops: [addInk(page)] });
    await maren.hears('confirmed');
    const { rawPayload } = await house.tutor.get(`/records/${lesson}/log`);
    const { before, entries } = unpack(rawPayload) as { before: BoardSnapshot; entries: Entry[] };
    expect(entries).toEqual([]);
    expect(before.pages.map(({ id }) => id)).toEqual([page]);
    expect(before.pages[0]!.items).toEqual([]);
  });

  it('has what was said and shown beside the pages, and who turned to which', async () => {
    const { maren, ana, page, lesson } = await house.lesson();
    const { you } = await ana.hears('welcome');
    ana.send({ kind: 'hand', up: true });
    await maren.hears('people', ({ people }) => people.some(({ hand }) => hand !== null));
    ana.send({ kind: 'chat', id: newId(), to: 'all', text: 'Is it ebb already?' });
    await maren.hears('chat');
    ana.send({ kind: 'page.viewed', page });
    const timeline = async () =>
      (await house.tutor.get(`/records/${lesson}/timeline`)).json<{
        chat: { by: string; text: string }[];
        gestures: { by: string; what: string }[];
        turns: { by: string; page: string; at: number }[];
      }>();
    // A turn is one when somebody has stayed on the page.
    for (const until = Date.now() + 4000; Date.now() < until;) {
      const rows = await house.app.records.timeline(lesson);
      if (rows.turns.length > 0) break;
    }
    await house.tutor.post(`/lessons/${lesson}/close`);
    const { chat, gestures, turns } = await timeline();
    expect(chat.map(({ by, text }) => [by, text])).toEqual([[you, 'Is it ebb already?']]);
    expect(gestures.map(({ by, what }) => [by, what])).toEqual([[you, 'hand']]);
    expect(turns.map(({ by, page }) => [by, page])).toEqual([[you, page]]);
  });

  it('is on the first screen, and the tutor’s alone', async () => {
    const { lesson, student } = await house.lesson();
    await house.tutor.post(`/lessons/${lesson}/close`);
    const { records } = (await house.tutor.get('/today')).json<{
      records: { lesson: string; people: string[] }[];
    }>();
    expect(records.map((record) => [record.lesson, record.people])).toEqual([[lesson, ['Ana']]]);
    for (const path of ['', '/board', '/cover', '/log', '/timeline', '/pdf'])
      expect((await student.get(`/records/${lesson}${path}`)).statusCode).toBe(401);
  });

  it('is listed with its page with most ink, its summary and what is to be done', async () => {
    const { maren, ana, page, lesson } = await house.lesson();
    const [more] = somePages(1);
    maren.send({ kind: 'ops', ops: [addPages([more!])] });
    await maren.hears('confirmed');
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(line.id));
    await house.tutor.post(`/lessons/${lesson}/close`);
    const listed = async (): Promise<unknown> => {
      const { records } = (await house.tutor.get('/today')).json<{
        records: { hasSummary: boolean; until: string | null }[];
      }>();
      return records.map(({ hasSummary, until }) => [hasSummary, until]);
    };
    expect(await listed()).toEqual([[false, null]]);
    const write = (kind: string, text: string) =>
      house.tutor.post(`/lessons/${lesson}/notes`, { kind, text, follows: null });
    await write('summary', 'We read the table.');
    await write('until', 'Draw a curve.');
    expect(await listed()).toEqual([[true, 'Draw a curve.']]);

    const cover = await house.tutor.get(`/records/${lesson}/cover`);
    const shown = pageFromSnapshot(unpack(cover.rawPayload) as PageSnapshot);
    expect([shown.id, itemsOn(shown).map(({ id }) => id)]).toEqual([page, [line.id]]);
    // Who has it needs no other, and another tutor has none of it.
    const again = await house.tutor.request('GET', `/records/${lesson}/cover`, undefined, {
      'if-none-match': String(cover.headers.etag),
    });
    expect(again.statusCode).toBe(304);
    const other = await house.otherTutor('Sunniva');
    expect((await other.get(`/records/${lesson}/cover`)).statusCode).toBe(404);
  });

  it('can be had as a PDF while lessons go on', async () => {
    const { ana, page, lesson } = await house.lesson();
    ana.send({ kind: 'ops', ops: [addInk(page)] });
    await ana.hears('confirmed');
    await house.tutor.post(`/lessons/${lesson}/close`);
    const pdf = await house.tutor.get(`/records/${lesson}/pdf`);
    expect(pdf.statusCode).toBe(200);
    expect(pdf.headers['content-type']).toBe('application/pdf');
    expect(String(pdf.headers['content-disposition'])).toContain('Tides');
    expect(pdf.rawPayload.subarray(0, 5).toString()).toBe('%PDF-');
  });
});

describe('what the server says of itself', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('about');
  });
  afterEach(() => house.close());

  it('is that it lives and is ready', async () => {
    for (const path of ['/health/live', '/health/ready'])
      expect((await house.visitor().get(path)).json()).toEqual({ status: 'ok' });
  });

  it('describes every route in OpenAPI', async () => {
    const { paths } = (await house.visitor().get('/docs/json')).json<{
      paths: Record<string, unknown>;
    }>();
    for (const path of [
      '/api/sign-in',
      '/api/join',
      '/api/courses/{course}/boards/import',
      '/api/records/{lesson}/pdf',
    ])
      expect(Object.keys(paths)).toContain(path);
  });

  it('answers what isn’t there with problem details', async () => {
    const response = await house.visitor().get('/nothing');
    expect(response.statusCode).toBe(404);
    expect(response.headers['content-type']).toContain('application/problem+json');
    expect(response.json<{ title: string }>().title).toBe('There is nothing here.');
  });
});
