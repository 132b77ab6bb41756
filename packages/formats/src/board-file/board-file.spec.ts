import {
  BoardDraft,
  emptyBoard,
  fold,
  itemsOn,
  MM,
  newId,
  operation,
  pagesInOrder,
} from '@cuaderno/core';
import type { Board, Item, Operation, Page, ItemSpec } from '@cuaderno/core';
import { addInk, addMark, addPages, somePages } from '@cuaderno/core/testing';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { createHash } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  BoardFileError,
  boardJson,
  boardJsonSchema,
  itemsOfJson,
  readBoardFile,
  VERSION,
  writeBoardFile,
} from './index.js';
import type { BoardFileFault, BoardFileWish } from './index.js';

const PNG = strToU8('not looked at here');
const HASH = createHash('sha256').update(PNG).digest('hex');
const LIMITS = { bytes: 10_000_000, entries: 100 };
const maren = newId();
const frame = { x: 40, y: 50, width: 120, height: 60, turn: 12 };
const common = { layer: 'material', frame, order: 'a0' } as const;

const THINGS: readonly ItemSpec[] = [
  { ...common, kind: 'picture', file: HASH, alt: 'Harbour', crop: null },
  { ...common, kind: 'mark', mark: 'tick', colour: '#c22f2f', order: 'a1' },
  {
    ...common,
    kind: 'shape',
    shape: 'line',
    heads: 'both',
    points: [
      [0, 0],
      [1, 1],
    ],
    outline: { colour: '#1d2b4f', width: 2, dashed: true },
    fill: null,
    order: 'a2',
    hidden: true,
  },
  {
    ...common,
    kind: 'formula',
    source: 'x^2',
    notation: 'typed',
    colour: '#1d2b4f',
    outline: 'M0 0L10 10Z',
    box: { width: 100, height: 50 },
    order: 'a3',
    fixed: true,
  },
  {
    ...common,
    kind: 'media',
    medium: 'sound',
    file: HASH,
    name: 'Horn.wav',
    length: 3,
    peaks: [0.5, 1],
    order: 'a4',
  },
  {
    ...common,
    kind: 'text',
    text: [{ list: 'dots', runs: [{ text: 'Ebb & “flow”', bold: true }] }],
    font: 'title',
    size: 20,
    colour: '#1d2b4f',
    align: 'middle',
    slip: '#fff3b0',
    lines: [{ y: 20, runs: [{ text: 'Ebb & “flow”', x: 10, width: 90, bold: true }] }],
    order: 'a5',
  },
];

function boardOf(ops: readonly Operation[]): Board {
  return fold(
    new BoardDraft(emptyBoard('b')).done(),
    ops.map((op, i) => ({ op, seq: i + 1, by: maren, at: 1000 + i, lesson: null })),
  );
}

function harbour(): Board {
  const [first, second, gone] = somePages(3);
  const erased = addInk(first!.id, 9);
  const cover = operation({
    kind: 'item.add',
    page: second!.id,
    item: {
      kind: 'cover',
      frame: { x: 8, y: 8, width: 500, height: 800, turn: 0 },
      order: 'a0',
      layer: 'ink',
      tint: '#dff2e1',
      lifted: true,
    },
  });
  return boardOf([
    operation({ kind: 'board.rename', title: 'Ebb “und” 潮', former: '' }),
    addPages([
      { ...first!, privateNotes: [{ runs: [{ text: 'Ask Ida' }] }] },
      { ...second!, paper: { kind: 'squared', spacing: 5 * MM, tint: '#fdf6e0' }, hidden: true },
      gone!,
    ]),
    operation({
      kind: 'board.sheet',
      from: null,
      to: { paper: { kind: 'ruled', spacing: 8 * MM }, width: 595, height: 842 },
    }),
    ...THINGS.map((item) => operation({ kind: 'item.add', page: first!.id, item })),
    addInk(first!.id, 1),
    addInk(second!.id, 2),
    cover,
    { ...addInk(second!.id, 3), on: cover.id } as Operation,
    addMark(second!.id, { on: cover.id }),
    erased,
    operation({ kind: 'items.remove', page: first!.id, items: [erased.id] }),
    operation({ kind: 'pages.remove', pages: [gone!.id] }),
  ]);
}

