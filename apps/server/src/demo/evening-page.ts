import { createCanvas } from '@napi-rs/canvas';
import { changePage, inkColour, MM, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Id, RichText } from '@cuaderno/core';
import type { FastifyInstance } from 'fastify';
import { Readable } from 'node:stream';
import { turningSky } from './film.js';
import { BoardBuilder, formula, plain, text } from './laying.js';
import { hourSignal } from './sound.js';

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

/**
 * Adds what Maren has prepared for tonight to a board: a margin, a squared page with a picture, words,
 * a slip, shapes and marks, and a page with the answers, hidden.
 */
export async function eveningPages(app: FastifyInstance, boardId: Id, tutor: Id): Promise<void> {
  const builder = await BoardBuilder.at(app, boardId, tutor);
  const picture = await app.intake.receive(
    boardId,
    'Harbour at nine.png',
    Readable.from([nightSky()]),
    10_000_000,
  );

  const before = await builder.board();
  const [first] = pagesInOrder(before);
  const privateNotes: RichText = [
    { runs: [{ text: 'Ask Ida', bold: true }, { text: ' what she saw on Sunday.' }] },
    { list: 'dots', runs: [{ text: 'Where is north? Let Jonas show it.' }] },
    { list: 'dots', runs: [{ text: 'The Bear turns round the pole: once a day.' }] },
  ];
  await builder.make([operation(changePage(before, first!.id, { privateNotes })!)]);
  const evening = await builder.page('Tonight', {
    paper: { kind: 'squared', spacing: 5 * MM, tint: '#fdf6e0' },
  });
  const turning = await builder.page('The sky turns', { paper: { kind: 'plain' } });
  const answers = await builder.page('Answers', { paper: { kind: 'plain' }, hidden: true });

  const line = { kind: 'shape', layer: 'material', fill: null } as const;
  await builder.lay(evening.id, [
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
  ]);
  await builder.lay(answers.id, [
    text({
      x: 60,
      y: 60,
      width: 460,
      size: 20,
      text: plain('It is Capella, some sixty degrees above the hills.'),
    }),
  ]);
  const { film, poster, seconds } = await turningSky();
  const name = 'The Bear, hour by hour.webm';
  const kept = async (bytes: Uint8Array): Promise<Id> =>
    (await app.intake.receive(boardId, name, Readable.from([Buffer.from(bytes)]), 10_000_000)).file;
  const signal = 'On the hour.wav';
  const hour = hourSignal();
  await builder.lay(turning.id, [
    text({
      x: 60,
      y: 48,
      width: 480,
      size: 28,
      font: 'title',
      text: plain('One night in eight seconds'),
    }),
    {
      kind: 'media',
      layer: 'material',
      medium: 'film',
      name,
      length: seconds,
      file: await kept(film),
      poster: await kept(poster),
      frame: { x: 60, y: 110, width: 440, height: 330, turn: 0 },
      fixed: true,
    },
    text({
      x: 60,
      y: 470,
      width: 440,
      size: 20,
      text: plain('Which star stands still? Stop the film and mark it.'),
    }),
    await formula(
      '\\frac{360^\\circ}{24\\,\\mathrm{h}} = \\frac{15^\\circ}{1\\,\\mathrm{h}}',
      60,
      560,
      24,
    ),
    {
      kind: 'media',
      layer: 'material',
      medium: 'sound',
      name: signal,
      length: hour.seconds,
      file: (
        await app.intake.receive(
          boardId,
          signal,
          Readable.from([Buffer.from(hour.wav)]),
          10_000_000,
        )
      ).file,
      peaks: hour.peaks,
      frame: { x: 260, y: 534, width: 240, height: 54, turn: 0 },
      fixed: true,
    },
  ]);
  await builder.make([
    {
      id: newId(),
      kind: 'board.sheet',
      from: null,
      to: { paper: evening.paper as never, width: evening.width, height: evening.height },
    },
  ]);
}
