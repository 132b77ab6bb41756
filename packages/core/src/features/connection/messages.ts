import * as z from 'zod';
import { BoardOutline } from '../../board/index.js';
import { Id } from '../../id/index.js';
import { Role } from '../../permissions/index.js';
import { Problem } from '../../problem/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';

const Lesson = z.strictObject({ id: Id, openedAt: z.number() });

/** The line itself: who one is on it, which lesson is open, and whether it still carries. */
export const connection = liveFeature({
  clientMessages: {
    hello: {
      from: 'anyone',
      limits: { bytes: 100, values: 10, text: 60, depth: 1 },
      fields: {
        protocol: z.number().int(),
        /** Last entry this browser has, or -1 for none: then the board is sent as it is. */
        since: z.number().int().min(-1),
      },
    },
    ping: { from: 'anyone', limits: SMALL, fields: { n: z.number().int().min(0) } },
  },
  serverMessages: {
    welcome: {
      you: Id,
      /** This window's own id, as long as its connection lasts: what is meant for it alone is sent to that. */
      window: Id,
      role: Role,
      /** What time it is for the server, in ms since 1970. */
      now: z.number(),
      /** The lesson that is open on this board, if one is. */
      lesson: Lesson.nullable(),
      /** The page to begin on: where the tutor is. */
      page: Id.nullable(),
      /**
       * The board, with what is on the page in view; what is on the others is asked for. `null` where all
       * that was missed follows as `applied`.
       */
      board: BoardOutline.nullable(),
    },
    lesson: { lesson: Lesson.nullable() },
    /** The lesson was closed; nothing more will come. */
    over: { at: z.number() },
    /** Whether what is written can be kept just now: while the disk is full, writing rests. */
    keeping: { on: z.boolean() },
    /** A message was not taken; the connection goes on. */
    problem: { problem: Problem },
    pong: { n: z.number().int() },
  },
  record: null,
  said: [],
});
