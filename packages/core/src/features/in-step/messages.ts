import * as z from 'zod';
import { Id } from '../../id/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { View } from './view.js';

/** In step: windows show what that of the one who leads shows, as long as that is wished, or once. */
export const inStep = liveFeature({
  clientMessages: {
    /** Whether students' windows follow the tutor's from now on. */
    step: { from: 'helper', limits: SMALL, fields: { on: z.boolean() } },
    /** What the leader's window shows; at frame rate, and once more when it rests. */
    view: { from: 'student', limits: SMALL, fields: { board: Id, view: View, final: z.boolean() } },
    /** Brings every student's window here, once: the tutor's to say, and theirs who lead. */
    gather: { from: 'student', limits: SMALL, fields: { board: Id, view: View } },
    /** Brings one window of a student here, once. */
    'gather.one': {
      from: 'helper',
      to: 'window',
      limits: SMALL,
      fields: { board: Id, view: View },
    },
  },
  serverMessages: {
    step: { on: z.boolean() },
    /** What the leader's window shows, to be shown here too; `once` leaves it free to move after that. */
    view: { board: Id, view: View, once: z.boolean() },
  },
  record: null,
  said: [],
});
