import * as z from 'zod';
import { Id } from '../../id/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { LessonBoard } from './lesson-board.js';

/** The boards that a lesson is on: any of its course, opened as they are needed. All of them are in its record. */
export const lessonBoards = liveFeature({
  clientMessages: {
    /** The class has this board of the course from now on. */
    'board.show': { from: 'helper', limits: SMALL, fields: { board: Id } },
    /** The class doesn't have it any more. One always stays. */
    'board.withdraw': { from: 'helper', limits: SMALL, fields: { board: Id } },
  },
  serverMessages: {
    /** In the order in which they came. */
    boards: { boards: z.array(LessonBoard) },
  },
  record: null,
  said: [],
});
