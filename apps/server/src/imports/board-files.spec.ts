import { itemsOn, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Actor, Board } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { writeBoardFile } from '@cuaderno/formats/board-file';
import { silentWav } from '@cuaderno/formats/testing';
import { createCanvas } from '@napi-rs/canvas';
import { execFileSync } from 'node:child_process';
import { readdirSync, writeFileSync } from 'node:fs';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

describe('board files', () => {
  let house: House;
  let saved: Uint8Array;
  let board: Board;
  const ana = newId();
  const people = [{ id: ana, name: 'Ana', nameOrdinal: 1, role: 'student' as const }];

  beforeEach(async () => {
    house = await House.open('board-files');
    board = await built();
    saved = await savedFrom(board);
  });
  afterEach(() => house.close());

  const bring = (bytes: Uint8Array, name = 'Ebb.cuaderno.zip') =>
    house.tutor.upload(house.course.id, name, Buffer.from(bytes));
  const fault = async (bytes: Uint8Array): Promise<string> =>
    (await bring(bytes)).json<{ type: string }>().type.replace('urn:cuaderno:', '');
  const stateOf = async (id: string): Promise<Board> =>
    (await house.app.bus.host(id))!.between((state) => state);
  const lay = async (path: string, bytes: Uint8Array): Promise<string> =>
    (
      await house.tutor.request('POST', `/boards/${path}/material?name=x`, Buffer.from(bytes), {
        'content-type': 'application/octet-stream',
      })
    ).json<{ file: string }>().file;
  const stored = (): string[] =>
    readdirSync(house.app.files.folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map(({ name }) => name)
      .sort();

  /** A board of a PDF with a picture, a sound, and ink of Ana's. */
  async function built(): Promise<Board> {
    const { id } = (await bring(await plainPdf(3), 'Tides.pdf')).json<{ id: string }>();
    await house.app.imports.settled();
    const canvas = createCanvas(20, 10);
    canvas.getContext('2d').fillRect(3, 3, 5, 5);
    const picture = await lay(id, canvas.toBuffer('image/png'));
    const sound = await lay(id, silentWav());
    const [first, second] = pagesInOrder(await stateOf(id));
    const maren: Actor = { id: newId(), role: 'tutor', trust: 'hands' };
    const host = (await house.app.bus.host(id))!;
    const frame = { x: 10, y: 20, width: 100, height: 50, turn: 0 };
    const common = { frame, layer: 'material' } as const;
    await host.applyAs(
      [
        operation({
          kind: 'item.add',
          page: first!.id,
          item: { ...common, kind: 'picture', file: picture, order: 'a0' },
        }),
        operation({
          kind: 'item.add',
          page: first!.id,
          item: {
            ...common,
            kind: 'media',
            medium: 'sound',
            file: sound,
            name: 'Horn.wav',
            length: 1,
            order: 'a1',
          },
        }),
      ],
      maren,
    );
    await host.append([{ op: addInk(second!.id), by: ana, at: 1234, lesson: newId() }]);
    return stateOf(id);
  }

  async function savedFrom(of: Board): Promise<Uint8Array> {
    const pieces = await writeBoardFile(
      of,
      { ink: 'all', people },
      {
        async file(hash) {
          const { rawPayload, headers } = await house.tutor.get(`/files/${hash}`);
          return { bytes: rawPayload, type: String(headers['content-type']) };
        },
        svg: async () => '<svg xmlns="http://www.w3.org/2000/svg"/>',
      },
    );
    return Buffer.concat(pieces);
  }

  /** All that can be seen of a board, and who made it when. */
  const seen = (of: Board): unknown => ({
    title: of.title,
    sheet: of.sheet,
    pages: pagesInOrder(of).map((page) => ({ ...page, items: itemsOn(page) })),
  });

  it('open as the board that was saved, in another course and another Cuaderno', async () => {
    const course = (await house.tutor.post('/courses', { name: 'Stars' })).json<{ id: string }>();
    const response = await house.tutor.upload(course.id, 'Ebb.zip', Buffer.from(saved));
    expect(response.statusCode).withContext(response.body).toBe(201);
    const { id } = response.json<{ id: string; file: null }>();
    expect(seen(await stateOf(id))).toEqual(seen(board));
    // Anyone who is named in the file is named on the board, and on copies of it.
    const writers = async (of: string) =>
      (await house.tutor.get(`/boards/${of}/writers`)).json<{ writers: unknown[] }>().writers;
    expect(await writers(id)).toContain(people[0]);
    const copy = await house.tutor.post(`/boards/${id}/copy`, {
      ...{ course: course.id, title: 'Once more', lessonInk: true },
    });
    expect(await writers(copy.json<{ id: string }>().id)).toContain(people[0]);
    expect(
      (await (await house.otherTutor('Sunniva')).get(`/boards/${id}/writers`)).statusCode,
    ).toBe(404);
    await house.close();

    house = await House.open('board-files-elsewhere');
    const there = (await bring(saved)).json<{ id: string }>();
    expect(seen(await stateOf(there.id))).toEqual(seen(board));
    const [first] = pagesInOrder(await stateOf(there.id));
    for (const hash of [
      ...(first!.paper.kind === 'pdf' ? [first!.paper.file] : []),
      ...itemsOn(first!).flatMap((item) => ('file' in item ? [item.file] : [])),
    ])
      expect((await house.tutor.get(`/files/${hash}`)).statusCode).toBe(200);
    await house.restart();
    expect(seen(await stateOf(there.id))).toEqual(seen(board));
    expect(await savedFrom(await stateOf(there.id))).toBeTruthy();
  });

  it('are refused whole, and leave nothing behind', async () => {
    const before = stored();
    const count = async (): Promise<number> =>
      (await house.app.boards.ofCourse(house.course.id)).length;
    const boards = await count();
    const entries = unzipSync(saved);
    const json = JSON.parse(Buffer.from(entries['board.json']!).toString()) as {
      files: { hash: string; path: string }[];
      pages: { items: { kind: string; points: number[][] }[] }[];
    };
    const [sound] = json.files.filter(({ path }) => path.endsWith('.wav'));
    const changed = (change: (copy: typeof json) => void): Uint8Array => {
      const copy = structuredClone(json);
      change(copy);
      return zipSync({ ...entries, 'board.json': strToU8(JSON.stringify(copy)) });
    };
    expect(await fault(saved.subarray(0, saved.length - 200))).toBe('zip-broken');
    expect(await fault(zipSync({ 'notes.txt': strToU8('hello') }))).toBe('zip-unknown');
    expect(await fault(zipSync({ '../x': strToU8('x'), ...entries }))).toBe('zip-unsafe');
    // A file that is something else than its name says, that isn't there, or that can't be shown.
    expect(await fault(zipSync({ ...entries, [sound!.path]: strToU8('no sound') }))).toBe(
      'board-file-broken',
    );
    expect(await fault(changed((copy) => copy.files.pop()))).toBe('board-file-broken');
    expect(await fault(changed((copy) => (copy.files[0]!.path = 'files/none')))).toBe(
      'board-file-broken',
    );
    // Ink that no pen could have written.
    expect(
      await fault(
        changed((copy) => {
          const line = copy.pages[1]!.items.find(({ kind }) => kind === 'ink')!;
          line.points[1]![0] = 1e6;
        }),
      ),
    ).toBe('board-file-broken');
    // Another's file can't be had by naming it.
    expect(
      await fault(
        changed((copy) => {
          (copy.pages[0]!.items[0] as unknown as { file: string }).file = 'f'.repeat(64);
        }),
      ),
    ).toBe('board-file-broken');
    expect(await count()).toBe(boards);
    expect(stored()).toEqual(before);
  });

  it('become a PDF, with what is written or without', async () => {
    const pdf = async (ink: string): Promise<number> => {
      const response = await house.tutor.get(`/boards/${board.id}/pdf?ink=${ink}`);
      expect(response.statusCode).toBe(200);
      expect(response.headers['content-disposition']).toContain('Tides.pdf');
      const path = join(tmpdir(), `cuaderno-board-${ink}.pdf`);
      writeFileSync(path, response.rawPayload);
      execFileSync('qpdf', ['--check', path]);
      expect(execFileSync('pdfinfo', [path], { encoding: 'utf8' })).toMatch(/Pages:\s+3/);
      const page = execFileSync('pdftoppm', ['-r', '36', '-f', '2', '-l', '2', path], {
        maxBuffer: 1 << 26,
      });
      return page.reduce((sum, value) => sum + value, 0);
    };
    expect(await pdf('all'))
      .withContext('ink darkens the page')
      .toBeLessThan(await pdf('none'));
    const stranger = house.visitor();
    expect((await stranger.get(`/boards/${board.id}/pdf`)).statusCode).toBe(401);
  });
});
