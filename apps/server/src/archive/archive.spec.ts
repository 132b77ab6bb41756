import { newId } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { silentWav } from '@cuaderno/formats/testing';
import { execFileSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import { boundPdf, plainPdf } from '../testing/pdf-files.js';
import { Paths, safe } from './zip.js';

describe('paths in an archive', () => {
  it('are ones that every system takes, each once', () => {
    expect(safe('../../etc: "Tides" <1>?')).toBe('etc Tides 1');
    expect(safe('…')).toBe('…');
    expect(safe(' . ')).toBe('Without a name');
    const paths = new Paths();
    expect([
      paths.free('a/', 'Ebb', '.pdf'),
      paths.free('a/', 'ebb', '.pdf'),
      paths.free('b/', 'Ebb', '.pdf'),
    ]).toEqual([...['a/Ebb.pdf', 'a/ebb (2).pdf', 'b/Ebb.pdf']]);
  });
});

describe('an archive', () => {
  let house: House;
  let lesson: string;

  beforeEach(async () => {
    house = await House.open('archive');
    const brought = await house.tutor.upload(house.course.id, 'Solvik.pdf', await plainPdf(1));
    expect(brought.statusCode).toBe(201);
    await house.app.arrivals.settled();
    const met = await house.lesson();
    ({ lesson } = met);
    const tom = await house.window(await house.student('Tom'));
    met.ana.send({ kind: 'ops', ops: [addInk(met.page)] });
    met.maren.send({ kind: 'ops', ops: [addInk(met.page, 2)] });
    await met.ana.hears('applied');
    met.ana.send({ kind: 'chat', id: newId(), to: 'all', text: 'Ana was here' });
    tom.send({ kind: 'chat', id: newId(), to: 'all', text: 'Tom too' });
    await met.maren.hearsTimes('chat', 2);
    await house.tutor.post(`/lessons/${lesson}/close`);
  });
  afterEach(() => house.close());

  /** Unpacked by Info-ZIP, which tests it first. */
  async function unpacked(
    path: string,
  ): Promise<{ names: string[]; read: (name: string) => Buffer }> {
    const response = await house.tutor.get(path);
    expect(response.statusCode).withContext(response.body.slice(0, 300)).toBe(200);
    const file = join(house.folder, `${newId()}.zip`);
    writeFileSync(file, response.rawPayload);
    execFileSync('unzip', ['-tq', file]);
    const names = execFileSync('unzip', ['-Z1', file]).toString().trim().split('\n');
    return {
      names,
      read: (name) => execFileSync('unzip', ['-p', file, name.replace(/[[\]]/g, '?')]),
    };
  }

  const day = (): string => new Date().toISOString().slice(0, 10);
  const inkIn = (pdf: Buffer): number => {
    const path = join(house.folder, `${newId()}.pdf`);
    writeFileSync(path, pdf);
    execFileSync('qpdf', ['--check', path]);
    const text = execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-']).toString(
      'latin1',
    );
    return text.match(/\/Subtype \/Ink/g)?.length ?? 0;
  };

  it('of a course has its records, boards, materials and tables, for any program that opens a zip', async () => {
    const { names, read } = await unpacked(`/courses/${house.course.id}/archive.zip?zone=UTC`);
    const folder = names.find((name) => name.endsWith('record.pdf'))!.replace('record.pdf', '');
    expect(folder).toContain(`Records/${day()} `);
    for (const name of [
      'About this archive.txt',
      'Attendance.csv',
      'Hours.csv',
      'Timetable.ics',
      'Lessons.ics',
      'Materials/Solvik.pdf',
      'Boards/Solvik.pdf',
    ])
      expect(names).toContain(name);
    expect(inkIn(read(`${folder}record.pdf`))).toBe(2);
    expect(read(`${folder}chat.txt`).toString()).toContain('Tom too');
    expect(read('Attendance.csv').toString()).toMatch(/Ana,0\r\n.*Tom,0/s);
    expect(names).not.toContain('Not in this archive.txt');
  });

  it('of a course has what its boards show, wherever it was brought first, and once', async () => {
    await house.uploadMaterial(house.tutor, 'Fog horn.wav', silentWav(1));
    await house.app.arrivals.settled();
    const shelf = await house.tutor.get('/materials');
    const { assets } = shelf.json<{ assets: { id: string; name: string }[] }>();
    const horn = assets.find(({ name }) => name === 'Fog horn.wav')!;
    const before = await unpacked(`/courses/${house.course.id}/archive.zip`);
    expect(before.names.filter((name) => name.includes('Fog horn'))).toEqual([]);
    await house.tutor.post(`/materials/assets/${horn.id}/lay`, { board: house.board });
    const { names } = await unpacked(`/courses/${house.course.id}/archive.zip`);
    expect(names.filter((name) => name.includes('Fog horn'))).toEqual([
      'Files on boards/Fog horn.wav',
    ]);
    expect(names.filter((name) => /Solvik.pdf$/.test(name))).toEqual([
      'Boards/Solvik.pdf',
      'Materials/Solvik.pdf',
    ]);
  });

  it('of a student names no course but theirs', async () => {
    const other = await house.tutor.post('/courses', { name: 'Cello with Jonas' });
    expect(other.statusCode).toBe(201);
    const { names, read } = await unpacked('/students/archive.zip?name=Ana&zone=UTC');
    const all = names.map((name) => (/\.(txt|csv)$/.test(name) ? read(name).toString() : name));
    expect([...names, ...all].join('\n')).not.toContain('Cello');
  });

  it('of a student has what is theirs, and nothing of the others', async () => {
    const { names, read } = await unpacked('/students/archive.zip?name=Ana&zone=UTC');
    const folder = names.find((name) => name.endsWith('record.pdf'))!.replace('record.pdf', '');
    expect(inkIn(read(`${folder}record.pdf`))).toBe(1);
    const chat = read(`${folder}chat.txt`).toString();
    expect(chat).toContain('Ana was here');
    expect(chat).not.toContain('Tom');
    const table = read('Attendance.csv').toString();
    expect(table).toContain('Ana');
    expect(table).not.toContain('Tom');
    expect(names.some((name) => /Boards|Materials|Hours/.test(name))).toBeFalse();
    expect((await house.tutor.get('/students/archive.zip?name=Nobody')).statusCode).toBe(404);
  });

  it('says what could not be made, and has all the rest', async () => {
    const { names } = await unpacked(`/courses/${house.course.id}/archive.zip`);
    const shelf = await house.tutor.get('/materials');
    const [asset] = shelf.json<{ assets: { file: string }[] }>().assets;
    rmSync(house.app.files.path(asset!.file));
    const { names: fewer, read } = await unpacked(`/courses/${house.course.id}/archive.zip`);
    expect(read('Not in this archive.txt').toString()).toContain('Boards/Solvik.pdf');
    expect(fewer.filter((name) => name.startsWith('Records/'))).toEqual(
      names.filter((name) => name.startsWith('Records/')),
    );
  });

  it('says beforehand which PDFs are protected, as its copies of them aren’t', async () => {
    const [course, student] = [`/courses/${house.course.id}/archive`, '/students/archive?name=Ana'];
    for (const path of [course, student])
      expect((await house.tutor.get(path)).json()).toEqual({ protected: [] });
    await house.tutor.upload(house.course.id, 'Tide tables.pdf', await boundPdf());
    await house.app.arrivals.settled();
    for (const path of [course, student])
      expect((await house.tutor.get(path)).json()).toEqual({ protected: ['Tide tables.pdf'] });
    const { read } = await unpacked(`${course}.zip`);
    const path = join(house.folder, 'copy.pdf');
    writeFileSync(path, read('Boards/Tide tables.pdf'));
    expect(execFileSync('qpdf', ['--show-encryption', path]).toString()).toContain('not encrypted');
  });

  it('is its tutor’s', async () => {
    const other = await house.otherTutor('Sunniva');
    expect((await other.get(`/courses/${house.course.id}/archive.zip`)).statusCode).toBe(404);
    expect((await other.get('/students/archive.zip?name=Ana')).statusCode).toBe(404);
    expect((await other.get(`/courses/${house.course.id}/archive`)).statusCode).toBe(404);
    expect((await other.get('/students/archive?name=Ana')).statusCode).toBe(404);
  });
});
