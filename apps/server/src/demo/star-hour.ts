import type { Id, InkName, InkStyle, Operation, Point } from '@cuaderno/core';
import { line, loop, stretch, tick } from './drawing.js';
import { handwritten } from './letters.js';
import type { Hand } from './letters.js';

/** Who writes in the lesson, and on what. */
export interface StarHour {
  readonly tutor: Id;
  readonly ida: Id;
  readonly jonas: Id;
  readonly noor: Id;
  /** On which day of which month it was. */
  readonly day: number;
  readonly month: number;
  /** The star chart’s pages, in their order. */
  readonly pages: readonly [sky: Id, bear: Id, cassiopeia: Id, orion: Id, table: Id];
}

/** A line of the lesson, by whom it is, and when it was finished, in minutes from the opening. */
export interface WrittenLine {
  readonly by: Id;
  readonly minute: number;
  readonly op: Operation;
}

const pen = (ink: InkName, width = 2): InkStyle => ({ tool: 'pen', ink, width });

/** A grown hand, a neat one, a big quick one, and one that is still learning. */
const HANDS = {
  maren: { step: 1.55, lean: 0.2, shake: 0.35, pace: 7 },
  ida: { step: 1.5, lean: 0.05, shake: 0.5, pace: 10 },
  jonas: { step: 1.75, lean: 0.14, shake: 0.9, pace: 8 },
  noor: { step: 1.6, lean: -0.04, shake: 0.75, pace: 12 },
} as const satisfies Record<string, Hand>;

/** Places are points from the top left of the page, read off the chart. */
const star = (x: number, y: number): Point => ({ x: 60 + x * 475, y: 841.89 - 130 - y * 600 });

