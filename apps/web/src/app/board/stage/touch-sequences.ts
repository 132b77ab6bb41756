/** One pointer event as a device sends it; place and size in CSS px, time in ms. */
export interface Touch {
  readonly t: number;
  readonly id: number;
  readonly kind: 'down' | 'move' | 'up' | 'cancel';
  readonly type: 'touch' | 'pen' | 'mouse';
  readonly x: number;
  readonly y: number;
  readonly width?: number;
  readonly height?: number;
  readonly pressure?: number;
  /** 0 where a pen hovers. */
  readonly buttons?: number;
}

/** What a person does, what their hand sends, and what should come of it. */
export interface Sequence {
  readonly what: string;
  readonly touches: readonly Touch[];
  /** Strokes that are kept, by the pointer that drew them. */
  readonly strokes: readonly number[];
  /** Strokes that were begun and given up. */
  readonly lost: number;
  /** Whether the page was moved. */
  readonly moved: boolean;
}

type TouchStep = readonly [x: number, y: number];

/** A contact that comes down at its first place, passes through the others, and goes, every `every` ms. */
function contact(
  {
    id,
    type,
    at,
    every = 16,
    ...more
  }: Pick<Touch, 'id' | 'type'> &
    Partial<Pick<Touch, 'width' | 'height' | 'pressure'>> & { at: number; every?: number },
  ...places: readonly TouchStep[]
): Touch[] {
  const last = places.at(-1)!;
  const events = places.map(([x, y], i): Touch => ({
    ...{ t: at + i * every, id, type, x, y, kind: i === 0 ? 'down' : 'move' },
    ...more,
    ...(type === 'pen' ? { buttons: 1 } : {}),
  }));
  return [
    ...events,
    { ...{ t: at + places.length * every, id, type, kind: 'up', x: last[0], y: last[1] }, ...more },
  ];
}

const together = (...all: readonly Touch[][]): Touch[] => all.flat().sort((a, b) => a.t - b.t);
const LINE: readonly TouchStep[] = [
  [100, 100],
  [120, 104],
  [140, 110],
  [160, 118],
];
const PALM = { width: 92, height: 64 };

/**
 * Sequences as tablets send them, in the order of Pointer Events (level 3). Written by hand after what a tablet with a
 * pen and one without report, from memory, and held against what Chromium makes of such contacts (story “touches”), which
 * is recorded in `recorded-touches.json` (made by `RECORD_TOUCHES=1`); sizes of contacts are in CSS px (1/96 inch).
 */
export const SEQUENCES: readonly Sequence[] = [
  {
    what: 'a child’s finger writes',
    touches: contact({ id: 1, type: 'touch', at: 0, width: 32, height: 30 }, ...LINE),
    ...{ strokes: [1], lost: 0, moved: false },
  },
  {
    what: 'a grown-up’s thumb, laid flat, writes as well: 58 px is no palm where there is no pen',
    touches: contact({ id: 1, type: 'touch', at: 0, width: 58, height: 49 }, ...LINE),
    ...{ strokes: [1], lost: 0, moved: false },
  },
  {
    what: 'the hand comes down before the pen, the very first time',
    touches: together(
      contact(
        { id: 1, type: 'touch', at: 0, every: 200, ...PALM },
        ...([
          [300, 300],
          [301, 302],
          [302, 303],
        ] as const),
      ),
      contact({ id: 2, type: 'pen', at: 180, pressure: 0.4 }, ...LINE),
    ),
    ...{ strokes: [2], lost: 1, moved: false },
  },
  {
    what: 'the side of the hand comes down in two places while the pen writes',
    touches: together(
      contact({ id: 1, type: 'pen', at: 0, every: 60, pressure: 0.5 }, ...LINE),
      contact({ id: 2, type: 'touch', at: 40, width: 40, height: 30 }, [200, 200], [202, 203]),
      contact({ id: 3, type: 'touch', at: 50, ...PALM }, [260, 260], [262, 266]),
    ),
    ...{ strokes: [1], lost: 0, moved: false },
  },
  {
    what: 'the hand stays between two strokes of the pen',
    touches: together(
      contact({ id: 1, type: 'pen', at: 0, pressure: 0.5 }, ...LINE),
      contact({ id: 2, type: 'touch', at: 20, every: 300, ...PALM }, [200, 200], [203, 204]),
      contact({ id: 3, type: 'pen', at: 400, pressure: 0.5 }, ...LINE),
    ),
    ...{ strokes: [1, 3], lost: 0, moved: false },
  },
  {
    what: 'a hovering pen announces its hand',
    touches: together(
      [{ t: 0, id: 1, kind: 'move', type: 'pen', x: 90, y: 90, buttons: 0 }],
      contact({ id: 2, type: 'touch', at: 100, width: 36, height: 36 }, [200, 200], [203, 204]),
      contact({ id: 1, type: 'pen', at: 200, pressure: 0.3 }, ...LINE),
    ),
    ...{ strokes: [1], lost: 0, moved: false },
  },
  {
    what: 'a finger of the other hand moves the page while the pen rests',
    touches: together(
      contact({ id: 1, type: 'pen', at: 0, pressure: 0.5 }, ...LINE),
      contact({ id: 2, type: 'touch', at: 2000, width: 30, height: 30 }, ...LINE),
    ),
    ...{ strokes: [1], lost: 0, moved: true },
  },
  {
    what: 'a palm that is put down while the pen rests does nothing',
    touches: together(
      contact({ id: 1, type: 'pen', at: 0, pressure: 0.5 }, ...LINE),
      contact({ id: 2, type: 'touch', at: 2000, ...PALM }, ...LINE),
    ),
    ...{ strokes: [1], lost: 0, moved: false },
  },
  {
    what: 'the pen has been away for long, and a finger writes again',
    touches: together(
      contact({ id: 1, type: 'pen', at: 0, pressure: 0.5 }, ...LINE),
      contact({ id: 2, type: 'touch', at: 9000, width: 52, height: 50 }, ...LINE),
    ),
    ...{ strokes: [1, 2], lost: 0, moved: false },
  },
  {
    what: 'a finger that has written for a while is kept when somebody takes the pen',
    touches: together(
      contact({ id: 1, type: 'touch', at: 0, every: 600, width: 30, height: 30 }, ...LINE),
      contact({ id: 2, type: 'pen', at: 1700, pressure: 0.5 }, ...LINE),
    ),
    ...{ strokes: [1, 2], lost: 0, moved: false },
  },
  {
    what: 'two fingers pinch',
    touches: together(
      contact({ id: 1, type: 'touch', at: 0, every: 40 }, [200, 200], [190, 190], [180, 180]),
      contact({ id: 2, type: 'touch', at: 30, every: 40 }, [300, 300], [310, 310], [320, 320]),
    ),
    ...{ strokes: [], lost: 1, moved: true },
  },
  {
    what: 'the system takes a touch away in the middle',
    touches: [
      ...contact({ id: 1, type: 'touch', at: 0 }, ...LINE).slice(0, 3),
      { t: 60, id: 1, kind: 'cancel', type: 'touch', x: 140, y: 110 },
    ],
    ...{ strokes: [], lost: 1, moved: false },
  },
];
