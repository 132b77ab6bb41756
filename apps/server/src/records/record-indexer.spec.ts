import { eq } from 'drizzle-orm';
import { rm } from 'node:fs/promises';
import { addInk } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';
import type { Attendance, Statistics, RecordInfo, IndexingState } from '@cuaderno/contract/records';
import { recordBoards } from '../lessons/tables.js';
import { records, recordWords } from './tables.js';
import type { z } from 'zod';

interface Told {
  readonly record: RecordInfo;
  readonly attendance: Attendance[];
  readonly indexing: IndexingState;
  readonly statistics: z.infer<typeof Statistics>;
}

describe('sealing a record', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('indexing');
  });
  afterEach(() => house.close());

  const told = async (lesson: string): Promise<Told> =>
    (await house.tutor.get(`/records/${lesson}`)).json();
  const close = (lesson: string) => house.tutor.post(`/lessons/${lesson}/close`);
  const wordsOf = (lesson: string) =>
    house.app.db.select().from(recordWords).where(eq(recordWords.lesson, lesson));

  it('never keeps closing waiting, and is written down by a worker', async () => {
    const seal = spyOn(house.app.recordWriter, 'write');
    let go!: () => void;
    const held = new Promise<void>((resolve) => (go = resolve));
    seal.and.callFake(async () => {
      await held;
    });
    const { lesson } = await house.lesson();
    expect((await close(lesson)).statusCode).toBe(200);
    const waiting = await told(lesson);
    expect(waiting.indexing).toEqual({ state: 'waits', done: 0, of: 0 });
    expect(waiting.statistics).toBeNull();
    expect(waiting.record.pageCount).toBe(1);
    expect((await house.tutor.get(`/records/${lesson}/board`)).statusCode).toBe(200);
    go();
    await house.app.indexing.settled();
    seal.and.callThrough();
    house.app.indexing.queue(lesson);
    await house.app.indexing.settled();
    expect((await told(lesson)).indexing).toEqual({ state: 'whole', done: 1, of: 1 });
  });

  it('has statistics, and the words of its pages, imported ones too', async () => {
    const made = await house.tutor.upload(house.course.id, 'Tides.pdf', await plainPdf(3));
    house.board = made.json<{ id: string }>().id;
    await house.app.imports.settled();
    const { ana, anaId, page, lesson } = await house.lesson();
    ana.send({ kind: 'ops', ops: [addInk(page), addInk(page, 2)] });
    await ana.hears('confirmed');
    ana.send({ kind: 'hand', up: true });
    await close(lesson);
    await house.app.indexing.settled();
    const { indexing, statistics } = await told(lesson);
    expect(indexing).toEqual({ state: 'whole', done: 3, of: 3 });
    const ours = statistics!.people.find(({ id }) => id === anaId)!;
    expect([ours.lines, ours.hands]).toEqual([2, 1]);
    const words = await wordsOf(lesson);
    expect(words.map(({ number, tokens }) => [number, tokens])).toEqual([
      [1, 'page 1'],
      [2, 'page 2'],
      [3, 'page 3'],
    ]);
  });

  it('goes on after a stop half way, and nothing is there twice', async () => {
    const { lesson } = await house.lesson();
    await close(lesson);
    await house.app.indexing.settled();
    // As a server leaves it that was killed before all was written down.
    await house.app.db.update(records).set({ wholeAt: null, statistics: null });
    await house.restart();
    await house.app.indexing.settled();
    const { indexing, statistics } = await told(lesson);
    expect(indexing.state).toBe('whole');
    expect(statistics).not.toBeNull();
    house.app.indexing.queue(lesson);
    await house.app.indexing.settled();
    expect((await wordsOf(lesson)).length).toBe(0);
  });

  it('makes up for a record whose lesson was closed, and the server killed in that moment', async () => {
    const { ana, page, lesson } = await house.lesson();
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears('confirmed');
    await close(lesson);
    await house.app.indexing.settled();
    const before = (await house.tutor.get(`/records/${lesson}/board`)).rawPayload;
    await house.app.db.delete(recordBoards);
    await house.app.db.delete(records);
    await house.restart();
    await house.app.indexing.settled();
    const { record, indexing } = await told(lesson);
    expect([record.title, record.pageCount, indexing.state]).toEqual(['Ebb', 1, 'whole']);
    const after = (await house.tutor.get(`/records/${lesson}/board`)).rawPayload;
    expect(after.equals(before)).toBeTrue();
  });

  it('says so where it fails, and can be tried again', async () => {
    const seal = spyOn(house.app.recordWriter, 'write').and.rejectWith(new Error('no room'));
    const { lesson } = await house.lesson();
    await close(lesson);
    await house.app.indexing.settled();
    expect((await told(lesson)).indexing.state).toBe('failed');
    seal.and.callThrough();
    expect((await house.tutor.post(`/records/${lesson}/seal`)).statusCode).toBe(202);
    await house.app.indexing.settled();
    expect((await told(lesson)).indexing.state).toBe('whole');
    const other = await house.otherTutor('Sunniva');
    expect((await other.post(`/records/${lesson}/seal`)).statusCode).toBe(404);
  });

  it('does without the words of a file that can’t be read any more', async () => {
    const made = await house.tutor.upload(house.course.id, 'Tides.pdf', await plainPdf(2));
    house.board = made.json<{ id: string }>().id;
    await house.app.imports.settled();
    const { lesson } = await house.lesson();
    await rm(house.app.files.folder, { recursive: true });
    await close(lesson);
    await house.app.indexing.settled();
    expect((await told(lesson)).indexing.state).toBe('whole');
    expect(await wordsOf(lesson)).toEqual([]);
  });
});