/** All that was written in last Tuesday’s lesson, in the order of time. */
export function starHour(hour: StarHour): WrittenLine[] {
  const { tutor, ida, jonas, noor, pages } = hour;
  const date = `${hour.day}. ${hour.month}`;
  const [sky, bear, cassiopeia, orion, table] = pages;
  const all: WrittenLine[] = [];
  let seed = 1;
  const writers = {
    maren: { by: tutor, ink: 'poppy', hand: HANDS.maren },
    ida: { by: ida, ink: 'lagoon', hand: HANDS.ida },
    jonas: { by: jonas, ink: 'fern', hand: HANDS.jonas },
    noor: { by: noor, ink: 'iris', hand: HANDS.noor },
  } as const;
  type Name = keyof typeof writers;

  /** Somebody writes words, and takes the time that it takes. */
  const writes = (
    name: Name,
    page: Id,
    minute: number,
    words: string,
    [x, y]: [number, number],
    size = 1,
  ): void => {
    const { by, ink, hand } = writers[name];
    const sized = { ...hand, step: hand.step * size };
    for (const { begins, places } of handwritten(words, { x, y }, sized, ++seed)) {
      const op = line(page, pen(ink, 1.6), places, ++seed, 0.16);
      all.push({ by, minute: minute + begins / 60_000, op });
    }
  };
  /** Somebody draws lines, one after the other. */
  const draws = (
    name: Name,
    page: Id,
    minute: number,
    lines: readonly (readonly Point[])[],
    style: InkStyle = pen(writers[name].ink, 2.4),
  ): void => {
    const { by } = writers[name];
    for (const [i, places] of lines.entries())
      all.push({ by, minute: minute + i * 0.12, op: line(page, style, places, ++seed) });
  };
  const joined = (stars: readonly [number, number][]): Point[][] =>
    stars.slice(1).map((to, i) => stretch(star(...stars[i]!), star(...to)));

  // What is found first.
  writes('maren', sky, 1.2, `Tuesday ${hour.day}, clear`, [60, 150]);
  draws('maren', sky, 4.5, [loop({ x: 297, y: 422 }, 30)], pen('poppy', 5));
  draws('maren', sky, 4.9, [stretch({ x: 350, y: 350 }, { x: 318, y: 402 })]);
  writes('maren', sky, 5.1, 'Pole Star', [352, 344]);
  writes('ida', sky, 6.2, 'the Plough', [60, 772]);
  draws('ida', sky, 6.8, [loop({ x: 350, y: 560 }, 40, 26)]);
  writes('jonas', sky, 7.4, 'a big W!', [212, 774]);
  draws('jonas', sky, 8, [loop({ x: 250, y: 300 }, 34)]);
  writes('noor', sky, 8.6, '3 in a row', [380, 772]);
  draws('noor', sky, 9.2, [loop({ x: 420, y: 500 }, 22)]);

  // The Plough, and what it is good for.
  draws('ida', bear, 12, joined([...PLOUGH]));
  draws('jonas', bear, 12.8, joined([...HANDLE]));
  writes('ida', bear, 13.6, 'it is a saucepan', [70, 640]);
  writes('maren', bear, 14.6, '7 bright stars', [330, 140]);
  draws('maren', bear, 16, [stretch(star(0.7, 0.44), star(0.75, 0.86), 40)]);
  writes('maren', bear, 16.2, '5 times as far', [420, 300], 0.92);
  writes('noor', bear, 17.4, '→ Pole Star → north', [300, 172]);
  writes('jonas', bear, 18.8, 'Mizar has a twin', [70, 670]);
  draws('jonas', bear, 19.4, [loop(star(0.29, 0.62), 16)]);
  writes('ida', bear, 20.4, `${date}, 17:00, harbour`, [110, 745]);
  draws('maren', bear, 21.4, [tick({ x: 500, y: 110 })], pen('poppy', 5));

  draws('noor', cassiopeia, 25, joined([...W]));
  writes('maren', cassiopeia, 26, 'W or M? Both!', [330, 140]);
  writes('ida', cassiopeia, 27, 'it turns once a day', [70, 640]);
  writes('jonas', cassiopeia, 28, 'opposite the Plough', [70, 670]);
  writes('noor', cassiopeia, 29.2, `${date}, 21:00, window`, [110, 745]);
  draws('maren', cassiopeia, 30.2, [tick({ x: 500, y: 110 })], pen('poppy', 5));

  draws('jonas', orion, 34.4, [loop(star(0.38, 0.72), 20)], pen('fern', 5));
  writes('jonas', orion, 34.9, 'red!', [330, 236]);
  const rigel = star(0.64, 0.3);
  const under = (from: number, to: number): Point[] =>
    stretch({ x: rigel.x + from, y: rigel.y + 18 }, { x: rigel.x + to, y: rigel.y + 18 });
  draws('noor', orion, 35.8, [under(8, 44)]);
  writes('noor', orion, 36.1, 'blue', [rigel.x + 14, rigel.y + 40]);
  writes('ida', orion, 37, 'which is hotter?', [70, 640]);
  writes('jonas', orion, 38.2, 'red is cooler', [70, 670]);
  writes('maren', orion, 39.6, '3500 K and 12 000 K', [300, 172]);
  draws('maren', orion, 41.2, [stretch({ x: 58, y: 92 }, { x: 168, y: 92 })], {
    tool: 'highlighter',
    ink: 'lemon',
    width: 16,
  });
  writes('noor', orion, 42.4, 'not yet: rises at 20:40', [110, 745]);

  // Each has a row of the table.
  const row = (name: Name, minute: number, n: number, cells: readonly string[]): void => {
    for (const [i, words] of cells.entries())
      writes(name, table, minute + i * 0.5, words, [COLUMNS[i]!, 164 + 50 * n], 0.66);
  };
  row('ida', 46, 0, [date, 'Plough', 'low in the north', 'all seven seen']);
  row('jonas', 46.6, 1, [date, 'Cassiopeia', 'high up, east', 'a W on its side']);
  row('noor', 47.2, 2, [date, 'Orion', 'not there yet', 'look after ten']);
  writes('maren', table, 50.4, 'Well seen, all of you!', [70, 800]);
  return all.sort((a, b) => a.minute - b.minute);
}

const PLOUGH: readonly [number, number][] = [
  [0.72, 0.62],
  [0.7, 0.44],
  [0.53, 0.4],
  [0.5, 0.54],
  [0.72, 0.62],
];
const HANDLE: readonly [number, number][] = [
  [0.5, 0.54],
  [0.38, 0.58],
  [0.29, 0.62],
  [0.16, 0.56],
];
const W: readonly [number, number][] = [
  [0.2, 0.55],
  [0.36, 0.42],
  [0.5, 0.56],
  [0.66, 0.44],
  [0.78, 0.6],
];

/** Where cells of “My observations” begin, in points. */
const COLUMNS = [62, 162, 282, 402];
