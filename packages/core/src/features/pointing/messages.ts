import * as z from 'zod';
import { Id } from '../../id/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { Lamp, Overlay, Place } from './pointing.js';

/** The pointer, arrows left standing, and the lamp: what is shown on pages and is on none of them. */
export const pointing = liveFeature({
  clientMessages: {
    /** Where one points; at frame rate, may be lost. `null` takes the dot away. */
    point: { from: 'student', limits: SMALL, fields: { board: Id, at: Place.nullable() } },
    /** Leaves one's arrow standing, or takes it away. */
    arrow: { from: 'student', limits: SMALL, fields: { board: Id, at: Place.nullable() } },
    /** Takes everyone's arrows away. */
    'arrows.clear': { from: 'helper', limits: SMALL, fields: {} },
    /** Lights the lamp, moves it, or puts it out. */
    lamp: {
      from: 'student',
      limits: SMALL,
      fields: { board: Id, lamp: Lamp.nullable(), final: z.boolean() },
    },
  },
  serverMessages: {
    point: { by: Id, board: Id, at: Place.nullable() },
    shown: { shown: Overlay },
  },
  record: null,
  said: [],
});
