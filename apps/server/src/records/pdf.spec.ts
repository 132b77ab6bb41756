import {
  boardFromSnapshot,
  drawnOn,
  newId,
  operation,
  pagesInOrder,
  specOf,
  unpack,
} from '@cuaderno/core';
import type { BoardSnapshot, Item, ItemSpec } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

describe('the PDF of a record', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('record-pdf');
  });
  afterEach(() => house.close());

  /** A lesson in which the tutor and Ana wrote, and its record. */
  async function closed(): Promise<{ lesson: string; page: string; ana: string; items: Item[] }> {
    const { maren, ana, page, lesson } = await house.lesson();
    const box: ItemSpec = {
      ...{ kind: 'shape', shape: 'box', order: 'a0', layer: 'ink', fill: null },
      frame: { x: 100, y: 100, width: 80, height: 60, turn: 0 },
      outline: { colour: '#c22f2f', width: 2 },
    };
    const [hers, mine] = [addInk(page), addInk(page, 2)];
    const drawn = operation({ kind: 'item.add', page, item: box });
    ana.send({ kind: 'ops', ops: [hers] });
    ana.send({ kind: 'chat', id: newId(), to: 'all', text: 'Hvorfor er det flo to ganger?' });
    maren.send({ kind: 'ops', ops: [mine, drawn] });
    await ana.hears('applied', ({ ops }) => ops.some(({ id }) => id === drawn.id));
    await maren.hears('applied', ({ ops }) => ops.some(({ id }) => id === hers.id));
    await maren.hears('chat');
    await house.tutor.post(`/lessons/${lesson}/close`);
    const snapshot = await house.tutor.get(`/records/${lesson}/board`);
    const board = boardFromSnapshot(unpack(snapshot.rawPayload) as BoardSnapshot);
    const { attendance } = (await house.tutor.get(`/records/${lesson}`)).json<{
      attendance: { id: string; name: string }[];
    }>();
    const found = attendance.find(({ name }) => name === 'Ana')!.id;
    return { lesson, page, ana: found, items: drawnOn(board.pages.get(page)!) };
  }

  async function pdf(lesson: string, query: string): Promise<{ path: string; bytes: Buffer }> {
    const response = await house.tutor.get(`/records/${lesson}/pdf?${query}`);
    expect(response.statusCode).withContext(response.body.slice(0, 200)).toBe(200);
    const path = join(house.folder, `${newId()}.pdf`);
    writeFileSync(path, response.rawPayload);
    execFileSync('qpdf', ['--check', path]);
    return { path, bytes: response.rawPayload };
  }

  const words = (path: string): string =>
    execFileSync('pdftotext', ['-layout', path, '-']).toString();

  it('has pages for what was noted, said in the chat, and who was there, if they are wished', async () => {
    const { lesson } = await closed();
    const note = { kind: 'summary', text: 'Flo og fjære, to ganger i døgnet.', follows: null };
    await house.tutor.post(`/lessons/${lesson}/notes`, note);
    const { path } = await pdf(lesson, 'with=notes,chat,attendance&zone=Europe/Oslo&language=nb');
    const said = words(path);
    expect(said).toContain('Summary');
    expect(said).toContain('Flo og fjære, to ganger i døgnet.');
    expect(said).toMatch(/\d\d:\d\d +Ana +Hvorfor er det flo to ganger\?/);
    expect(said).toContain('Who was there');
    expect(said).toMatch(/Maren \(tutor\) +\d\d:\d\d – \d\d:\d\d +0 min/);
    const info = execFileSync('pdfinfo', [path]).toString();
    expect(info).toMatch(/Pages:\s+4/);
    const outline = execFileSync('qpdf', ['--json', '--json-key=outlines', path]).toString();
    expect(outline).toContain('"title": "Notes"');
    expect(outline).toContain('"title": "Attendance"');
    const without = await pdf(lesson, '');
    expect(words(without.path).trim()).toBe('');
  });

  it('is of one person alone, or signed by all', async () => {
    const { lesson, ana } = await closed();
    const everyone = await pdf(lesson, 'ink=annotations');
    const hers = await pdf(lesson, `ink=annotations&only=${ana}`);
    const count = ({ path }: { path: string }): number => {
      const open = ['--qdf', '--object-streams=disable', path, '-'];
      const text = execFileSync('qpdf', open).toString('latin1');
      return text.match(/\/Subtype \/(Ink|Square)/g)?.length ?? 0;
    };
    expect([count(everyone), count(hers)]).toEqual([3, 1]);
    const signed = await pdf(lesson, 'signed=true');
    expect(words(signed.path)).toMatch(/\bA\b/);
    expect(words(signed.path)).toMatch(/\bM\b/);
  });

  it('brings its annotations back as they were, on a board of their own', async () => {
    const { lesson, items, ana } = await closed();
    const { bytes } = await pdf(lesson, 'ink=annotations');
    const response = await house.tutor.upload(house.course.id, 'From last week.pdf', bytes);
    expect(response.statusCode).withContext(response.body).toBe(201);
    const made = response.json<{ id: string; annotations: object }>();
    expect(made.annotations).toEqual({ count: 3, comments: 0, stayed: 0, attached: 0 });
    await house.app.imports.settled();
    const host = (await house.app.bus.host(made.id))!;
    const page = await host.between((board) => pagesInOrder(board)[0]!);
    const bare = (item: Item): object =>
      item.kind === 'ink'
        ? { ink: Buffer.from(item.ink) }
        : { ...specOf(item), on: null, group: null, order: '' };
    expect(drawnOn(page).map(bare)).toEqual(items.map(bare));
    // Whose each is, and since when, is what it was.
    const writers = (await house.tutor.get(`/boards/${made.id}/writers`)).json<{
      writers: { id: string; name: string }[];
    }>().writers;
    const nameOf = (by: string) => writers.find(({ id }) => id === by)?.name;
    expect(drawnOn(page).map(({ by }) => nameOf(by))).toEqual(
      items.map(({ by }) => (by === ana ? 'Ana' : 'Maren')),
    );
    const second = (ms: number) => Math.floor(ms / 1000);
    expect(drawnOn(page).map(({ at }) => second(at))).toEqual(items.map(({ at }) => second(at)));
    // What was lifted isn't in the file any more, and the file as it came is among the materials.
    const file = page.paper.kind === 'pdf' ? page.paper.file : '';
    const shown = await house.tutor.get(`/files/${file}`);
    expect(shown.rawPayload.includes('CuaItem')).toBeFalse();
    await house.app.arrivals.settled();
    const shelf = (await house.tutor.get('/materials')).json<{
      assets: { file: string; name: string }[];
    }>();
    expect(shelf.assets.map(({ name }) => name)).toEqual(['From last week.pdf']);
    expect(shelf.assets[0]!.file).not.toBe(file);
  });

  it('is whole though its file was removed from materials for good: a record keeps its own', async () => {
    const brought = await house.tutor.upload(house.course.id, 'Solvik.pdf', await plainPdf(2));
    const { id } = brought.json<{ id: string }>();
    await house.app.imports.settled();
    await house.app.arrivals.settled();
    const opened = await house.tutor.post(`/boards/${id}/lesson`);
    const lesson = opened.json<{ id: string }>().id;
    await house.tutor.post(`/lessons/${lesson}/close`);
    await house.tutor.post(`/boards/${id}/remove`);
    const { assets } = (await house.tutor.get('/materials')).json<{ assets: { id: string }[] }>();
    await house.tutor.post('/materials/remove', {
      folders: [],
      assets: assets.map((one) => one.id),
    });
    await house.tutor.post('/materials/bin/empty', {});
    const left = (await house.tutor.get('/materials')).json<{ assets: object[] }>();
    expect(left.assets).toEqual([]);
    const { path } = await pdf(lesson, 'ink=annotations');
    expect(execFileSync('pdfinfo', [path]).toString()).toMatch(/Pages:\s+2/);
  });

  it('leaves a PDF alone on which nothing was written', async () => {
    const bytes = await plainPdf(2);
    const response = await house.tutor.upload(house.course.id, 'sheet.pdf', bytes);
    const { annotations } = response.json<{ annotations: { count: number } }>();
    expect(annotations.count).toBe(0);
  });

  it('is nobody else’s, and wishes that can’t be are refused', async () => {
    const { lesson } = await closed();
    const other = await house.otherTutor('Sunniva');
    expect((await other.get(`/records/${lesson}/pdf`)).statusCode).toBe(404);
    for (const query of ['ink=none-of-it', 'with=notes,everything', 'language=%3Cb%3E', 'only=%00'])
      expect((await house.tutor.get(`/records/${lesson}/pdf?${query}`)).statusCode).toBe(400);
  });
});
