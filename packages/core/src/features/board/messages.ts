import * as z from 'zod';
import { BoardOutline, PageSnapshot } from '../../board/index.js';
import { Id, ids } from '../../id/index.js';
import { Operation, ProjectedOperation } from '../../ops/index.js';
import type { Role } from '../../permissions/index.js';
import { Problem } from '../../problem/index.js';
import { liveFeature } from '../feature.js';
import { MAX_MESSAGE_BYTES } from '../limits.js';
import { SMALL } from '../limits.js';
import type { ReadLimits } from '../limits.js';
import { BoardNumber, BoardWanted } from './wanted.js';

/** Pages in one message at most. */
export const MAX_PAGES = 50;
/** Operations in one message at most: as many of the costliest are read in 2 ms on a slow machine (bench `message-cost`). */
export const MAX_OPERATIONS = 60;

const STUDENTS: ReadLimits = {
  bytes: MAX_MESSAGE_BYTES,
  values: 1_600,
  text: 60_000,
  depth: 12,
};

/**
 * What operations in one message may cost. Anyone who writes a line, or a page full of words, needs a tenth of the first;
 * a tutor's notes beside a page and texts may be long, and a tutor has signed in.
 */
export const OPERATION_LIMITS: Readonly<Record<Role, ReadLimits>> = {
  watcher: STUDENTS,
  student: STUDENTS,
  helper: STUDENTS,
  tutor: { bytes: MAX_MESSAGE_BYTES, values: 3_000, text: 110_000, depth: 12 },
};

const seq = z.number().int().min(0);

const entries = {
  on: BoardNumber,
  from: seq,
  by: Id,
  at: z.number(),
  ops: z.array(ProjectedOperation),
};
/** Entries of one person at one time: entry `from`, `from + 1` …, one for each operation. */
export type Entries = z.infer<z.ZodObject<typeof entries>>;

/**
 * The boards that a window has open, what is done on them, and what is asked of them. Of a board that it hasn't open a
 * window is told nothing, and can do nothing on it. Who may do what on one, each operation says.
 */
export const board = liveFeature({
  clientMessages: {
    /** This window shows a board from now on: it is told all that happens on it. */
    'board.open': { from: 'watcher', limits: SMALL, fields: BoardWanted.shape },
    'board.close': { from: 'watcher', limits: SMALL, fields: { board: Id } },
    ops: {
      from: 'student',
      limits: OPERATION_LIMITS,
      fields: { board: Id, ops: z.array(Operation).min(1).max(MAX_OPERATIONS) },
    },
    /** What is on these pages is to be sent. */
    pages: {
      from: 'watcher',
      limits: { bytes: 1_000, values: 60, text: 1_000, depth: 2 },
      fields: { board: Id, ids: ids(MAX_PAGES) },
    },
  },
  serverMessages: {
    'board.opened': {
      board: Id,
      /** Stands for the board in what is told of it from here on. */
      number: BoardNumber,
      /** The page to begin on: where the one who leads is, if that is on this board. */
      page: Id.nullable(),
      /**
       * The board, with what is on the page in view; what is on the others is asked for. `null` where all
       * that was missed follows as `applied`.
       */
      outline: BoardOutline.nullable(),
    },
    /** Nothing more is told of this board: why. `null` stands for the board to begin on. */
    'board.closed': { board: Id.nullable(), problem: Problem },
    /** What was asked for: those of these pages that there are, as they stand after entry `seq`. */
    pages: { board: Id, seq, ids: z.array(Id), pages: z.array(PageSnapshot) },
    /** Someone's operations, in their place and on disk. */
    applied: entries,
    /** One's own operations are in their place and on disk; `ids` are theirs, in order of `seq`. */
    confirmed: { board: Id, at: z.number(), seqs: z.array(seq), ids: z.array(Id) },
    refused: { board: Id, id: Id, problem: Problem },
  },
  record: null,
  said: [],
});
