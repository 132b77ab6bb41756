import * as z from 'zod';
import { PageSnapshot } from '../../board/index.js';
import { Id, ids } from '../../id/index.js';
import { Operation, ProjectedOperation } from '../../ops/index.js';
import type { Role } from '../../permissions/index.js';
import { Problem } from '../../problem/index.js';
import { liveFeature } from '../feature.js';
import { MAX_MESSAGE_BYTES } from '../limits.js';
import type { ReadLimits } from '../limits.js';

/** Pages in one message at most. */
export const MAX_PAGES = 50;
/** Operations in one message at most. */
export const MAX_OPERATIONS = 100;

/**
 * What operations in one message may cost. Anyone who writes a line, or a page full of words, needs a tenth of the first;
 * a tutor's notes beside a page and texts may be long, and a tutor has signed in.
 */
export const OPERATION_LIMITS: Readonly<Record<Role, ReadLimits>> = {
  student: { bytes: MAX_MESSAGE_BYTES, values: 1_600, text: 60_000, depth: 12 },
  tutor: { bytes: MAX_MESSAGE_BYTES, values: 3_000, text: 110_000, depth: 12 },
};

const seq = z.number().int().min(0);

const entries = { from: seq, by: Id, at: z.number(), ops: z.array(ProjectedOperation) };
/** Entries of one person at one time: entry `from`, `from + 1` …, one for each operation. */
export type Entries = z.infer<z.ZodObject<typeof entries>>;

/** What is done on the board, and what is asked of it. Who may do what, each operation says. */
export const board = liveFeature({
  clientMessages: {
    ops: {
      from: 'anyone',
      limits: OPERATION_LIMITS,
      fields: { ops: z.array(Operation).min(1).max(MAX_OPERATIONS) },
    },
    /** What is on these pages is to be sent. */
    pages: {
      from: 'anyone',
      limits: { bytes: 1_000, values: 60, text: 1_000, depth: 2 },
      fields: { ids: ids(MAX_PAGES) },
    },
  },
  serverMessages: {
    /** What was asked for: those of these pages that there are, as they stand after entry `seq`. */
    pages: { seq, ids: z.array(Id), pages: z.array(PageSnapshot) },
    /** Someone's operations, in their place and on disk. */
    applied: entries,
    /** One's own operations are in their place and on disk; `ids` are theirs, in order of `seq`. */
    confirmed: { at: z.number(), seqs: z.array(seq), ids: z.array(Id) },
    refused: { id: Id, problem: Problem },
  },
  record: null,
  said: [],
});
