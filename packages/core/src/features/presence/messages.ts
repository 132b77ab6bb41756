import * as z from 'zod';
import { Id } from '../../id/index.js';
import { liveFeature } from '../feature.js';
import { View, WindowSize } from '../in-step/index.js';
import { SMALL } from '../limits.js';
import { LessonWindow, Machine, Person } from './person.js';

/** Who is here, where they are, and what their windows show. */
export const presence = liveFeature({
  clientMessages: {
    /** Which page this browser shows. */
    'page.viewed': { from: 'watcher', limits: SMALL, fields: { board: Id, page: Id } },
    /** What this window shows while it isn't followed by others, and on what machine; when it rests. */
    window: {
      from: 'watcher',
      limits: SMALL,
      fields: { board: Id, machine: Machine, size: WindowSize, view: View },
    },
  },
  serverMessages: {
    /** Everyone in the lesson, in order of arrival. */
    people: { people: z.array(Person) },
    /** Every window in the lesson, the earlier first. */
    windows: { windows: z.array(LessonWindow) },
  },
  record: {
    /** Who turned to which page. */
    turns: z.array(z.object({ by: Id, page: Id, at: z.number() })),
  },
  said: [],
});
