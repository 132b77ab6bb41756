import * as z from 'zod';
import { Id } from '../../id/index.js';
import { Role } from '../../permissions/index.js';
import { Problem } from '../../problem/index.js';
import { BoardWanted, MAX_BOARDS } from '../board/wanted.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';

const Lesson = z.strictObject({ id: Id, openedAt: z.number() });

/** The line itself: who one is on it, which lesson is open, and whether it still carries. */
export const connection = liveFeature({
  clientMessages: {
    /** The first word of a window; the boards that it shows are opened with it, as if each were asked for. */
    hello: {
      from: 'watcher',
      limits: { bytes: 1_000, values: 60, text: 500, depth: 3 },
      fields: { protocol: z.number().int(), boards: z.array(BoardWanted).max(MAX_BOARDS) },
    },
    ping: { from: 'watcher', limits: SMALL, fields: { n: z.number().int().min(0) } },
  },
  serverMessages: {
    welcome: {
      you: Id,
      /** This window's own id, as long as its connection lasts: what is meant for it alone is sent to that. */
      window: Id,
      role: Role,
      /** What time it is for the server, in ms since 1970. */
      now: z.number(),
      /** The lesson of the course that is open, if one is. */
      lesson: Lesson.nullable(),
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