const source = {
  file: async () => ({ bytes: PNG, type: 'image/png' }),
  svg: async (page: Page) =>
    `<svg xmlns="http://www.w3.org/2000/svg"><title>${page.name}</title></svg>`,
};

const ALL = { ink: 'all', people: null } as const;

async function saved(board: Board, wish: BoardFileWish = ALL): Promise<Uint8Array> {
  return new Uint8Array(Buffer.concat(await writeBoardFile(board, wish, source)));
}

/** What of a page can be seen, and by whom it was made. */
const shown = (page: { items: ReadonlyMap<string, Item> | readonly Item[] }): unknown =>
  page.items instanceof Map
    ? { ...page, items: itemsOn(page as unknown as Page), removed: undefined }
    : page;

describe('a board file', () => {
  it('opens as the board that was saved', async () => {
    const board = harbour();
    const { board: json, files } = readBoardFile(await saved(board), LIMITS);
    expect(json.title).toBe(board.title);
    expect(json.sheet).toEqual(board.sheet);
    expect(files.get(json.files[0]!.path)).toEqual(PNG);
    const opened = json.pages.map((page) => ({
      ...page,
      removed: undefined,
      items: itemsOfJson(page.items),
    }));
    expect(opened).toEqual(pagesInOrder(board).map(shown) as never);
  });

  it('leaves what is written behind where that is asked for, and what was taken away always', async () => {
    const { board } = readBoardFile(await saved(harbour(), { ink: 'none', people: null }), LIMITS);
    expect(board.pages.map(({ items }) => items.map(({ kind }) => kind))).toEqual([
      THINGS.map(({ kind }) => kind),
      [],
    ]);
  });

  it('has what was prepared without what lessons wrote, or both, and names who wrote it where that is wished', async () => {
    const [page] = somePages(1);
    const [ana, tom, ola] = [newId(), newId(), newId()];
    const [prepared, inLesson] = [addInk(page!.id, 1), addInk(page!.id, 2)];
    const board = fold(emptyBoard('b'), [
      { seq: 1, by: maren, at: 1, lesson: null, op: addPages([page!]) },
      { seq: 2, by: maren, at: 2, lesson: null, op: prepared },
      { seq: 3, by: ana, at: 3, lesson: newId(), op: inLesson },
    ]);
    const named = { name: 'Ana', nameOrdinal: 1, role: 'student' } as const;
    const people = [
      { ...named, id: ana },
      { ...named, id: tom, name: 'Tom' },
      { id: maren, name: 'Maren', nameOrdinal: 1, role: 'tutor' as const },
      { ...named, id: ola, name: 'Ola' },
    ];
    const read = async (wish: BoardFileWish) => {
      const { board: json } = readBoardFile(await saved(board, wish), LIMITS);
      const items = json.pages[0]!.items.map(({ id }) => id);
      return [items, json.people?.map(({ name }) => name)];
    };
    expect(await read({ ink: 'none', people })).toEqual([[], []]);
    expect(await read({ ink: 'prepared', people })).toEqual([[prepared.id], ['Maren']]);
    expect(await read({ ink: 'all', people })).toEqual([
      [prepared.id, inLesson.id],
      ['Ana', 'Maren'],
    ]);
    expect(await read(ALL)).toEqual([[prepared.id, inLesson.id], undefined]);
  });

  it('keeps every point of every line', () => {
    const page = somePages(1)[0]!;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), (seed) => {
        const board = boardOf([addPages([page]), addInk(page.id, seed)]);
        const written = JSON.parse(JSON.stringify(boardJson(board, [], ALL))) as ReturnType<
          typeof boardJson
        >;
        const [line] = itemsOfJson(written.pages[0]!.items);
        const [drawn] = itemsOn(pagesInOrder(board)[0]!);
        expect(line).toEqual(drawn!);
      }),
      { numRuns: 60 },
    );
  });

  it('is as its JSON Schema says, for a general validator (Ajv, draft 2020-12)', async () => {
    const schema = JSON.parse(
      readFileSync(new URL('../../../../docs/board-file.schema.json', import.meta.url), 'utf8'),
    ) as object;
    expect(schema)
      .withContext('npm run protocol writes it anew')
      .toEqual(JSON.parse(JSON.stringify(boardJsonSchema())));
    const validate = new Ajv2020({ strict: false }).compile(schema);
    const json = (await unpacked(await saved(harbour())))('board.json') as { pages: unknown[] };
    expect(validate(json)).withContext(JSON.stringify(validate.errors)).toBeTrue();
    expect(validate({ ...json, pages: [] })).toBeFalse();
    expect(validate({ ...json, version: VERSION + 1 })).toBeFalse();
  });

  it('is a zip that other programs open (Info-ZIP)', async () => {
    const path = join(mkdtempSync(join(tmpdir(), 'cuaderno-board-')), 'harbour.zip');
    writeFileSync(path, await saved(harbour()));
    const list = execFileSync('unzip', ['-l', path], { encoding: 'utf8' });
    for (const name of ['board.json', 'pages/1.svg', 'pages/2.svg', `files/${HASH}.png`])
      expect(list).toContain(name);
    expect(execFileSync('unzip', ['-t', path], { encoding: 'utf8' })).toContain('No errors');
  });

  it('is refused in plain terms where it is none, or a trap', async () => {
    const fault = (bytes: Uint8Array, limits = LIMITS): BoardFileFault | 'none' => {
      try {
        readBoardFile(bytes, limits);
        return 'none';
      } catch (error) {
        if (error instanceof BoardFileError) return error.fault;
        throw error;
      }
    };
    const whole = await saved(harbour());
    const json = strFromU8(unzipSync(whole)['board.json']!);
    const zip = (files: Record<string, string | Uint8Array>): Uint8Array =>
      zipSync(
        Object.fromEntries(
          Object.entries(files).map(([name, is]) => [
            name,
            typeof is === 'string' ? strToU8(is) : is,
          ]),
        ),
      );
    expect(fault(whole)).toBe('none');
    expect(fault(whole.subarray(0, whole.length / 2))).toBe('broken');
    expect(fault(strToU8('PK\x03\x04 and so on'))).toBe('broken');
    expect(fault(zip({ 'ppt/presentation.xml': '<a/>' }))).toBe('not-a-board');
    expect(fault(zip({ 'board.json': '{"format":"something"}' }))).toBe('not-a-board');
    expect(fault(zip({ 'board.json': '{' }))).toBe('shape');
    expect(
      fault(
        zip({ 'board.json': json.replace(`"version":${VERSION}`, `"version":${VERSION + 1}`) }),
      ),
    ).toBe('version');
    expect(fault(zip({ 'board.json': json.replace('"tick"', '"flag"') }))).toBe('shape');
    expect(fault(zip({ 'board.json': json.replace('"pen"', '"highlighter"') }))).toBe('shape');
    for (const path of ['../board.json', '/etc/passwd', 'a/../../b', 'C:\\x', 'a\\..\\b'])
      expect(fault(zip({ [path]: 'x', 'board.json': json })))
        .withContext(path)
        .toBe('unsafe');
    expect(fault(zip({ 'board.json': `${json}${' '.repeat(9_000_000)}` }))).toBe('too-large');
    expect(fault(whole, { ...LIMITS, bytes: 1000 })).toBe('too-large');
    const many = Object.fromEntries(Array.from({ length: 200 }, (_, i) => [`${i}`, 'x']));
    expect(fault(zip({ ...many, 'board.json': json }))).toBe('too-large');
  });

  it('tells how far it is, and can be given up', async () => {
    const parts: number[] = [];
    const board = harbour();
    await writeBoardFile(board, ALL, { ...source, progress: (part) => parts.push(part) });
    expect(parts.at(-1)).toBe(1);
    expect(parts).toEqual([...parts].sort((a, b) => a - b));
    const abort = new AbortController();
    const given = writeBoardFile(
      board,
      ALL,
      { ...source, progress: () => abort.abort() },
      abort.signal,
    );
    await expectAsync(given).toBeRejectedWith(jasmine.objectContaining({ name: 'AbortError' }));
  });
});

async function unpacked(zip: Uint8Array): Promise<(path: string) => unknown> {
  const entries = unzipSync(zip);
  return (path) => JSON.parse(strFromU8(entries[path]!)) as unknown;
}
