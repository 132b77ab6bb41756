import { createCanvas } from '@napi-rs/canvas';
import {
  addPageBeside,
  changePage,
  inkColour,
  keysBetween,
  layOutText,
  MM,
  newId,
  operation,
  pagesInOrder,
  SLIP_EDGE,
} from '@cuaderno/core';
import type {
  Actor,
  Board,
  Id,
  Operation,
  PageSpec,
  RichText,
  TextSpec,
  ThingSpec,
} from '@cuaderno/core';
import type { FastifyInstance } from 'fastify';
import { Readable } from 'node:stream';
import { measureIn } from './measure.js';

/** The sky over the harbour of Solvik, as the demo has it: made up, drawn here. */
function nightSky(): Buffer {
  const canvas = createCanvas(720, 480);
  const context = canvas.getContext('2d');
  const sky = context.createLinearGradient(0, 0, 0, 480);
  sky.addColorStop(0, '#0b1d3a');
  sky.addColorStop(1, '#3a5f8f');
  context.fillStyle = sky;
  context.fillRect(0, 0, 720, 480);
  context.fillStyle = '#ffffff';
  for (let i = 0; i < 140; i++) {
    const size = 1 + ((i * 7) % 3);
    context.fillRect((i * 197) % 720, (i * 83) % 380, size, size);
  }
  context.fillStyle = '#101c24';
  context.beginPath();
  context.moveTo(0, 480);
  for (const [x, y] of [
    [0, 400],
    [160, 330],
    [300, 410],
    [470, 350],
    [600, 420],
    [720, 370],
  ] as const)
    context.lineTo(x, y);
  context.lineTo(720, 480);
  context.fill();
  return canvas.toBuffer('image/png');
}

interface Written {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly size: number;
  readonly text: RichText;
  readonly font?: 'plain' | 'title';
  readonly slip?: string;
}

/** A text as the editor would lay it. */
function text({
  x,
  y,
  width,
  size,
  text: words,
  font = 'plain',
  slip,
}: Written): Omit<TextSpec, 'order'> {
  const edge = slip ? SLIP_EDGE : 0;
  const inside = { size, width: width - 2 * edge, align: 'start' } as const;
  const { lines, height } = layOutText(words, inside, measureIn(font, size));
  return {
    kind: 'text',
    layer: 'material',
    frame: { x, y, width, height: height + 2 * edge, turn: slip ? -2 : 0 },
    text: words,
    font,
    size,
    colour: inkColour('midnight'),
    align: 'start',
    slip: slip ?? null,
    lines: lines.map((line) => ({
      y: line.y + edge,
      runs: line.runs.map((run) => ({ ...run, x: run.x + edge })),
    })),
  };
}

const plain = (words: string): RichText => [{ runs: [{ text: words }] }];

/**
 * Adds what Maren has prepared for tonight to a board: a margin, a squared page with a picture, words,
 * a slip, figures and marks, and a page with the answers, held back.
 */
export async function eveningPages(app: FastifyInstance, boardId: Id, tutor: Id): Promise<void> {
  const room = (await app.bus.room(boardId))!;
  const maren: Actor = { id: tutor, role: 'tutor', trust: 'hands' };
  const make = (ops: Operation[]): Promise<void> => room.take(ops, maren);
  const board = (): Promise<Board> => room.between((state) => state);
  const picture = await app.pictures.take(
    boardId,
    'Harbour at nine.png',
    Readable.from([nightSky()]),
    10_000_000,
  );

  const before = await board();
  const [first] = pagesInOrder(before);
  const margin: RichText = [
    { runs: [{ text: 'Ask Ida', bold: true }, { text: ' what she saw on Sunday.' }] },
    { list: 'dots', runs: [{ text: 'Where is north? Let Jonas show it.' }] },
    { list: 'dots', runs: [{ text: 'The Bear turns round the pole: once a day.' }] },
  ];
  const sheet = (name: string, change: Partial<PageSpec>, state: Board): PageSpec => {
    const edit = addPageBeside(state, pagesInOrder(state).at(-1)!.id, 'after');
    const [add] = edit.changes;
    if (add?.kind !== 'pages.add') throw new Error('A page is added by adding it.');
    return { ...add.pages[0]!, name, ...change };
  };
  const evening = sheet(
    'Tonight',
    { paper: { kind: 'squared', spacing: 5 * MM, tint: '#fdf6e0' } },
    before,
  );
  await make([
    operation(changePage(before, first!.id, { margin })!),
    operation({ kind: 'pages.add', pages: [evening] }),
  ]);
  const answers = sheet('Answers', { paper: { kind: 'plain' }, held: true }, await board());
  await make([operation({ kind: 'pages.add', pages: [answers] })]);

  const line = { kind: 'shape', layer: 'material', fill: null } as const;
  const things: Omit<ThingSpec, 'order'>[] = [
    text({
      x: 60,
      y: 48,
      width: 480,
      size: 28,
      font: 'title',
      text: plain('What stands where tonight?'),
    }),
    {
      kind: 'picture',
      layer: 'material',
      file: picture.file,
      frame: { x: 60, y: 110, width: 330, height: 220, turn: 0 },
      alt: 'The harbour at nine in the evening, stars above the hills',
      fixed: true,
    },
    text({
      x: 410,
      y: 130,
      width: 140,
      size: 16,
      slip: '#fff3b0',
      text: [
        { runs: [{ text: 'Bring', bold: true }] },
        { list: 'dots', runs: [{ text: 'gloves' }] },
        { list: 'dots', runs: [{ text: 'a red lamp' }] },
      ],
    }),
    {
      ...line,
      shape: 'ellipse',
      frame: { x: 180, y: 130, width: 70, height: 60, turn: 0 },
      outline: { colour: inkColour('poppy'), width: 2.4 },
    },
    {
      ...line,
      shape: 'line',
      heads: 'end',
      frame: { x: 250, y: 160, width: 40, height: 220, turn: 0 },
      points: [
        [1, 1],
        [0, 0],
      ],
      outline: { colour: inkColour('poppy'), width: 2.4 },
    },
    text({
      x: 200,
      y: 384,
      width: 300,
      size: 18,
      text: plain('Which star is this? How high is it?'),
    }),
    {
      kind: 'mark',
      mark: 'question',
      layer: 'material',
      colour: inkColour('fern'),
      frame: { x: 150, y: 380, width: 34, height: 34, turn: 0 },
    },
  ] as never;
  const orders = keysBetween(null, null, things.length);
  await make(
    things.map((thing, i) =>
      operation({
        kind: 'item.add',
        page: evening.id,
        item: { ...thing, order: orders[i]! } as ThingSpec,
      }),
    ),
  );
  const answer = text({
    x: 60,
    y: 60,
    width: 460,
    size: 20,
    text: plain('It is Capella, some sixty degrees above the hills.'),
  });
  const item: TextSpec = { ...answer, order: orders[0]! };
  await make([operation({ kind: 'item.add', page: answers.id, item })]);
  await make([
    {
      id: newId(),
      kind: 'board.sheet',
      from: null,
      to: { paper: evening.paper as never, width: evening.width, height: evening.height },
    },
  ]);
}
