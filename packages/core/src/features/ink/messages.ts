import * as z from 'zod';
import { Id } from '../../id/index.js';
import { HighlightName, InkName } from '../../ink/index.js';
import { BoardNumber } from '../board/wanted.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';

const POINTS = 20_000;
const bytes = z.custom<Uint8Array>(
  (value) => value instanceof Uint8Array && value.length <= POINTS,
  `at most ${POINTS} bytes`,
);

const width = z.number().positive().max(200);
const Style = z.discriminatedUnion('tool', [
  z.strictObject({ tool: z.literal('pen'), ink: InkName, width }),
  z.strictObject({ tool: z.literal('highlighter'), ink: HighlightName, width }),
]);

/** A stroke begins: where and how it is drawn, and its first points. */
const begun = { start: z.strictObject({ page: Id, style: Style }), points: bytes };

/** Stands for a stroke under way. The id of the operation that it will be is its writer's alone until that is kept. */
const number = z.number().int().min(0);

/** Strokes under way: at frame rate, may be lost, never stored. */
export const ink = liveFeature({
  clientMessages: {
    /** `stroke` is the id of the operation that follows. */
    'live.ink': {
      from: 'student',
      limits: { ...SMALL, bytes: POINTS + SMALL.bytes },
      fields: { board: Id, ...begun, stroke: Id },
    },
    /** The next points: see `wire/live-piece.ts`, also for how they travel. */
    'live.more': { from: 'student', limits: { ...SMALL, bytes: POINTS }, fields: { piece: bytes } },
    /** The stroke under way was given up. */
    'live.end': { from: 'student', limits: SMALL, fields: { stroke: Id } },
  },
  serverMessages: {
    /** `n` stands for the stroke in the pieces that follow. */
    'live.ink': { on: BoardNumber, ...begun, by: Id, n: number },
    'live.more': { piece: bytes, n: number },
    /** It is this item by now, which follows, or was given up. */
    'live.end': { n: number, item: Id.nullable() },
  },
  record: null,
  said: [],
});
