import { boardFromSnapshot, itemsOn, operation, pagesInOrder, unpack } from '@cuaderno/core';
import type { BoardSnapshot } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
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
    expect(header).toContain('filename="Tides   1.pdf"');
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

  it('is on the first screen, and the tutor’s alone', async () => {
    const { lesson, student } = await house.lesson();
    await house.tutor.post(`/lessons/${lesson}/close`);
    const { records } = (await house.tutor.get('/today')).json<{
      records: { lesson: string; people: string[] }[];
    }>();
    expect(records.map((record) => [record.lesson, record.people])).toEqual([[lesson, ['Ana']]]);
    for (const path of ['', '/board', '/pdf'])
      expect((await student.get(`/records/${lesson}${path}`)).statusCode).toBe(401);
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
      '/api/courses/{course}/boards/bring',
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
