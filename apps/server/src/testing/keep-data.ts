/*
 * Lays down what the present build stores, as test data that every later build must still open: a database with its files,
 * a board file and a PDF with items of ours on it, and beside them what this build reads of them. Run before stored words
 * change: `node apps/server/dist/testing/keep-data.js FOLDER`. See `test-data/README.md`.
 */
import {
  ANY_STUDENT,
  boardFor,
  boardSnapshot,
  encodeStroke,
  newId,
  operation,
  pack,
  packMessage,
} from '@cuaderno/core';
import type { Board, Change, Id, Operation, ItemSpec } from '@cuaderno/core';
import { addInk, handwriting, somePages } from '@cuaderno/core/testing';
import { readBoardFile, writeBoardFile } from '@cuaderno/formats/board-file';
import { silentWav } from '@cuaderno/formats/testing';
import { createCanvas } from '@napi-rs/canvas';
import { cpSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { House } from './harness.js';
import { plainPdf } from './pdf-files.js';

const to = process.argv[2]!;
mkdirSync(to, { recursive: true });

/** JSON of anything stored: bytes as text. */
function json(value: unknown): string {
  return JSON.stringify(
    value,
    (_key, one: unknown) =>
      one instanceof Uint8Array
        ? { bytes: Buffer.from(one).toString('base64') }
        : one instanceof Map
          ? [...one.values()]
          : one,
    1,
  );
}

const house = await House.open('keep-data');
await house.tutor.upload(house.course.id, 'Harbour.pdf', await plainPdf(2));
await house.uploadMaterial(house.tutor, 'Fog horn.wav', silentWav(1));
await house.uploadMaterial(
  house.tutor,
  'Lighthouse.png',
  createCanvas(40, 30).toBuffer('image/png'),
);
await house.app.arrivals.settled();
const { assets } = (await house.tutor.get('/materials')).json<{
  assets: { id: string; name: string; file: string }[];
}>();
const named = (name: string): { id: string; file: string } =>
  assets.find((one) => one.name === name)!;
const [horn, light] = [named('Fog horn.wav'), named('Lighthouse.png')];

const { maren, ana, anaId, page, student, lesson } = await house.lesson();
for (const { id } of [horn, light])
  await house.tutor.post(`/materials/assets/${id}/lay`, { board: house.board });

const [second, third, fourth] = somePages(3).map((one, i) => ({ ...one, order: `a${i + 5}` }));
const frame = { x: 60, y: 80, width: 140, height: 90, turn: 15 };
const common = { frame, layer: 'material' } as const;
const colour = '#1d2b4f';
let order = 0;
const lay = (on: Id, item: Record<string, unknown>): Operation =>
  operation({
    kind: 'item.add',
    page: on,
    item: {
      ...common,
      order: `b${(++order).toString(36).padStart(2, '0')}1`,
      ...item,
    } as ItemSpec,
  });

async function does(window: typeof maren, ...changes: (Operation | Change)[]): Promise<void> {
  for (const change of changes) {
    const op = 'id' in change ? (change as Operation) : operation(change);
    window.send({ kind: 'ops', ops: [op] });
    await Promise.race([
      window.hears('confirmed', ({ ids }) => ids.includes(op.id)),
      window
        .hears('refused', ({ id }) => id === op.id)
        .then(({ problem }) => {
          throw new Error(`${op.kind}: ${problem.title}`);
        }),
    ]);
  }
}

const marks = ['tick', 'cross', 'star', 'question', 'attention', 'heart'] as const;
const outline = { colour, width: 2, dashed: true };
const shapes: Record<string, unknown>[] = [
  {
    shape: 'line',
    heads: 'both',
    points: [
      [0, 0],
      [1, 1],
    ],
    outline,
    fill: null,
  },
  { shape: 'box', outline, fill: '#fdf6e0' },
  { shape: 'ellipse', outline: { colour, width: 1 }, fill: null },
  { shape: 'triangle', outline: null, fill: '#dff2e1' },
  {
    shape: 'polygon',
    points: [
      [0, 0],
      [1, 0],
      [0.5, 1],
    ],
    outline,
    fill: null,
  },
];
const words = { text: [{ runs: [{ text: 'Ebb and flow', bold: true }] }], size: 20, colour };
const lines = [{ y: 20, runs: [{ text: 'Ebb and flow', x: 0, width: 110, bold: true }] }];
const texts: Record<string, unknown>[] = [
  { ...words, lines, kind: 'text', font: 'title', align: 'middle', slip: null },
  { ...words, lines, kind: 'text', font: 'plain', align: 'start', slip: '#fff3b0', layer: 'ink' },
  {
    ...{ kind: 'formula', source: 'x^2', notation: 'typed', colour, outline: 'M0 0L10 10Z' },
    box: { width: 100, height: 50 },
  },
];
const all = [
  ...marks.map((mark) => ({ kind: 'mark', mark, colour: '#c22f2f' })),
  ...shapes.map((one) => ({ kind: 'shape', ...one })),
  ...texts,
  { kind: 'media', medium: 'sound', file: horn.file, name: 'Fog horn.wav', length: 1 },
  { kind: 'picture', file: light.file, alt: 'A lighthouse', crop: null },
].map((item) => lay(page, item));
const hidden = lay(page, { kind: 'mark', mark: 'attention', colour, hidden: true });
const changed = lay(page, { kind: 'mark', mark: 'star', colour });
const attention = lay(page, { kind: 'mark', mark: 'tick', colour, layer: 'ink' });
const cover = lay(second!.id, {
  ...{
    kind: 'cover',
    layer: 'ink',
    tint: '#dff2e1',
    frame: { x: 8, y: 8, width: 500, height: 800, turn: 0 },
  },
});
const onCover = { ...addInk(second!.id, 3), on: cover.id } as Operation;
const [line, cut] = [addInk(page, 4), addInk(page, 5)];

await does(
  maren,
  {
    kind: 'board.sheet',
    to: { paper: { kind: 'ruled', spacing: 22 }, width: 595, height: 842 },
    from: null,
  },
  {
    kind: 'pages.add',
    pages: [
      {
        ...second!,
        privateNotes: [{ runs: [{ text: 'Ask Ida', bold: true }] }],
        rules: { trust: 'view', turn: false },
      },
      { ...third!, hidden: true, paper: { kind: 'squared', spacing: 14, tint: '#fdf6e0' } },
      fourth!,
    ],
  },
  ...all,
  hidden,
  changed,
  {
    kind: 'item.change',
    page,
    item: changed.id,
    to: { hidden: true, fixed: true },
    from: { hidden: false, fixed: false },
  },
  attention,
  {
    kind: 'item.change',
    page,
    item: attention.id,
    to: { frame: { ...frame, x: 300 } },
    from: { frame },
  },
  cover,
  onCover,
  {
    kind: 'item.change',
    page: second!.id,
    item: cover.id,
    to: { lifted: true },
    from: { lifted: false },
  },
  lay(third!.id, { kind: 'mark', mark: 'attention', colour }),
  line,
  cut,
  {
    ...{ kind: 'ink.cut', page, item: cut.id },
    pieces: [
      {
        id: newId(),
        ink: encodeStroke({
          ...handwriting(5, { count: 4 }),
          points: handwriting(5, { count: 4 }).points.slice(0, 2),
        }),
      },
    ],
  },
  { kind: 'items.remove', page, items: [line.id] },
  { kind: 'items.restore', page, items: [line.id] },
  { kind: 'items.remove', page, items: [all[1]!.id] },
  {
    kind: 'page.change',
    page: fourth!.id,
    to: { hidden: true, name: 'Answers', privateNotes: [{ runs: [{ text: 'Later' }] }] },
    from: { hidden: false, name: fourth!.name, privateNotes: [] },
  },
  { kind: 'page.change', page, to: { rules: { trust: 'write' } }, from: { rules: {} } },
  { kind: 'pages.remove', pages: [fourth!.id] },
  { kind: 'board.rules', to: { trust: 'hands', runMedia: false }, from: {} },
);
await does(ana, addInk(page, 6), addInk(page, 7));
ana.send({ kind: 'chat', id: newId(), to: 'all', text: 'Is it ebb now?' });
await maren.hears('chat');
maren.send({ kind: 'rules', who: anaId, over: { addPages: true } });
maren.send({ kind: 'trust', who: 'all', trust: 'view' });
await ana.hears('people', ({ people }) =>
  people.some(({ id, trust }) => id === anaId && trust === 'view'),
);
const late = addInk(page, 8);
await student.request(
  'POST',
  `/late-lines/of/${anaId}`,
  Buffer.from(packMessage({ kind: 'ops', board: house.board, ops: [late] })),
  {
    'content-type': 'application/octet-stream',
  },
);
await house.tutor.post(`/lessons/${lesson}/close`);
await house.app.indexing.settled();
const link = await house.tutor.post(`/courses/${house.course.id}/record-links`, {
  ...{ forWhom: 'Ida’s father', email: null, student: null, may: 'view', names: 'all' },
  ...{ until: Date.now() + 300 * 86_400_000, lesson, zone: 'UTC' },
});

if (link.statusCode !== 201) throw new Error(link.body);

// What this build reads of it.
const boards: Record<string, unknown> = {};
for (const { id } of (await house.tutor.get(`/courses/${house.course.id}`)).json<{
  boards: { id: Id }[];
}>().boards) {
  const { board, seq } = (await house.app.logs.load(id))!;
  boards[id] = {
    whole: boardSnapshot(board, seq),
    student: boardSnapshot(boardFor(board, ANY_STUDENT), seq),
  };
}
const { board } = (await house.app.logs.load(house.board))!;
const info = async (path: string): Promise<unknown> => (await house.tutor.get(path)).json();
const boardFile = Buffer.concat(
  await writeBoardFile(
    board as Board,
    { ink: 'all', people: [{ id: anaId, name: 'Ana', nameOrdinal: 1, role: 'student' }] },
    {
      file: async (hash) => ({
        bytes: readFileSync(house.app.files.path(hash)),
        type: (await house.app.knownFiles.info(hash)).type,
      }),
      svg: async () => '<svg xmlns="http://www.w3.org/2000/svg"/>',
    },
  ),
);
writeFileSync(join(to, 'board.zip'), boardFile);
const pdf = await house.app.boardPdfs.make(
  {
    ...{ port: house.app.db.lend(), of: { board: house.board }, ink: 'annotations' },
    ...{ title: 'Ebb', author: 'Maren', date: Date.now(), files: house.app.files.folder },
  },
  new AbortController().signal,
);
writeFileSync(join(to, 'annotations.pdf'), pdf);
const kept = operation({
  kind: 'item.add',
  page,
  item: { ...common, order: 'a9', kind: 'mark', mark: 'attention', colour, layer: 'ink' },
});
writeFileSync(
  join(to, 'read.json'),
  json({
    board: house.board,
    lesson,
    boards,
    record: await info(`/records/${lesson}`),
    timeline: await info(`/records/${lesson}/timeline`),
    lateLines: await info('/late-lines'),
    people: (
      await house.app.db.raw([
        { sql: 'SELECT name, role, trust, rules FROM people ORDER BY role, name', params: [] },
      ])
    )[0],
    links: (
      await house.app.db.raw([{ sql: 'SELECT may, names FROM record_links', params: [] }])
    )[0],
    boardFile: readBoardFile(boardFile, { bytes: 10_000_000, entries: 100 }).board,
    // As a browser keeps what the server hasn't confirmed, and what was copied.
    pending: Buffer.from(pack(kept)).toString('base64'),
    copied: Buffer.from(pack([...board.pages.get(page)!.items.values()])).toString('base64'),
  }),
);
const copy = join(house.folder, 'copy.db');
await house.app.db.raw([{ sql: 'VACUUM INTO ?', params: [copy] }]);
writeFileSync(join(to, 'cuaderno.db.gz'), gzipSync(readFileSync(copy)));
cpSync(house.app.files.folder, join(to, 'files'), { recursive: true });
await house.close();
process.exit(0);
