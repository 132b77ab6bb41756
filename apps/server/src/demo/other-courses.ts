import { A4, MM } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { FastifyInstance } from 'fastify';
import { Readable } from 'node:stream';
import { BoardBuilder, formula, plain, text } from './laying.js';
import { openStrings } from './sound.js';

/** A page on how the height of the water is reckoned, behind the tide tables. */
export async function tideFormulas(app: FastifyInstance, board: Id, tutor: Id): Promise<void> {
  const builder = await BoardBuilder.at(app, board, tutor);
  const page = await builder.page('How high is the water?', {
    ...A4,
    paper: { kind: 'squared', spacing: 5 * MM },
  });
  await builder.lay(page.id, [
    text({
      x: 60,
      y: 48,
      width: 480,
      size: 28,
      font: 'title',
      text: plain('How high is the water?'),
    }),
    text({
      x: 60,
      y: 110,
      width: 470,
      size: 18,
      text: plain('The moon pulls twice in a day and a bit, the sun twice in a day:'),
    }),
    await formula(
      'h(t) = h_0 + a\\cos\\frac{2\\pi t}{12.42} + b\\cos\\frac{2\\pi t}{12}',
      60,
      210,
      22,
    ),
    text({
      x: 60,
      y: 270,
      width: 470,
      size: 18,
      text: plain('Six hours after high water, how much of it has gone?'),
    }),
    await formula(
      '\\frac{1}{12},\\ \\frac{2}{12},\\ \\frac{3}{12},\\ \\frac{3}{12},\\ \\frac{2}{12},\\ \\frac{1}{12}',
      60,
      345,
      22,
    ),
    text({
      x: 360,
      y: 400,
      width: 180,
      size: 16,
      slip: '#d6ebfa',
      text: plain('The rule of twelfths: good enough for a rowing boat.'),
    }),
  ]);
}

/** A page of staves with the sound of the four strings, for Mika. */
export async function celloPage(app: FastifyInstance, board: Id, tutor: Id): Promise<void> {
  const builder = await BoardBuilder.at(app, board, tutor);
  const page = await builder.page('Open strings', {
    paper: { kind: 'staves', spacing: 8 * MM },
  });
  const { wav, seconds, peaks } = openStrings();
  const name = 'Open strings.wav';
  const { file } = await app.intake.receive(
    board,
    name,
    Readable.from([Buffer.from(wav)]),
    10_000_000,
  );
  await builder.lay(page.id, [
    {
      kind: 'media',
      layer: 'material',
      medium: 'sound',
      name,
      length: seconds,
      file,
      peaks,
      frame: { x: 60, y: 30, width: 260, height: 54, turn: 0 },
      fixed: true,
    },
    text({
      x: 340,
      y: 30,
      width: 200,
      size: 16,
      slip: '#fff3b0',
      text: plain('Listen first, then tune: A, D, G, C.'),
    }),
  ]);
}
